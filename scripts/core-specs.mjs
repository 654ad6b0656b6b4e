// The specs of core as one module for plain Node, and a run of it.
import { build } from 'esbuild';
import { mkdirSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';

const root = resolve(import.meta.dirname, '..');
const outfile = (part) => join(root, 'dist', 'node', `core-specs${part}.mjs`);

/** Specs whose path holds one of the words, all of them without words. */
export const specsOf = (words) =>
  readdirSync(join(root, 'core'), { recursive: true })
    .map((f) => String(f).replaceAll('\\', '/'))
    .filter((f) => f.endsWith('.spec.ts') && (words.length === 0 || words.some((w) => f.includes(w))))
    .sort();

/** Bundles specs. @param part tells one bundle from others beside it */
export async function bundleSpecs(specs, part = '') {
  mkdirSync(join(root, 'dist', 'node'), { recursive: true });
  await build({
    stdin: { contents: specs.map((f) => `import './core/${f}';`).join('\n'), resolveDir: root },
    outfile: outfile(part),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    mainFields: ['module', 'main'],
    tsconfig: join(root, 'tsconfig.json'),
    sourcemap: 'inline',
    logLevel: 'warning',
  });
}

/** Runs what was bundled; calls `failed` for every spec that fails. */
export async function runSpecs(failed, part = '') {
  const jasmine = createRequire(import.meta.url)('jasmine-core').boot();
  const env = jasmine.getEnv();
  env.configure({ random: false });
  // Laws look at whole catalogues: slow is not wrong.
  jasmine.DEFAULT_TIMEOUT_INTERVAL = 120_000;
  const count = { passed: 0, failed: 0 };
  env.addReporter({
    specDone(spec) {
      if (spec.status === 'passed') count.passed++;
      else if (spec.status === 'failed') {
        count.failed++;
        failed(spec);
      }
    },
  });
  await import(pathToFileURL(outfile(part)).href);
  const { overallStatus } = await env.execute();
  return { ...count, ok: overallStatus === 'passed' };
}
