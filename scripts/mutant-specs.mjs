// What the mutation tester runs for each planted error: the specs of a room, up to the first that fails.
import { bundleSpecs, runSpecs } from './core-specs.mjs';

const [what, ...words] = process.argv.slice(2);
if (what === 'bundle') process.exit((await bundleSpecs(words)) > 0 ? 0 : 1);
const { ok } = await runSpecs(() => process.exit(1));
process.exit(ok ? 0 : 1);
