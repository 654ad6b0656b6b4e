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
  await expect(why.getByRole('listitem')).toHaveCount(3);
  await expect(why.getByRole('listitem').nth(2)).toContainText('Crack: Through');
  await expect(why).toContainText('in decibans');
  await expect(why).toContainText('would not lead');
  const look = page.getByRole('region', { name: 'Look here' });
  await expect(look).not.toContainText('Tip: Broken off');
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
