// Runs the specs of core in plain Node, all of them or those whose path holds one of the words given:
// node scripts/test-core.mjs drive/settings claim
import { build } from 'esbuild';
import { mkdirSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensurePackages, fail, root } from './ensure.mjs';

ensurePackages();
const words = process.argv.slice(2);
const specs = readdirSync(join(root, 'core'), { recursive: true })
  .map(String)
  .filter((f) => f.endsWith('.spec.ts') && (words.length === 0 || words.some((w) => f.includes(w))))
  .sort();
if (specs.length === 0) fail(`No spec of core holds ${words.join(' or ')} in its path.`);

const out = join(root, 'dist', 'node');
mkdirSync(out, { recursive: true });
const outfile = join(out, 'core-specs.mjs');
await build({
  stdin: {
    contents: specs.map((f) => `import './core/${f.replaceAll('\\', '/')}';`).join('\n'),
    resolveDir: root,
  },
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  mainFields: ['module', 'main'],
  tsconfig: join(root, 'tsconfig.json'),
  sourcemap: 'inline',
  logLevel: 'warning',
});

process.setSourceMapsEnabled(true);
const jasmine = createRequire(import.meta.url)('jasmine-core').boot();
const env = jasmine.getEnv();
env.configure({ random: false });
// Laws look at whole catalogues: slow is not wrong.
jasmine.DEFAULT_TIMEOUT_INTERVAL = 120_000;
let [passed, failed] = [0, 0];
env.addReporter({
  specDone(spec) {
    if (spec.status === 'passed') passed++;
    else if (spec.status === 'failed') {
      failed++;
      console.log(`\n✘ ${spec.fullName}`);
      for (const e of spec.failedExpectations.slice(0, 5)) console.log(`  ${e.message}\n${e.stack ?? ''}`);
    }
  },
});
await import(pathToFileURL(outfile).href);
const started = Date.now();
const overall = await env.execute();
const seconds = ((Date.now() - started) / 1000).toFixed(1);
console.log(`${passed} passed, ${failed} failed (${specs.length} files, ${seconds} s)`);
process.exit(overall.overallStatus === 'passed' ? 0 : 1);
