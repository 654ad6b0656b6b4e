// Runs the specs of core in plain Node, all of them or those whose path holds one of the words given:
// node scripts/test-core.mjs drive/settings claim
import { ensurePackages, fail } from './ensure.mjs';

ensurePackages();
const { bundleSpecs, runSpecs } = await import('./core-specs.mjs');
const words = process.argv.slice(2);
const files = await bundleSpecs(words);
if (files === 0) fail(`No spec of core holds ${words.join(' or ')} in its path.`);

process.setSourceMapsEnabled(true);
const started = Date.now();
const { passed, failed, ok } = await runSpecs((spec) => {
  console.log(`\n✘ ${spec.fullName}`);
  for (const e of spec.failedExpectations.slice(0, 5)) console.log(`  ${e.message}\n${e.stack ?? ''}`);
});
const seconds = ((Date.now() - started) / 1000).toFixed(1);
console.log(`${passed} passed, ${failed} failed (${files} files, ${seconds} s)`);
process.exit(ok ? 0 : 1);
