import js from '@eslint/js';
import ts from 'typescript-eslint';
import ng from 'angular-eslint';

/** Rooms of core, lowest first: a room may import only rooms that stand before it. */
const rooms = [
  'quantity',
  'facts',
  'drive',
  'catalogue',
  ['match', 'bench', 'fitting'],
  'cause',
  'claim',
  'answer',
];
const roomRules = rooms.flatMap((level, i) =>
  [level].flat().map((room) => {
    const siblings = [level].flat().filter((r) => r !== room);
    const banned = [...rooms.slice(i + 1).flat(), ...siblings];
    return {
      files: [`core/${room}/**/*.ts`],
      rules: {
        'no-restricted-imports': [
          'error',
          {
            patterns: [
              ...outsideCore(),
              ...(banned.length
                ? [
                    {
                      regex: `(^|/)(${banned.join('|')})/`,
                      message: `core/${room} may import only lower rooms of core.`,
                    },
                  ]
                : []),
            ],
          },
        ],
      },
    };
  }),
);

function outsideCore() {
  return [
    {
      regex:
        '^(@angular|ng-zorro-antd|@ant-design|rxjs|echarts|konva|express|idb|comlink|node:|@app|@demo|.*/app/|.*/server/)',
      message: 'core is pure: no framework, no host, nothing from outside core.',
    },
  ];
}

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
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportAllDeclaration', message: 'Name what you export.' },
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'Time comes in as an argument; ask the Clock.',
        },
      ],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-globals': ['error', ...hostGlobals],
      'no-restricted-imports': ['error', { patterns: outsideCore() }],
    },
  },
  ...roomRules,
  {
    files: ['core/**/*.spec.ts', 'demo/**/*.spec.ts'],
    rules: { 'no-restricted-imports': 'off' },
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
    files: ['app/data/**/*.ts', 'app/workers/**/*.ts', 'app/ui/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '(stations|shell)/', message: 'Nobody below the screen imports a station.' }] },
      ],
    },
  },
  {
    files: ['app/stations/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '^(\\.\\./(call|identify|fit|examine|cause|settle)/|@app/stations/)',
              message: 'Nobody imports a station.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['server/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { regex: '^@core/(?!simulate)|^@app|^@demo', message: 'The server imports core/simulate only.' },
          ],
        },
      ],
    },
  },
  {
    files: ['app/**/*.html'],
    extends: [...ng.configs.templateRecommended, ...ng.configs.templateAccessibility],
  },
  { files: ['**/*.spec.ts', 'e2e/**/*.ts'], rules: { '@typescript-eslint/no-non-null-assertion': 'off' } },
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
