import { ESLint } from 'eslint';
import { expect, test } from '@playwright/test';

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

test('rooms and layers import downwards only', async () => {
  test.setTimeout(240_000);
  const rule = 'no-restricted-imports';
  for (const [file, from, held] of [
    ['core/quantity/units.ts', '@core/facts/state', 1],
    ['core/facts/state.ts', '@core/quantity/units', 0],
    ['core/drive/path.ts', '@core/cause/rank', 1],
    ['core/cause/rank.ts', '@core/drive/path', 0],
    ['core/claim/terms.ts', '@angular/core', 1],
    ['core/cause/rank.ts', '@core/facts/slots', 1],
    ['app/ui/tiles.ts', '../data/cases', 1],
    ['app/ui/tiles.ts', '@core/answer/answers', 1],
    ['app/ui/tiles.ts', './letters', 0],
    ['app/data/cases.ts', 'ng-zorro-antd/message', 1],
    ['app/stations/fit/fit-page.ts', '../call/call-page', 1],
    ['app/stations/fit/fit-page.ts', '../../entry/field', 0],
    ['server/serve.ts', '@core/answer/answers', 1],
  ] as const)
    expect(
      await against(file, `import { x } from '${from}';\nconsole.log(x);\n`, rule),
      `${file} ← ${from}`,
    ).toBe(held);
});
