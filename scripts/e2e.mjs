// Playwright against the built app. Arguments are handed on.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureChromium } from './chromium.mjs';
import { ensurePostgres } from './postgres.mjs';
import { ensureBuild, ensurePackages, root } from './ensure.mjs';

ensurePackages();
ensureChromium();
ensurePostgres();
ensureBuild();
const args = process.argv.slice(2);
if (!args.includes('--config')) args.push('--config', 'e2e/playwright.config.ts');
const run = spawnSync(
  process.execPath,
  [join(root, 'node_modules/@playwright/test/cli.js'), 'test', ...args],
  { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] },
);
process.exit(run.status ?? 1);
