// npm run bench: figures with a baseline in the same run.
import { pathToFileURL } from 'node:url';
import { ensureChromium } from './chromium.mjs';
import { ensureBuild, ensurePackages, root } from './ensure.mjs';

ensurePackages();
ensureChromium();
ensureBuild();
process.chdir(root);
const { bundle } = await import('./run-ts.mjs');
await import(pathToFileURL(await bundle('benchmarks/main.ts')).href);
