import { Buffer } from 'node:buffer';
import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Desk } from './desk';

const TABLE = `Warranty export;;;;;;;;
Claim number;Garage;Part number;Fitting date;Km at fitting;Failure date;Km at failure;Labour;Order
C-700001;Fennick Motors;MF-K121-1;14.03.2025;81.200;02.09.2026;104.350;1.050,00;55-1
C-700002;Orrin & Vale;ZZ-999;31.11.2025;12000;05.10.2026;19 000 km;640,00;55-2
;Nobody;MF-K121-1;;;;;;
C-700001;Fennick Motors;MF-K121-1;;;;;;again
`;
const file = { name: 'claims.csv', mimeType: 'text/csv', buffer: Buffer.from(TABLE) };

test('a table of claims is read, said what it is, opened, and goes out again', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open();
  await page.getByLabel('What came in, as files').setInputFiles(file);
  await expect(page).toHaveURL(/claims$/);
  const list = page.getByRole('list', { name: /^Claims/ }).getByRole('listitem');
  await expect(list).toHaveCount(4);
  await expect(list.nth(1)).toContainText('ZZ-999');
  await expect(list.nth(2).getByRole('checkbox')).toHaveCount(0);
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  // what was not read goes out with its reason, for whoever keeps the table
  const refused = await desk.download(() =>
    page.getByRole('button', { name: 'Take out what was not read' }).click(),
  );
  const lines = readFileSync(refused.path, 'utf8').trim().split(/\r?\n/);
  expect(lines.length).toBe(4);
  expect(lines[1]).toMatch(/^4,.*ZZ-999.*31\.11\.2025/);
  await page.getByLabel('Choose all that are shown').check();
  await page.getByRole('button', { name: 'Open 2 cases' }).click();
  // the row that names a claim again leads to the same case
  await expect(list.getByRole('link')).toHaveCount(3);
  await list.nth(0).getByRole('link').click();
  await expect(page).toHaveURL(/settle$/);
  await expect(page.getByText('C-700001').first()).toBeVisible();
  // it comes again: nothing is left to open
  await desk.open();
  await page.getByLabel('What came in, as files').setInputFiles(file);
  await expect(list.getByRole('link')).toHaveCount(3);
  await expect(page.getByRole('button', { name: /^Open \d+ case/ })).toHaveCount(0);
  // the ledger goes out as a workbook, which is read here like any other
  await desk.open('/ledger');
  await page.getByLabel('Any fact', { exact: true }).fill('C-70000');
  await expect(page.getByRole('status').filter({ hasText: '2 cases' })).toBeVisible();
  const book = await desk.download(() => page.getByRole('button', { name: 'XLSX' }).click());
  await desk.open('/claims');
  await page.getByLabel('Table of claims').setInputFiles(book.path);
  await expect(list).toHaveCount(2);
  await expect(list.getByRole('link')).toHaveCount(2);
});
