// npm test: lint, types, unit tests, end-to-end tests; one closing line that counts every test that ran.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureChromium } from './chromium.mjs';
import { ensurePostgres } from './postgres.mjs';
import { ensureBuild, ensurePackages, root } from './ensure.mjs';

ensurePackages();
ensureChromium();
ensurePostgres();

/** Runs a step, shows what it prints, and returns it with the exit code. `beside`: with others at once, so that all of it is shown at its end. */
function step(name, args, beside = false) {
  if (!beside) console.log(`\n── ${name}`);
  return new Promise((resolve) => {
    const child = spawn(
      process.execPath,
      args.map((a, i) => (i === 0 ? join(root, a) : a)),
      {
        cwd: root,
        stdio: ['ignore', 'pipe', 'pipe'],
        env: { ...process.env, NG_CLI_ANALYTICS: 'false', FORCE_COLOR: '0', NO_COLOR: '1' },
      },
    );
    let out = '';
    for (const stream of [child.stdout, child.stderr]) {
      stream.on('data', (chunk) => {
        out += chunk;
        if (!beside) process.stdout.write(chunk);
      });
    }
    child.on('close', (code) => {
      if (beside) console.log(`\n── ${name}\n${out}`);
      resolve({ code: code ?? 1, out });
    });
  });
}

const count = (text, pattern) => Number(pattern.exec(text)?.[1] ?? 0);
const lastOf = (text, pattern) => [...text.matchAll(pattern)].at(-1);
let passed = 0;
let failed = 0;

// Nothing here depends on time, so two lanes of it run side by side; what runs in a browser comes behind, alone.
const LANES = [
  [
    ['lint', ['node_modules/eslint/bin/eslint.js', '.', '--max-warnings', '0']],
    ['format', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.']],
    ['circles', ['scripts/circles.mjs']],
  ],
  [
    ['types', ['scripts/types.mjs']],
    ['names', ['scripts/names.mjs']],
    ['drawing of the rooms', ['scripts/draw-rooms.mjs', '--check']],
    ['dead exports', ['node_modules/knip/bin/knip.js', '--no-config-hints']],
  ],
];
await Promise.all(
  LANES.map(async (lane) => {
    for (const [name, args] of lane) {
      const run = await step(name, args, true);
      if (run.code === 0) passed++;
      else failed++;
    }
  }),
);

const unit = await step('unit tests', ['node_modules/@angular/cli/bin/ng.js', 'test']);
const closing = lastOf(unit.out, /Executed (\d+) of (\d+)(?: \((\d+) FAILED\))?/g);
const unitFailed = Number(closing?.[3] ?? 0);
passed += Number(closing?.[1] ?? 0) - unitFailed;
failed += unitFailed + (unit.code !== 0 && unitFailed === 0 ? 1 : 0);

ensureBuild();
const e2e = await step('end-to-end tests', [
  'node_modules/@playwright/test/cli.js',
  'test',
  '--config',
  'e2e/playwright.config.ts',
  '--reporter',
  'list',
]);
const e2eFailed = count(e2e.out, /(\d+) failed/);
passed += count(e2e.out, /(\d+) passed/);
failed += e2eFailed + (e2e.code !== 0 && e2eFailed === 0 ? 1 : 0);

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
