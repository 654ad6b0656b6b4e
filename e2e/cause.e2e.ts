import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Desk } from './desk';

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
  await expect(why).toContainText('in decibans');
  await expect(why).toContainText('would not lead');
  const look = page.getByRole('region', { name: 'Look here' });
  await expect(look).not.toContainText('tip: Broken off');
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
  await expect(checks).toContainText(/Did not come, and would have told: cover, 0\.\d\d bits/);
  // what did not come is not asked for
  await expect(checks.getByRole('listbox').first()).toHaveAccessibleName('Teeth');
  await page.getByRole('button', { name: /^Undecidable/ }).press('Enter');
  const reason = page.getByLabel('Not the leader: say why, it is kept');
  await expect(reason).toHaveValue(
    /^Open between “Lever of the tensioner loose on its pivot” \d+\s%.*cover, which did not come/,
  );
  await reason.press('Enter');
  await expect(page.getByRole('button', { name: /^◆ Undecidable/ })).toBeVisible();
  await page.locator('body').press('6');
  await expect(page.getByRole('main')).not.toContainText('the facts lean to');
});

test('a case of which little is known stays open and is told what would settle it', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/cause');
  const checks = page.getByRole('region', { name: 'Most useful checks' });
  await expect(checks).toContainText('bits for');
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
  await desk.box('1936');
  await page.locator('body').press('k');
  await page.getByLabel('Find a cause').fill('tensioner bearing');
  await page.getByRole('button', { name: /^Tensioner bearing failed/ }).press('Enter');
  await page.getByRole('button', { name: /^How common/ }).press('Enter');
  await page.getByLabel('Here it is').fill('30');
  await page.getByLabel('On what ground').fill('Seven of our nine cases.');
  await page.getByLabel('On what ground').press('Enter');
  await expect(page.getByText(/1 number of its own/)).toBeVisible();
  await page.getByRole('button', { name: 'Judge all cases again' }).press('Enter');
  const changed = page.getByRole('region', { name: 'What would change' });
  await expect(changed.getByRole('status')).toContainText(/[1-9]\d* of \d\d cases would read otherwise/);
  await expect(changed.getByRole('link', { name: '1936' })).toBeVisible();
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
