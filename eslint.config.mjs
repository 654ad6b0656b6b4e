import js from '@eslint/js';
import ts from 'typescript-eslint';
import ng from 'angular-eslint';
import { walls } from './eslint.walls.mjs';

/** What stands is read through core/facts/read; only that room reaches into a state. */
const insideOfState = (watches) => ({
  regex: `^@core/facts/(slots${watches ? '' : '|watch'})$`,
  message: 'What stands is read through core/facts/read.',
});

const EVERYWHERE = [
  { selector: 'ExportAllDeclaration', message: 'Name what you export.' },
  {
    selector: "NewExpression[callee.name='Date'][arguments.length=0]",
    message: 'Time comes in as an argument; ask the Clock.',
  },
];
const OF_FACTS = [
  {
    selector: "MemberExpression[object.name='state'][property.name='slots']",
    message: 'What stands is read through core/facts/read.',
  },
];
const OF_KEEPING = {
  selector: "NewExpression[callee.name='WeakMap']",
  message: 'What is worked out once is kept in one way: core/quantity/keep.',
};
const OF_LIMITS = {
  selector: "BinaryExpression[operator=/^[<>]=?$/] > MemberExpression[property.name='value']",
  message: 'A measured value meets a limit with its uncertainty: core/quantity/judge.',
};

const hostGlobals = [
  'window',
  'document',
  'fetch',
  'localStorage',
  'navigator',
  'process',
  'indexedDB',
  'self',
  'crypto',
];

export default ts.config(
  { ignores: ['dist/**', '.angular/**', 'node_modules/**', 'docs/schema/**', 'test-results/**'] },
  {
    files: ['**/*.ts'],
    extends: [
      js.configs.recommended,
      ...ts.configs.recommendedTypeChecked,
      ...ts.configs.stylisticTypeChecked,
    ],
    languageOptions: {
      parserOptions: {
        project: ['tsconfig.spec.json', 'tsconfig.node.json', 'tsconfig.worker.json'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/consistent-type-definitions': 'off',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      'no-restricted-syntax': ['error', ...EVERYWHERE, OF_KEEPING],
    },
  },
  walls,
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: { 'no-restricted-globals': ['error', ...hostGlobals] },
  },
  {
    files: ['core/**/*.ts', 'app/**/*.ts'],
    ignores: ['**/*.spec.ts', 'core/facts/**', 'core/answer/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: [insideOfState(false)] }] },
  },
  {
    files: ['core/answer/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: [insideOfState(true)] }] },
  },
  {
    files: ['app/**/*.ts'],
    extends: [...ng.configs.tsRecommended],
    processor: ng.processInlineTemplates,
    rules: {
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'hs', style: 'kebab-case' }],
    },
  },
  {
    files: ['app/**/*.ts', 'core/**/*.ts'],
    ignores: ['**/*.spec.ts', 'core/facts/**'],
    rules: { 'no-restricted-syntax': ['error', ...EVERYWHERE, ...OF_FACTS, OF_LIMITS, OF_KEEPING] },
  },
  // What is read out of a text is a figure somebody wrote, not a measured value.
  {
    files: ['core/intake/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: { 'no-restricted-syntax': ['error', ...EVERYWHERE, ...OF_FACTS, OF_KEEPING] },
  },
  {
    files: ['app/**/*.html'],
    extends: [...ng.configs.templateRecommended, ...ng.configs.templateAccessibility],
    rules: {
      // The library's controls, in our look: native ones do not come back. What we paint ourselves is no control of theirs.
      'no-restricted-syntax': [
        'error',
        {
          selector: 'Element[name=/^(select|dialog|table|datalist)$/]',
          message: 'Use the library: hs-pick, hs-modal, nz-table, nz-autocomplete.',
        },
        {
          selector:
            'Element[name="input"] > TextAttribute[name="type"][value=/^(radio|checkbox|range|date)$/]',
          message: 'Use the library: nz-segmented or hs-tiles, nz-checkbox, nz-slider, hs-date-pick.',
        },
      ],
    },
  },
  {
    files: ['core/quantity/keep.ts'],
    rules: { 'no-restricted-syntax': ['error', ...EVERYWHERE] },
  },
  {
    files: ['**/*.spec.ts', '**/*.fixture.ts', 'e2e/**/*.ts', 'benchmarks/**/*.ts'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
  },
  {
    files: ['**/*.mjs', '**/*.cjs'],
    extends: [js.configs.recommended],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        module: 'writable',
        require: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        Buffer: 'readonly',
      },
    },
  },
);
