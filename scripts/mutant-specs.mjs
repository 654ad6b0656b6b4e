// What the mutation tester runs for each planted error: the specs of a room, up to the first that fails.
import { bundleSpecs, runSpecs, specsOf } from './core-specs.mjs';

const [what, ...words] = process.argv.slice(2);
if (what === 'bundle') {
  const specs = specsOf(words);
  await bundleSpecs(specs);
  process.exit(specs.length > 0 ? 0 : 1);
}
const { ok } = await runSpecs(() => process.exit(1));
process.exit(ok ? 0 : 1);
