import js from '@eslint/js';
import ts from 'typescript-eslint';
import ng from 'angular-eslint';

/** Rooms of core and which of the others each may import. `simulate` and `practice` are named before they are built. */
const below = (...rooms) => [...new Set(rooms.flatMap((r) => [r, ...MAY[r]]))];
const MAY = { quantity: [] };
MAY.facts = below('quantity');
MAY.house = below('facts');
MAY.drive = below('facts');
MAY.catalogue = below('drive', 'house');
MAY.simulate = below('quantity');
for (const room of ['match', 'bench', 'trace']) MAY[room] = below('catalogue');
MAY.fitting = below('match', 'bench', 'house');
MAY.cause = below('bench', 'match', 'trace');
MAY.claim = below('cause', 'fitting', 'house');
MAY.answer = below('claim');
MAY.patterns = below('answer');
MAY.practice = below('answer', 'simulate');
MAY.intake = below('catalogue');
MAY.advice = below('answer');

const roomRules = Object.entries(MAY).map(([room, may]) => {
  const banned = Object.keys(MAY).filter((r) => r !== room && !may.includes(r));
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
                    regex: `^(@core|\\.\\./?.*)/(${banned.join('|')})/`,
                    message: `core/${room} may import only ${may.join(', ') || 'nothing of ours'}.`,
                  },
                ]
              : []),
            ...(room === 'facts' ? [] : insideOfState(room === 'answer')),
          ],
        },
      ],
    },
  };
});

/** What stands is read through core/facts/read; only that room reaches into a state. */
function insideOfState(watches) {
  return [
    {
      regex: `^@core/facts/(slots${watches ? '' : '|watch'})$`,
      message: 'What stands is read through core/facts/read.',
    },
  ];
}

function outsideCore() {
  return [
    {
      regex:
        '^(@angular|ng-zorro-antd|@ant-design|rxjs|echarts|konva|express|idb|file-saver|tinykeys|node:|@app|@demo|.*/app/|.*/server/)',
      message: 'core is pure: no framework, no host, nothing from outside core.',
    },
  ];
}

/** Parts of the app that may not import others, and what else they may not. */
function layer(parts, banned, more = []) {
  return {
    files: parts.map((p) => `app/${p}/**/*.ts`),
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: `^\\.\\./(\\.\\./)?(${banned.join('|')})/`,
              message: `app/${parts.join(' and app/')} import nothing of ${banned.join(', ')}.`,
            },
            ...more,
          ],
        },
      ],
    },
  };
}

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
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      'no-restricted-syntax': ['error', ...EVERYWHERE],
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
    files: ['app/**/*.ts', 'core/**/*.ts'],
    ignores: ['**/*.spec.ts', 'core/facts/**'],
    rules: { 'no-restricted-syntax': ['error', ...EVERYWHERE, ...OF_FACTS, OF_LIMITS] },
  },
  // What is read out of a text is a figure somebody wrote, not a measured value.
  {
    files: ['core/intake/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: { 'no-restricted-syntax': ['error', ...EVERYWHERE, ...OF_FACTS] },
  },
  // Records and threads know no screen: no component library, no messages to the user, no routes.
  layer(
    ['data', 'workers'],
    ['acts', 'entry', 'ui', 'shell', 'stations', 'drive', 'catalogue', 'report', 'words'],
    [
      {
        regex: '^(ng-zorro-antd|@ant-design|@angular/router|@angular/cdk)',
        message: 'Records and threads know no screen.',
      },
    ],
  ),
  // Painted parts know figures and drawings of a drive, and nothing of cases.
  layer(
    ['ui'],
    ['acts', 'data', 'entry', 'shell', 'stations', 'drive', 'catalogue', 'report', 'workers'],
    [
      {
        regex:
          '^@core/(answer|bench|cause|catalogue|claim|fitting|match|trace|patterns|practice|intake|advice)/',
        message: 'Painted parts know nothing of cases.',
      },
    ],
  ),
  layer(['words', 'report'], ['data', 'entry', 'shell', 'stations', 'drive', 'catalogue']),
  layer(['acts', 'entry'], ['shell', 'stations', 'catalogue']),
  layer(['fitting'], ['data', 'acts', 'entry', 'shell', 'stations', 'drive', 'catalogue', 'report']),
  // What goes out with a fitting sheet runs far from the desk.
  layer(
    ['fitter'],
    [
      'data',
      'acts',
      'entry',
      'shell',
      'stations',
      'drive',
      'catalogue',
      'report',
      'ui',
      'words',
      'fitting',
      'workers',
    ],
  ),
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
