// Names every circle of files: a file that comes back to itself through what it imports, types included.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const files = ['core', 'app', 'server', 'demo', 'bench', 'e2e'].flatMap((room) =>
  readdirSync(join(root, room), { recursive: true })
    .filter((f) => f.endsWith('.ts'))
    .map((f) => normalize(join(room, f))),
);

/** The file that an import means; undefined for packages and data. */
function target(from, name) {
  const path = name.startsWith('.') ? join(dirname(from), name) : name.replace(/^@(core|app|demo)\//, '$1/');
  const file = `${normalize(path)}.ts`;
  return existsSync(join(root, file)) ? file : undefined;
}

const imports = new Map(
  files.map((f) => {
    const read = ts.preProcessFile(readFileSync(join(root, f), 'utf8')).importedFiles;
    return [f, [...new Set(read.flatMap((i) => target(f, i.fileName) ?? []))]];
  }),
);

/** Strongly connected files (Tarjan 1972); those of more than one file are circles. */
const [index, low, stack, circles] = [new Map(), new Map(), [], []];
function visit(file) {
  index.set(file, index.size);
  low.set(file, index.get(file));
  stack.push(file);
  for (const next of imports.get(file) ?? []) {
    if (!index.has(next)) visit(next);
    if (stack.includes(next)) low.set(file, Math.min(low.get(file), low.get(next)));
  }
  if (low.get(file) !== index.get(file)) return;
  const circle = stack.splice(stack.indexOf(file));
  if (circle.length > 1) circles.push(circle);
}
for (const f of files) if (!index.has(f)) visit(f);

for (const c of circles) console.error(`circle of ${c.length} files: ${c.sort().join(', ')}`);
console.log(`${files.length} files, ${circles.length} circles`);
process.exit(circles.length === 0 ? 0 : 1);
