import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Desk } from './desk';
import { pdfText } from './pdf-text';

test('an engine that was overheated is told from a guide that broke by itself, and overruling it is kept with its reason', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/');
  await desk.box('1943');
  await page.locator('body').press('5');
  const why = page.getByRole('region', { name: 'Why it leads' });
  await expect(why).toContainText('Engine overheated');
  // from the primary mechanism to what follows, each with what shows it
  await expect(why.getByRole('listitem')).toHaveCount(5);
  await expect(why.getByRole('listitem').nth(3)).toContainText('crack: Through');
  const figures = page.getByRole('region', { name: 'How it is computed' });
  await expect(figures).not.toContainText('in decibans');
  await figures.getByRole('button', { name: 'How it is computed' }).press('Enter');
  await expect(figures).toContainText('in decibans');
  await expect(figures).toContainText('would not lead');
  const look = page.getByRole('region', { name: 'Look here' });
  await expect(look.getByText('tip: Broken off')).toHaveCount(0);
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual([]);

  await page.getByRole('button', { name: /^Guide broke by its material/ }).press('Enter');
  const decide = page.getByRole('button', { name: 'Decide: Guide broke by its material' });
  await decide.press('Enter');
  await expect(page.getByRole('alert')).toBeVisible();
  await page.getByLabel('Not the leader: say why, it is kept').fill('Fan and gauge were sound all along.');
  await decide.press('Enter');
  await expect(page.getByText('Fan and gauge were sound all along.').first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^◆ Guide broke by its material/ })).toBeVisible();
});

test('a bolt that was not tightened: decided by keyboard, and its fault is ready to be recorded', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2033/call');
  await page.locator('body').press('5');
  const leader = page.getByRole('region', { name: 'Rival causes' }).getByRole('button').first();
  await expect(leader).toContainText('Tensioner bolt not tightened');
  await expect(page.getByText(/Knowledge, edition \d/)).toBeVisible();
  await page.getByLabel('Reason, if you want to give one').press('Enter');
  await expect(page.getByText('◆ You decided this.')).toBeVisible();
  await page.locator('body').press('6');
  await expect(page.getByText('TRQ-LOW').first()).toBeVisible();
});

test('short of oil before the noise: the next check tells it from a chain worn by itself', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/');
  await desk.box('1945');
  await page.locator('body').press('5');
  const leader = page.getByRole('region', { name: 'Rival causes' }).getByRole('button').first();
  const checks = page.getByRole('region', { name: 'Most useful checks' });
  const first = checks.getByRole('listbox').first();
  await expect(first).toHaveAccessibleName('Oil event');
  await expect(page.getByRole('region', { name: 'Settled cases like this one' })).toContainText('1935');
  await first.getByRole('option', { name: 'Ran low' }).press('Enter');
  await expect(leader).toContainText(/Engine ran short of oil.*9\d\s%/);
  await page.getByLabel('Reason, if you want to give one').press('Enter');
  await expect(page.getByText('◆ You decided this.')).toBeVisible();
});

test('nothing that came parts the rivals: the case is undecidable, with the reason that is proposed and what would have told', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/');
  await desk.box('1932');
  await page.locator('body').press('5');
  const checks = page.getByRole('region', { name: 'Most useful checks' });
  await expect(checks).toContainText(/Did not come, and would have told: .*cover/);
  // what did not come is not asked for
  await expect(checks.getByRole('listbox').first()).toHaveAccessibleName('Teeth');
  await page.getByRole('button', { name: /^Undecidable/ }).press('Enter');
  const reason = page.getByLabel('Not the leader: say why, it is kept');
  await expect(reason).toHaveValue(/^Open between “.*” \d+\s%.*cover, which did not come/);
  await reason.press('Enter');
  await expect(page.getByRole('button', { name: /^◆ Undecidable/ })).toBeVisible();
  await page.locator('body').press('6');
  await expect(page.getByRole('main')).not.toContainText('the facts lean to');
});

test('a case of which little is known stays open and is told what would settle it', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/cause');
  const checks = page.getByRole('region', { name: 'Most useful checks' });
  await expect(checks).toContainText(/settles most/i);
  const leader = page.getByRole('region', { name: 'Rival causes' }).getByRole('button').first();
  const before = await leader.innerText();
  await checks.getByRole('button').first().press('Enter');
  await expect(leader).not.toHaveText(before);
});

test('a number is seen otherwise with its ground, moves the cases that stand on it, and is taken back', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/');
  await desk.box('1949');
  await page.locator('body').press('k');
  await page.getByLabel('Find a cause').fill('dirty seat');
  await page.getByRole('button', { name: /^Pump fitted on a dirty seat/ }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Pump fitted on a dirty seat' })).toBeVisible();
  await page.getByRole('button', { name: /^How common/ }).press('Enter');
  await page.getByLabel('Here it is').fill('30');
  await page.getByLabel('On what ground').fill('Seven of our nine cases.');
  await page.getByLabel('On what ground').press('Enter');
  await expect(page.getByText(/1 number of its own/)).toBeVisible();
  await page.getByRole('button', { name: 'Judge all cases again' }).press('Enter');
  const changed = page.getByRole('region', { name: 'What would change' });
  await expect(changed.getByRole('status')).toContainText(/[1-9]\d* of \d\d cases would read otherwise/);
  await expect(changed.getByRole('link', { name: '1949' })).toBeVisible();
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual([]);

  const file = await desk.download(() =>
    page.getByRole('button', { name: 'Take own numbers out' }).press('Enter'),
  );
  expect(file.name).toBe('knowledge-changes.csv');
  await page.getByRole('button', { name: 'Take the last change back' }).press('Enter');
  await expect(page.getByText(/number of its own/)).toHaveCount(0);
  await page.getByLabel('A file of changed numbers').setInputFiles(file.path);
  await expect(page.getByText(/1 number of its own/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/1 number of its own/)).toBeVisible();
});

test('a pin that is seen in leads at 9,000 km, whatever was told of the oil, and the other tensioner that let go denies nothing', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/');
  await desk.newCase();
  await desk.line('eng QU13-STOA');
  await desk.line('kind claim');
  await desk.line('fitodo 50000 km');
  await desk.line('odo 59000 km');
  await desk.line('symptom noise');
  await desk.line('oil event overdue');
  await desk.go('Cause');
  const leader = page.getByRole('region', { name: 'Rival causes' }).getByRole('button').first();
  await expect(leader).not.toContainText('never let go');
  await desk.line('released pinned');
  const verdict = page.getByRole('region', { name: 'Verdict' });
  await expect(verdict).toContainText('It was seen itself: ');
  await expect(leader).toContainText(/Tensioner never let go.*9\d\s%/);
  await expect(verdict).toContainText('Tensioner never let go');
});

test('two faults that were seen stand together, each with its part', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/');
  await desk.newCase();
  await desk.line('eng TE16-CORM');
  await desk.line('kind claim');
  await desk.line('pry at an edge');
  await desk.line('tab print beside it');
  await desk.line('break stepped or ragged');
  await desk.go('Cause');
  const verdict = page.getByRole('region', { name: 'Verdict' });
  await expect(verdict.getByRole('listitem')).toHaveCount(2);
  await expect(verdict).toContainText('alone would have been enough');
  const rivals = page.getByRole('region', { name: 'Rival causes' }).getByRole('button');
  const names = [await rivals.nth(0).innerText(), await rivals.nth(1).innerText()].join(' ');
  expect(names).toContain('levered');
  expect(names).toContain('slot');
});

test('where supplier and fitter are not parted the page and the report say so', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/');
  await desk.newCase();
  await desk.line('eng OL15-QUOI');
  await desk.line('kind claim');
  await desk.line('fitodo 96310 km');
  await desk.line('odo 96322 km');
  await desk.line('symptom noise');
  await desk.line('released no pin, never came out');
  await desk.line('push back does not move');
  await desk.go('Cause');
  const tie = /does not part supplier from fitter/;
  await expect(page.getByRole('region', { name: 'Verdict' })).toContainText(tie);
  await desk.go('Settle');
  await desk.paper('Full');
  const pdf = await desk.download(() => page.getByRole('button', { name: 'Draft PDF' }).click());
  expect(pdfText(pdf.path)).toMatch(/part supplier\s+from\s+fitter/);
});
