// Builds the app and bundles the server.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensurePackages, root } from './ensure.mjs';

ensurePackages();
const { bundle, bundlePage } = await import('./run-ts.mjs');
const { cutFonts } = await import('./fonts.mjs');
const { pressAll } = await import('./press.mjs');
// The script of the fitting sheet that leaves the house is one of the app's own files: the app puts it into the sheet.
await bundlePage('app/fitter/page.ts', 'app/public/fitter.js');
// So is the worker that keeps the program at hand without the server: it takes Angular's own along.
await bundlePage('app/offline/sw.worker.ts', 'app/public/sw.js', ['es2022']);
await cutFonts();
// Small parts that are always fetched together become one: some twenty-seven kilobytes less before the rack shows.
const env = { ...process.env, NG_CLI_ANALYTICS: 'false', NG_BUILD_OPTIMIZE_CHUNKS: 'true' };
const run = spawnSync(
  process.execPath,
  [join(root, 'node_modules/@angular/cli/bin/ng.js'), 'build', ...process.argv.slice(2)],
  { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], env },
);
if (run.status !== 0) process.exit(1);
await pressAll(join(root, 'dist/app'));
await bundle('server/main.ts');
