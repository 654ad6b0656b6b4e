// Type-checks every room under the tsconfig that limits what it may see.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';

const root = resolve(import.meta.dirname, '..');
const bin = (name) => resolve(root, 'node_modules', name);
let failed = 0;
for (const [tool, config] of [
  ['typescript/bin/tsc', 'tsconfig.core.json'],
  ['typescript/bin/tsc', 'tsconfig.node.json'],
  ['typescript/bin/tsc', 'tsconfig.worker.json'],
  ['@angular/compiler-cli/bundles/src/bin/ngc.js', 'tsconfig.app.json'],
]) {
  if (!existsSync(resolve(root, config))) continue;
  const run = spawnSync(process.execPath, [bin(tool), '-p', config, '--noEmit'], {
    cwd: root,
    stdio: 'inherit',
  });
  if (run.status !== 0) {
    console.error(`types: ${config} failed`);
    failed++;
  }
}
process.exit(failed ? 1 : 0);
