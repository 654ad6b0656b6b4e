import { Buffer } from 'node:buffer';
import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { Desk } from './desk';

const problems = async (page: Page) =>
  (await new AxeBuilder({ page }).analyze()).violations.map(
    (v) => `${v.id} ${v.nodes[0]?.target.join(' ') ?? ''}`,
  );

test('an invented population shows what was planted in it: a lot, a workshop, a step, each read three ways', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open();
  await page.locator('body').press('y');
  await expect(page).toHaveURL(/patterns$/);
  await page.getByText('An invented one').click();
  const found = page.getByRole('list', { name: 'What stands out' }).getByRole('button');
  await expect(found).toHaveCount(3);
  await expect(found.nth(0)).toContainText(/Lot L0746 of MF-P012 comes back 3\.\d times as often/);
  await expect(found.nth(1)).toContainText(/Workshop 043: .*\(5\d\s%; elsewhere 3\s%\)/);
  await expect(found.nth(2)).toContainText(/MF-P005, step “release”/);
  const first = (name: RegExp) => page.getByRole('region', { name }).locator('.reading').first();
  await expect(first(/Lot L0746/)).toContainText('One lot');
  await found.nth(1).press('Enter');
  await expect(first(/Workshop 043/)).toContainText('One workshop');
  await found.nth(2).press('Enter');
  await expect(first(/MF-P005/)).toContainText('The design or its sheet');
  expect(await problems(page)).toEqual([]);
  // a table stands beside the chart, and goes out
  await page.getByRole('tab', { name: 'Lots' }).click();
  const lots = page.getByRole('region', { name: 'Lots', exact: true });
  const file = await desk.download(() => lots.getByRole('button', { name: 'CSV' }).click());
  const rows = readFileSync(file.path, 'utf8').trim().split(/\r?\n/);
  expect(rows.length).toBe(2001);
  expect(rows.filter((r) => r.endsWith(',yes')).length).toBe(1);
  const picture = await desk.download(() => lots.getByRole('button', { name: 'SVG' }).click());
  expect(readFileSync(picture.path, 'utf8')).toMatch(/^<svg/);
  await lots.getByRole('button', { name: /MF-P012 L0746/ }).click();
  await expect(page.getByRole('region', { name: 'Lot L0746' })).toContainText(
    /more to be expected within 12 months/,
  );
  await page.getByRole('tab', { name: 'Life' }).click();
  await expect(page.getByRole('region', { name: 'Life' })).toContainText(
    /A tenth has come back after \d+ months/,
  );
  expect(await problems(page)).toEqual([]);
});

const SOLD = `Units;Batch;Kit number;Shipped;Region
1.200;L77;MF-K121-1;03/2026;north
-4;L77;MF-K121-1;04/2026;north
900;L78;MF-K121-1;soon;north
900;L78;MF-K121-1;04/2026;north
900;L78;MF-K121-1;04/2026;NORTH
`;

test('what was sold is brought in row by row; a lot is stopped, its case says so, and it is released again', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/patterns');
  await page.getByRole('tab', { name: 'Lots' }).click();
  await expect(page.getByRole('main')).toContainText('It is not known how many were sold.');
  await page.getByRole('tab', { name: 'Sold' }).click();
  const card = page.getByRole('region', { name: 'What was sold' });
  await page
    .getByLabel('Table of what was sold')
    .setInputFiles({ name: 'sold.csv', mimeType: 'text/csv', buffer: Buffer.from(SOLD) });
  await expect(card).toContainText('2 rows can be taken, 3 cannot');
  await expect(card.getByRole('listitem').nth(0)).toContainText('Row 3: -4 were sold');
  await expect(card.getByRole('listitem').nth(1)).toContainText('Row 4: “soon” is no month');
  await expect(card.getByRole('listitem').nth(2)).toContainText('as row 5');
  expect(await problems(page)).toEqual([]);
  await card.getByRole('button', { name: 'Take the others, leave these out' }).click();
  await page.getByRole('tab', { name: 'Sold' }).click();
  await expect(card).toContainText(/2 rows, 2\D?100 units of 1 kit/);
  // it is there again after a reload
  await page.reload();
  await page.getByRole('tab', { name: 'Lots' }).click();
  await page.getByRole('button', { name: 'MF-K121-1 L77' }).click();
  const lot = page.getByRole('region', { name: 'Lot L77' });
  await expect(lot.getByRole('button', { name: 'Stop this lot' })).toBeDisabled();
  await lot.getByLabel('Why it is stopped').fill('springs out of tolerance');
  await lot.getByRole('button', { name: 'Stop this lot' }).press('Enter');
  await expect(lot).toContainText('is stopped since');

  await desk.newCase();
  await desk.line('eng TE16-CORM');
  await desk.line('kit MF-K121-1');
  const note = page.getByRole('note').filter({ hasText: 'is stopped since' });
  await expect(note).toHaveCount(0);
  await desk.line('lot L77');
  await expect(note).toContainText('springs out of tolerance');

  await page.getByRole('link', { name: 'Patterns' }).click();
  await page.getByRole('tab', { name: 'Lots' }).click();
  await page.getByRole('button', { name: 'MF-K121-1 L77' }).click();
  await lot.getByLabel('Why it may go out again').fill('sorted and measured');
  await lot.getByRole('button', { name: 'Release it' }).press('Enter');
  await expect(lot).not.toContainText('is stopped since');
  await page.goBack();
  await expect(note).toHaveCount(0);
});
