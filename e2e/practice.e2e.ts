import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Desk } from './desk';

test('what causes are weighed by is tried on virtual returns; it can be stopped, and nothing of it comes among the cases', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const desk = new Desk(page);
  await desk.open('/knowledge');
  const rack = page.getByRole('navigation', { name: 'Rack of cases' });
  await expect(rack.getByText('2048')).toBeVisible();
  // what stands on top of the rack is what came last
  const top = rack.getByRole('link', { name: /^20\d\d/ }).first();
  const before = await top.innerText();
  const score = page.getByRole('region', { name: 'How often it is right' });
  const judge = score.getByRole('button', { name: /^Judge 2\D?000 virtual returns/ });
  const going = score.getByRole('progressbar', { name: 'Judging virtual returns' });
  await judge.press('Enter');
  await expect(going).toBeVisible();
  await score.getByRole('button', { name: 'Stop' }).press('Enter');
  await expect(judge).toBeVisible();
  await expect(score.getByRole('table')).toHaveCount(0);
  await judge.press('Enter');
  await expect(going).toHaveCount(0, { timeout: 180_000 });
  const right = score.getByRole('row', { name: /^Leader right/ });
  // the same returns everywhere: half of the causes at the least, and no more than are there
  await expect(right).toContainText(/^Leader right\s*[5-9]\d\s%/);
  await expect(score.getByRole('row')).toHaveCount(6);
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
  expect(await top.innerText()).toBe(before);
});
