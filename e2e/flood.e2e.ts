import { expect, type Locator, test } from '@playwright/test';
import { Desk, jsonFile } from './desk';

/** Text as it comes from a clipboard: all at once, however long. */
async function paste(into: Locator, text: string): Promise<void> {
  await into.focus();
  await into.page().evaluate((t) => document.execCommand('insertText', false, t), text);
}

test('a megabyte pasted anywhere is refused in words, and kept', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2041/call');
  const long = 'The belt has 121 teeth and it rattles when cold. '.repeat(21_000);
  const size = async (box: Locator) => (await box.inputValue()).length;
  const message = page.getByPlaceholder(/which kit/);
  await paste(message, long);
  await message.press('Control+Enter');
  await expect(page.getByText(/are read at once/)).toBeVisible();
  expect(await size(message)).toBe(long.length);
  const complaint = page.getByLabel('Complaint', { exact: false }).first();
  await complaint.fill('');
  await paste(complaint, long);
  await complaint.press('Control+Enter');
  await expect(page.getByText(/characters; \d+ fit/).first()).toBeVisible();
  expect(await size(complaint)).toBe(long.length);
  const line = page.getByLabel('Fact line');
  await paste(line, long);
  await line.press('Enter');
  await expect(page.getByText(/names nothing that can be filed here/)).toBeVisible();
  expect(await size(line)).toBe(long.length);
  // it is there again, and nothing of it was filed
  await page.reload();
  await expect(message).toHaveValue(long);
  await expect(desk.tape()).not.toContainText('121 teeth');
});

test('a desk file of a hundred thousand facts is read beside the page, and stopped without a trace', async ({
  page,
}) => {
  await page.route('**/setup.json', (route) => route.fulfill({ json: { demo: false } }));
  const desk = new Desk(page);
  await desk.open();
  const facts = Array.from({ length: 2000 }, (_, c) =>
    Array.from({ length: 50 }, (_, k) => ({
      id: `f${c}-${k}`,
      case: `c${c}`,
      key: k === 0 ? 'case.tag' : 'complaint',
      value: k === 0 ? String(5000 + c) : `rattles ${k}`,
      how: 'reported',
      by: 'Ida',
      at: '2026-11-25T10:00:00.000Z',
      seen: k + 1,
      ...(k > 1 ? { supersedes: `f${c}-${k - 1}` } : {}),
    })),
  ).flat();
  const file = { format: 'hollow-sprocket-desk', formatVersion: 1, exportedAt: '2026-11-25T10:00:00.000Z' };
  await desk.openFile(jsonFile('desk.json', JSON.stringify({ ...file, drafts: {}, facts })));
  await expect(page.getByText(/Reading desk\.json: \d+ of 2000/)).toBeVisible();
  // the page is free all the while
  const filter = page.getByLabel('Filter cases by any fact');
  await filter.fill('5001');
  await expect(page.getByText('No case holds that.')).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText(/Reading desk\.json/)).toBeHidden();
  await page.reload();
  await expect(page.getByText('No cases yet.', { exact: false })).toBeVisible();
});
