import { Buffer } from 'node:buffer';
import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { Desk } from './desk';
import { pdfText } from './pdf-text';

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
  const letter = await desk.download(() =>
    page.getByRole('button', { name: 'Letter to the workshop' }).press('Enter'),
  );
  expect(pdfText(letter.path)).toMatch(/Of 118 returns that you fitted, 64 show it/);
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
  // looked into, stopped, letters to whoever has some of it, released
  const lot = page.getByRole('region', { name: 'Lot L0746', exact: true });
  await expect(lot).toContainText(/more to be expected within 12 months/);
  await expect(lot.getByRole('list', { name: 'Who has it' })).toContainText(/Workshop \d+: \d case/);
  await lot.getByText('Summed up').click();
  await expect(lot.getByRole('img', { name: /^Watch over lot L0746/ })).toBeVisible();
  await expect(lot).toContainText(/alarm since \d\d\/20\d\d/);
  await lot.getByLabel('Why it is stopped').fill('springs out of tolerance');
  await lot.getByRole('button', { name: 'Stop this lot' }).press('Enter');
  const count = Number((await lot.getByRole('button', { name: /letters as PDF/ }).innerText()).split(' ')[0]);
  const letters = await desk.download(() =>
    lot.getByRole('button', { name: /letters as PDF/ }).press('Enter'),
  );
  const told = pdfText(letters.path);
  expect(told.split('springs out of tolerance').length - 1).toBe(count);
  expect(told).toContain('Invented from end to end');
  await lot.getByLabel('Why it may go out again').fill('sorted and measured');
  await lot.getByRole('button', { name: 'Release it' }).press('Enter');
  await expect(lot.getByRole('button', { name: 'Stop this lot' })).toBeVisible();
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

test('a step that is got wrong gets a bulletin: the next call on that kit and the sheet show it, until it is taken back', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/patterns');
  await page.getByRole('tab', { name: 'Workshops and steps' }).click();
  await page.getByRole('button', { name: /MF-K121-1 · tension/ }).press('Enter');
  const detail = page.getByRole('region', { name: /^MF-K121-1: / });
  const words = detail.getByLabel('What to do otherwise');
  // what prevents the fault is proposed; nothing can be issued that says nothing
  await expect(words).not.toHaveValue('');
  await words.fill(' ');
  await expect(detail.getByRole('button', { name: 'Issue version 1' })).toBeDisabled();
  await words.fill('Stop at the nominal mark and let a second person read it.');
  await detail.getByRole('button', { name: 'Issue version 1' }).press('Enter');
  await expect(detail).toContainText('unchanged since.');
  const pdf = await desk.download(() => detail.getByRole('button', { name: 'PDF' }).press('Enter'));
  const said = pdfText(pdf.path);
  expect(said).toContain('let a second person read it');
  expect(said).toContain((await detail.locator('.stands .mono').innerText()).trim());
  expect(await problems(page)).toEqual([]);

  await desk.newCase();
  await desk.line('eng TE16-CORM');
  const note = page.getByRole('note').filter({ hasText: 'let a second person read it' });
  await expect(note).toHaveCount(0);
  await desk.line('kit MF-K121-1');
  // its design is open yet: no sheet has that step
  await expect(note).toHaveText(/^Bulletin 1 on MF-K121-1: Stop/);
  await desk.open('/case/demo-2033/fit');
  const shown = page.getByRole('note').filter({ hasText: /step \d/ });
  const step = /step (\d+)/.exec(await shown.innerText())![1]!;
  await page.getByRole('option', { name: new RegExp(`^${step}\\b`) }).click();
  await expect(page.getByRole('region', { name: `Step ${step}`, exact: true })).toContainText(
    'Bulletin 1: Stop at the nominal mark',
  );
  expect(await problems(page)).toEqual([]);
  await page.locator('main').focus();
  const sheet = await desk.download(() => page.keyboard.press('p'));
  expect(pdfText(sheet.path)).toContain('Bulletin 1: Stop at the nominal mark');

  await desk.open('/patterns');
  await page.getByRole('tab', { name: 'Workshops and steps' }).click();
  await page.getByRole('button', { name: /MF-K121-1 · tension/ }).press('Enter');
  await detail.getByLabel(/^What the next version says/).fill('It is in the sheet now.');
  await detail.getByRole('button', { name: 'Take it back' }).press('Enter');
  await expect(detail.getByRole('button', { name: 'Issue version 2' })).toBeVisible();
  await desk.open('/case/demo-2033/fit');
  await expect(page.getByRole('option').first()).toBeVisible();
  await expect(page.getByRole('note').filter({ hasText: 'Bulletin' })).toHaveCount(0);
});

test('a lot weighs among the causes only once somebody holds it against the others, and is left out again', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2033/cause');
  await desk.line('lot L77');
  const line = page.getByRole('region', { name: 'Lot of this case' });
  await line.getByRole('button', { name: /^Hold lot L77/ }).press('Enter');
  await expect(line).toContainText('bring that in under Patterns');
  await desk.open('/case/demo-2027/cause');
  await desk.line('lot L77');
  await page.getByRole('link', { name: 'Patterns' }).click();
  await page.getByRole('tab', { name: 'Sold' }).click();
  await page.getByLabel('Table of what was sold').setInputFiles({
    name: 'sold.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'Kit number;Batch;Shipped;Region;Units\nMF-K121-1;L77;2025-10;north;100\nMF-K121-1;L78;2025-10;north;9000\n',
    ),
  });
  await page.getByRole('button', { name: 'Take it', exact: true }).press('Enter');
  await page.getByRole('tab', { name: 'Sold' }).click();
  await expect(page.getByRole('region', { name: 'What was sold' })).toContainText(/2 rows, 9\D?100 units/);
  await desk.open('/case/demo-2033/cause');
  const rival = page.getByRole('region', { name: 'Rival causes' });
  await expect(rival.getByRole('listitem').first()).toBeVisible();
  const before = await rival.innerText();
  await line.getByRole('button', { name: /^Hold lot L77/ }).press('Enter');
  await expect(line).toContainText(/at least [\d.]+ times as often/);
  await expect.poll(() => rival.innerText()).not.toBe(before);
  expect(await problems(page)).toEqual([]);
  await line.getByRole('button', { name: 'Leave the lot out' }).press('Enter');
  await expect.poll(() => rival.innerText()).toBe(before);
});
