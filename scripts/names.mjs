// Every exported name means one thing: no two files export the same. And whoever follows an answer of a case ("go to definition"
// of `answers.ranking`) lands on what computes it.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';
import { imports } from './imports.mjs';

const root = join(fileURLToPath(import.meta.url), '..', '..');
const faults = [];

/** Names that a file exports of its own. @param values only what can be computed with, no types */
function exported(file, values = false) {
  const source = ts.createSourceFile(file, readFileSync(join(root, file), 'utf8'), ts.ScriptTarget.Latest);
  return source.statements.flatMap((s) => {
    if (!s.modifiers?.some((m) => m.kind === ts.SyntaxKind.ExportKeyword)) return [];
    if (values && !ts.isVariableStatement(s)) return [];
    const declared = ts.isVariableStatement(s) ? s.declarationList.declarations : [s];
    return declared.flatMap((d) => (d.name && ts.isIdentifier(d.name) ? [d.name.text] : []));
  });
}

const homes = new Map();
for (const file of imports.keys())
  if (!/\.(spec|fixture)\.ts$/.test(file) && !file.startsWith('e2e/'))
    for (const name of new Set(exported(file))) homes.set(name, [...(homes.get(name) ?? []), file]);
for (const [name, files] of homes)
  if (files.length > 1) faults.push(`${name} is exported by ${files.join(' and by ')}`);

/** Where the definition of each answer lies, as an editor finds it. */
function answers() {
  const file = join(root, 'core', 'answer', 'follow-answers.ts');
  const lines = [
    "import type { Answers } from './answers';",
    'export const follow = (answers: Answers) => [',
  ];
  const names = ts
    .preProcessFile(readFileSync(join(root, 'core', 'answer', 'answers.ts'), 'utf8'))
    .importedFiles.map((i) => i.fileName)
    .filter((f) => f.startsWith('./nodes/'))
    .flatMap((f) => {
      const from = `core/answer/${f.slice(2)}.ts`;
      return exported(from, true).map((name) => ({ name, from }));
    });
  for (const { name } of names) lines.push(`  answers.${name},`);
  const text = `${lines.join('\n')}\n];\n`;
  const config = ts.parseJsonConfigFileContent(
    ts.readConfigFile(join(root, 'tsconfig.core.json'), ts.sys.readFile).config,
    ts.sys,
    root,
  );
  const service = ts.createLanguageService({
    getScriptFileNames: () => [file],
    getScriptVersion: () => '1',
    getScriptSnapshot: (f) => {
      const content = f === file ? text : ts.sys.readFile(f);
      return content === undefined ? undefined : ts.ScriptSnapshot.fromString(content);
    },
    getCurrentDirectory: () => root,
    getCompilationSettings: () => config.options,
    getDefaultLibFileName: (options) => ts.getDefaultLibFilePath(options),
    fileExists: (f) => f === file || ts.sys.fileExists(f),
    readFile: (f) => (f === file ? text : ts.sys.readFile(f)),
    directoryExists: ts.sys.directoryExists,
    getDirectories: ts.sys.getDirectories,
  });
  for (const { name, from } of names) {
    const found = service.getDefinitionAtPosition(file, text.indexOf(`answers.${name},`) + 'answers.'.length);
    if (!found?.some((d) => d.fileName.endsWith(from) && d.name === name))
      faults.push(
        `answers.${name} does not lead to ${from}, but to ${found?.map((d) => d.fileName).join(', ') || 'nothing'}`,
      );
  }
  return names.length;
}

const followed = answers();
for (const f of faults) console.error(f);
console.log(`${homes.size} exported names, ${followed} answers followed, ${faults.length} faults`);
process.exit(faults.length === 0 && followed > 0 ? 0 : 1);
