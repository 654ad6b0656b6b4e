import { ESLint, type Linter } from 'eslint';
import { expect, test } from '@playwright/test';
import { readdirSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import ts from 'typescript-eslint';

// Texts that are not those on the disk: the parser must not take the run for one over files alone, as it does where CI is set.
const eslint = new ESLint({
  overrideConfig: {
    files: ['**/*.ts'],
    languageOptions: { parserOptions: { disallowAutomaticSingleRunInference: true } },
  },
});

/** What lint has against a text if it stood in a file of ours. */
async function against(file: string, text: string, rule: string): Promise<number> {
  const [result] = await eslint.lintText(text, { filePath: file });
  return result!.messages.filter((m) => m.ruleId === rule).length;
}

test('native controls do not come back into any template', async () => {
  const html = (text: string) => against('app/drive/drive-page.html', text, 'no-restricted-syntax');
  for (const native of [
    '<select></select>',
    '<dialog>x</dialog>',
    '<table><tr><td>x</td></tr></table>',
    '<div><datalist></datalist></div>',
    ...['radio', 'checkbox', 'range', 'date'].map((t) => `<input type="${t}" aria-label="x" />`),
  ])
    expect(await html(native), native).toBe(1);
  for (const ours of [
    '<nz-table></nz-table>',
    '<hs-pick />',
    '<input nz-input aria-label="x" />',
    '<input type="file" />',
  ])
    expect(await html(ours), ours).toBe(0);
  // templates inside components too
  const inline = `import { Component } from '@angular/core';
@Component({ selector: 'hs-x', template: '<select></select>' })
export class X {}
`;
  const [result] = await eslint.lintText(inline, { filePath: 'app/ui/pick.ts' });
  expect(result!.messages.filter((m) => m.message.startsWith('Use the library')).length).toBe(1);
});

type Walls = { ROOMS: Record<string, { ours: string[]; packages: string[] }>; walls: Linter.Config };
const { ROOMS, walls } = (await import(join(import.meta.dirname, '..', 'eslint.walls.mjs'))) as Walls;
const ROOT = join(import.meta.dirname, '..');
/** A file of a room, whose name stands for the room. */
const fileIn = (room: string): string => {
  const name = readdirSync(join(ROOT, room), { recursive: true })
    .map(String)
    .find((f) => f.endsWith('.ts') && !/\.(spec|fixture|worker)\.ts$/.test(f))!;
  return join(ROOT, room, name);
};

test('every import that is not allowed is refused, from every room to every other, and of packages', async () => {
  test.setTimeout(120_000);
  const held = new ESLint({
    cwd: ROOT,
    overrideConfigFile: true,
    overrideConfig: [
      { files: ['**/*.ts'], languageOptions: { parser: ts.parser } },
      walls,
    ] as Linter.Config[],
  });
  const rooms = Object.entries(ROOMS);
  const folders = [...rooms.map(([room]) => room), 'app/testing', 'scripts', 'benchmarks', 'e2e'];
  const packages = [
    '@angular/core',
    'rxjs',
    'idb',
    'express',
    'ng-zorro-antd',
    'echarts',
    'pdfmake',
    'node:fs',
  ];
  let refused = 0;
  for (const [room, may] of rooms) {
    const from = fileIn(room);
    const ours = folders.filter((f) => f !== room);
    const ways = ours.map((to) => {
      const path = relative(dirname(from), fileIn(to)).replace(/\.ts$/, '');
      return { name: path.startsWith('.') ? path : `./${path}`, allowed: may.ours.includes(to) };
    });
    for (const name of packages)
      ways.push({
        name,
        allowed: may.packages.some((p) => p === name || (p === 'node:*' && name.startsWith('node:'))),
      });
    const text = ways.map(({ name }, i) => `import type { x${i} } from '${name}';`).join('\n');
    const [result] = await held.lintText(text, { filePath: from });
    const lines = new Set(result!.messages.map((m) => m.line));
    ways.forEach(({ name, allowed }, i) => {
      expect(lines.has(i + 1), `${room} ← ${name}`).toBe(!allowed);
    });
    refused += lines.size;
  }
  console.log(`walls: ${refused} wrong imports refused in ${rooms.length} rooms`);
  expect(refused).toBeGreaterThan(1000);
});

test('what may be imported never leads back', () => {
  const left = new Map(Object.entries(ROOMS).map(([room, { ours }]) => [room, new Set(ours)]));
  while (left.size > 0) {
    const free = [...left].filter(([, to]) => [...to].every((t) => !left.has(t))).map(([room]) => room);
    expect(free.length, `among ${[...left.keys()].join(', ')}`).toBeGreaterThan(0);
    free.forEach((room) => left.delete(room));
  }
});

test('what stands is read through its own room, and a measured value meets a limit in one place', async () => {
  test.setTimeout(240_000);
  for (const [file, text, rule, count] of [
    [
      'core/cause/rank.ts',
      "import { x } from '@core/facts/slots';\nconsole.log(x);\n",
      'no-restricted-imports',
      1,
    ],
    [
      'core/answer/world.ts',
      "import { x } from '@core/facts/watch';\nconsole.log(x);\n",
      'no-restricted-imports',
      0,
    ],
    [
      'core/examination/derived.ts',
      'export const f = (m: { value: number }) => m.value > 3;\n',
      'no-restricted-syntax',
      1,
    ],
    [
      'core/examination/derived.ts',
      'export const f = (m: { value: number }) => 3 >= m.value;\n',
      'no-restricted-syntax',
      1,
    ],
    ['core/facts/read.ts', 'export const k = new WeakMap<object, string>();\n', 'no-restricted-syntax', 1],
    ['app/fitting/step-picture.ts', 'export const k = new WeakMap();\n', 'no-restricted-syntax', 1],
    ['core/quantity/keep.ts', 'export const k = new WeakMap<object, string>();\n', 'no-restricted-syntax', 0],
  ] as const)
    expect(await against(file, text, rule), `${file}: ${text}`).toBe(count);
});
