// npm run dev: the app rebuilt at every change, on http://localhost:4200.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensurePackages, root } from './ensure.mjs';

ensurePackages();
const { bundlePage } = await import('./run-ts.mjs');
const { cutFonts } = await import('./fonts.mjs');
await cutFonts();
await bundlePage('app/fitter/page.ts', 'app/public/fitter.js');
const child = spawn(
  process.execPath,
  [join(root, 'node_modules/@angular/cli/bin/ng.js'), 'serve', ...process.argv.slice(2)],
  { cwd: root, stdio: 'inherit', env: { ...process.env, NG_CLI_ANALYTICS: 'false' } },
);
child.on('exit', (code) => process.exit(code ?? 0));
