// Bundles one TypeScript file for Node and runs it: scripts and benches share core's sources with the app.
import { build } from 'esbuild';
import { mkdirSync } from 'node:fs';
import { resolve, join } from 'node:path';
import { pathToFileURL } from 'node:url';

const root = resolve(import.meta.dirname, '..');

/** Bundles `entry` and returns the path of the runnable module. */
export async function bundle(entry) {
  const outDir = join(root, 'dist', 'node');
  mkdirSync(outDir, { recursive: true });
  const outfile = join(outDir, entry.replace(/[\\/]/g, '-').replace(/\.ts$/, '.mjs'));
  await build({
    entryPoints: [join(root, entry)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    mainFields: ['module', 'main'],
    tsconfig: join(root, 'tsconfig.json'),
    external: [
      '@playwright/test',
      'express',
      'express-static-gzip',
      'helmet',
      'compression',
      '@electric-sql/pglite',
      'pg',
    ],
    logLevel: 'warning',
  });
  return outfile;
}

/** Bundles a script, small, into one file: for browsers of some years ago unless said otherwise. */
export async function bundlePage(entry, outfile, target = ['es2019']) {
  await build({
    entryPoints: [join(root, entry)],
    outfile: join(root, outfile),
    bundle: true,
    minify: true,
    format: 'iife',
    target,
    mainFields: ['module', 'main'],
    tsconfig: join(root, 'tsconfig.json'),
    charset: 'ascii',
    legalComments: 'none',
    logLevel: 'warning',
  });
}

if (process.argv[1] && resolve(process.argv[1]) === import.meta.filename) {
  const [entry, ...rest] = process.argv.slice(2);
  if (!entry) {
    console.error('Name the TypeScript file to run: node scripts/run-ts.mjs scripts/write-demo.ts');
    process.exit(1);
  }
  const file = await bundle(entry);
  process.argv = [process.argv[0], file, ...rest];
  await import(pathToFileURL(file).href);
}
