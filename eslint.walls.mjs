import boundaries from 'eslint-plugin-boundaries';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';

/** What a room may import: rooms of ours, packages. Nothing else. The drawing in docs/architecture.md is made from this too. */
const deep = (...rooms) => [...new Set(rooms.flatMap((r) => [r, ...CORE[r]]))];
const CORE = { quantity: [] };
CORE.facts = deep('quantity');
CORE.policy = deep('facts');
CORE.shelf = deep('facts');
CORE.drive = deep('quantity');
CORE.simulate = deep('quantity');
CORE.catalogue = deep('facts', 'drive', 'policy');
CORE.match = deep('catalogue');
CORE.examination = deep('catalogue');
CORE.trace = deep('drive');
CORE.intake = deep('catalogue', 'trace');
CORE.fitting = deep('match', 'examination');
CORE.cause = deep('examination', 'match', 'trace');
CORE.claim = deep('cause', 'fitting');
CORE.answer = deep('claim');
CORE.advice = deep('answer');
CORE.patterns = deep('answer');
CORE.practice = deep('answer', 'patterns');

const CORE_PACKAGES = {
  quantity: ['jsonc-parser'],
  facts: ['@noble/hashes', 'canonicalize'],
  shelf: ['@noble/hashes'],
  drive: ['ml-matrix'],
  examination: ['ml-matrix'],
  catalogue: ['fastest-levenshtein'],
  intake: ['fastest-levenshtein', 'papaparse'],
  cause: ['papaparse'],
  fitting: ['@noble/hashes'],
  claim: ['@noble/hashes', '@noble/curves'],
};

const ANGULAR = ['@angular/core', '@angular/common', '@angular/forms', '@angular/router', '@angular/cdk'];
const SCREEN = [...ANGULAR, 'ng-zorro-antd', 'rxjs'];
/** Folders of the app: the rooms of core, the folders and the packages that each may import. */
const ANY_CORE = Object.keys(CORE);
const APP = {
  language: { core: ['quantity'], app: [], packages: [] },
  threads: { core: ['quantity'], app: [], packages: ['rxjs'] },
  records: {
    core: ['quantity', 'facts', 'catalogue', 'answer', 'practice', 'shelf'],
    app: [],
    packages: ['idb', '@noble/hashes'],
  },
  instruments: { core: ['quantity', 'facts', 'examination'], app: [], packages: ['@angular/core', 'rxjs'] },
  fitter: { core: ['quantity', 'facts', 'fitting'], app: [], packages: ['qrcode-generator'] },
  workers: {
    core: ANY_CORE,
    app: ['threads', 'records'],
    packages: ['fflate', 'papaparse', 'idb', 'postal-mime', 'read-excel-file', 'write-excel-file'],
  },
  data: {
    core: ANY_CORE,
    app: ['threads', 'records', 'workers'],
    packages: ['@angular/core', 'rxjs', 'idb'],
  },
  shelves: {
    core: ANY_CORE,
    app: ['records', 'data'],
    packages: ['@angular/core', 'rxjs', 'idb'],
  },
  ui: {
    core: ['quantity', 'facts', 'drive'],
    app: ['language'],
    packages: [...SCREEN, 'echarts', 'zrender', '@ant-design/icons-angular'],
  },
  'part-drawings': { core: ANY_CORE, app: ['ui'], packages: [] },
  fitting: { core: ANY_CORE, app: ['ui'], packages: ['@angular/core'] },
  messages: { core: ANY_CORE, app: ['language', 'ui', 'instruments', 'workers'], packages: [] },
  report: {
    core: ANY_CORE,
    app: ['language', 'threads', 'ui', 'messages', 'fitting'],
    packages: ['ics', 'pdfmake', 'papaparse', 'mimetext', 'file-saver', 'qrcode-generator'],
  },
  commands: {
    core: ANY_CORE,
    app: ['language', 'threads', 'records', 'workers', 'data', 'ui', 'messages', 'report'],
    packages: ['@angular/core', '@angular/router', 'ng-zorro-antd', 'rxjs', 'fflate', 'jsqr'],
  },
  entry: {
    core: ANY_CORE,
    app: ['language', 'instruments', 'data', 'ui', 'messages', 'commands'],
    packages: SCREEN,
  },
  drive: {
    core: ANY_CORE,
    app: ['language', 'data', 'ui', 'messages', 'commands', 'entry'],
    packages: SCREEN,
  },
  catalogue: {
    core: ANY_CORE,
    app: ['language', 'data', 'ui', 'messages', 'report', 'commands', 'part-drawings'],
    packages: SCREEN,
  },
  patterns: {
    core: ANY_CORE,
    app: ['language', 'data', 'ui', 'messages', 'report', 'commands'],
    packages: [...SCREEN, 'echarts'],
  },
  knowledge: {
    core: ANY_CORE,
    app: ['language', 'data', 'ui', 'messages', 'report', 'commands'],
    packages: SCREEN,
  },
  practice: {
    core: ANY_CORE,
    app: ['language', 'data', 'ui', 'messages', 'report', 'commands', 'part-drawings', 'fitting'],
    packages: [...SCREEN, 'echarts'],
  },
  ledger: {
    core: ANY_CORE,
    app: ['language', 'data', 'ui', 'messages', 'report'],
    packages: SCREEN,
  },
  claims: {
    core: ANY_CORE,
    app: ['language', 'data', 'ui', 'messages', 'report', 'commands'],
    packages: SCREEN,
  },
  mail: {
    core: ANY_CORE,
    app: ['language', 'workers', 'data', 'ui', 'messages', 'commands'],
    packages: SCREEN,
  },
  proof: {
    core: ANY_CORE,
    app: ['language', 'threads', 'workers', 'data', 'ui', 'messages', 'report', 'commands'],
    packages: SCREEN,
  },
  safety: {
    core: ANY_CORE,
    app: ['language', 'data', 'ui', 'messages', 'commands', 'offline'],
    packages: SCREEN,
  },
  words: {
    core: ANY_CORE,
    app: ['language', 'data', 'ui', 'messages', 'report', 'commands'],
    packages: SCREEN,
  },
  offline: {
    core: [],
    app: ['data', 'commands'],
    packages: [...SCREEN, '@angular/service-worker'],
  },
  together: {
    core: ANY_CORE,
    app: ['language', 'data', 'ui', 'messages', 'report', 'commands', 'shelves'],
    packages: SCREEN,
  },
  tours: {
    core: ['quantity', 'facts'],
    app: ['data', 'commands'],
    packages: SCREEN,
  },
  shell: {
    core: ANY_CORE,
    app: [
      'language',
      'data',
      'ui',
      'messages',
      'commands',
      'entry',
      'tours',
      'practice',
      'offline',
      'shelves',
    ],
    packages: [...SCREEN, 'tinykeys'],
  },
};
const STATION = {
  core: ANY_CORE,
  app: [
    'language',
    'workers',
    'instruments',
    'data',
    'ui',
    'messages',
    'part-drawings',
    'fitting',
    'report',
    'commands',
    'entry',
  ],
  packages: SCREEN,
};
export const STATIONS = readdirSync(join(import.meta.dirname, 'app', 'stations'), { withFileTypes: true })
  .filter((e) => e.isDirectory())
  .map((e) => e.name);

const rooms = (names, folder) => names.map((n) => `${folder}/${n}`);
/** Every room by its folder, with what it may import. */
export const ROOMS = {
  ...Object.fromEntries(
    Object.entries(CORE).map(([room, may]) => [
      `core/${room}`,
      { ours: rooms(may, 'core'), packages: ['zod', ...(CORE_PACKAGES[room] ?? [])] },
    ]),
  ),
  ...Object.fromEntries(
    [...Object.entries(APP), ...STATIONS.map((s) => [`stations/${s}`, STATION])].map(([folder, may]) => [
      `app/${folder}`,
      { ours: [...rooms(may.core, 'core'), ...rooms(may.app, 'app')], packages: ['zod', ...may.packages] },
    ]),
  ),
  server: {
    ours: ['core/simulate', 'core/quantity', 'core/shelf', 'core/facts'],
    packages: [
      'zod',
      'node:*',
      'express',
      'helmet',
      'compression',
      'express-static-gzip',
      '@electric-sql/pglite',
      'pg',
    ],
  },
  demo: { ours: rooms(ANY_CORE, 'core'), packages: ['zod', 'fflate', 'fast-png', '@noble/hashes'] },
};

const ELSEWHERE = ['app/testing', 'app', 'core', 'scripts', 'benchmarks', 'e2e'];
export const TESTS = ['**/*.spec.ts', '**/*.fixture.ts', 'app/testing/**'];

export const walls = {
  files: Object.keys(ROOMS).map((room) => `${room}/**/*.ts`),
  ignores: TESTS,
  plugins: { boundaries },
  settings: {
    'import/resolver': { [join(import.meta.dirname, 'scripts', 'resolve-ours.cjs')]: {} },
    'boundaries/root-path': import.meta.dirname,
    'boundaries/elements': [
      // Everything else of ours comes last: nothing below may import it.
      ...[...Object.keys(ROOMS), ...ELSEWHERE].map((room) => ({
        type: room,
        pattern: `${room}/**`,
        mode: 'full',
      })),
    ],
  },
  rules: {
    'boundaries/no-unknown': 'error',
    'boundaries/element-types': [
      'error',
      {
        default: 'disallow',
        message: '${file.type} may not import ${dependency.type}: see eslint.walls.mjs.',
        rules: Object.entries(ROOMS).map(([from, { ours }]) => ({ from, allow: [from, ...ours] })),
      },
    ],
    'boundaries/external': [
      'error',
      {
        default: 'disallow',
        message: '${file.type} may not import the package ${dependency.source}: see eslint.walls.mjs.',
        rules: Object.entries(ROOMS).map(([from, { packages }]) => ({ from, allow: packages })),
      },
    ],
  },
};
