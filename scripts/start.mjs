// npm start: installs if needed, builds if stale, serves.
import { pathToFileURL } from 'node:url';
import { join } from 'node:path';
import { ensureBuild, ensurePackages, root } from './ensure.mjs';

ensurePackages();
ensureBuild();
process.chdir(root);
await import(pathToFileURL(join(root, 'dist', 'node', 'server-main.mjs')).href);
