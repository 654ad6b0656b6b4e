// Names every circle of files: a file that comes back to itself through what it imports, types included.
import { imports } from './imports.mjs';

const files = [...imports.keys()];

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
