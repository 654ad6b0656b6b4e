// What every file of ours imports of ours, types included.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');

/** The file that an import means; undefined for packages and data. */
function target(from, name) {
  const path = name.startsWith('.') ? join(dirname(from), name) : name.replace(/^@(core|app|demo)\//, '$1/');
  const file = `${normalize(path)}.ts`;
  return existsSync(join(root, file)) ? file : undefined;
}

/** By file, the files that it imports. */
export const imports = new Map(
  ['core', 'app', 'server', 'demo', 'benchmarks', 'e2e']
    .flatMap((room) =>
      readdirSync(join(root, room), { recursive: true })
        .filter((f) => f.endsWith('.ts'))
        .map((f) => normalize(join(room, f))),
    )
    .map((f) => {
      const read = ts.preProcessFile(readFileSync(join(root, f), 'utf8')).importedFiles;
      return [f, [...new Set(read.flatMap((i) => target(f, i.fileName) ?? []))]];
    }),
);
