// Runs the specs of core in plain Node, all of them or those whose path holds one of the words given, side by side:
// node scripts/test-core.mjs drive/settings claim
import { fork } from 'node:child_process';
import { statSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { ensurePackages, fail, root } from './ensure.mjs';

const started = Date.now();
const SHARES_EACH = 4;
if (process.argv[2] === '--part') await runPart(process.argv[3], process.argv.slice(4));
else await runAll(process.argv.slice(2));

/** One share of the specs, in a process of its own. */
async function runPart(part, specs) {
  const { bundleSpecs, runSpecs } = await import('./core-specs.mjs');
  await bundleSpecs(specs, part);
  process.setSourceMapsEnabled(true);
  const { passed, failed, ok } = await runSpecs((spec) => {
    console.log(`\n✘ ${spec.fullName}`);
    for (const e of spec.failedExpectations.slice(0, 5)) console.log(`  ${e.message}\n${e.stack ?? ''}`);
  }, part);
  process.send({ passed, failed }, () => process.exit(ok ? 0 : 1));
}

async function runAll(words) {
  ensurePackages();
  const { specsOf } = await import('./core-specs.mjs');
  const specs = specsOf(words);
  if (specs.length === 0) fail(`No spec of core holds ${words.join(' or ')} in its path.`);
  const cores = availableParallelism();
  // More shares than cores: which specs are slow is not written anywhere, and whoever is done takes the next.
  const left = sharesOf(specs, Math.min(SHARES_EACH * cores, specs.length)).map((share, i) => [
    String(i),
    share,
  ]);
  const all = [];
  const take = async () => {
    for (let next = left.shift(); next; next = left.shift()) all.push(await outcome(...next));
  };
  await Promise.all(Array.from({ length: cores }, take));
  const sum = (of) => all.reduce((n, part) => n + part[of], 0);
  const seconds = ((Date.now() - started) / 1000).toFixed(1);
  console.log(`${sum('passed')} passed, ${sum('failed')} failed (${specs.length} files, ${seconds} s)`);
  process.exit(all.every((part) => part.ok) ? 0 : 1);
}

/** Files in shares of about the same size, the largest first. */
function sharesOf(specs, count) {
  const shares = Array.from({ length: count }, () => ({ specs: [], bytes: 0 }));
  const sized = specs.map((f) => ({ f, bytes: statSync(join(root, 'core', f)).size }));
  for (const { f, bytes } of sized.sort((a, b) => b.bytes - a.bytes)) {
    const least = shares.reduce((a, b) => (b.bytes < a.bytes ? b : a));
    least.specs.push(f);
    least.bytes += bytes;
  }
  return shares.map((s) => s.specs);
}

/** What comes of one share; a process that dies has failed. */
function outcome(part, specs) {
  return new Promise((resolve) => {
    let counted = { passed: 0, failed: 0 };
    const child = fork(import.meta.filename, ['--part', part, ...specs], { cwd: root });
    child.on('message', (m) => (counted = m));
    child.on('close', (code) => resolve({ ...counted, ok: code === 0 }));
  });
}
