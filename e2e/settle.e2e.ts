import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Desk } from './desk';

test('a claim is added up line by line, wants a second signature, and stands in the ledger with what we bear', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2033/settle');
  const costs = page.getByRole('region', { name: 'Costs' });
  await costs.getByRole('button', { expanded: false }).click();
  const clean = async () =>
    expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual(
      [],
    );
  // 212.40 + 19 %, 4.75 × 71.00 + 19 %, 96.50
  await expect(costs.getByRole('row', { name: /^All/ })).toContainText('750.59 AC');
  await clean();
  const line = costs.getByRole('group', { name: 'A line of cost' });
  await line.getByLabel('What').fill('Cylinder head');
  await line.getByLabel('Rate AC').fill('1500');
  await line.getByLabel('Rate AC').press('Enter');
  await expect(costs.getByRole('row', { name: /^All/ })).toContainText('2250.59 AC');
  await expect(line.getByLabel('What')).toBeFocused();
  await desk.choose('Decision', 'Accept in part');
  const unsigned = page.getByRole('listitem').filter({ hasText: '2000.00 AC on' });
  await expect(unsigned).toBeVisible();
  const share = page.getByRole('region', { name: 'Decision' }).getByLabel(/^Our share/);
  await share.fill('50');
  await share.press('Enter');
  await expect(costs.getByRole('status')).toContainText('1125.30 AC');
  await desk.type('Second signature', 'Bram Tallow');
  await expect(unsigned).toHaveCount(0);

  await page.getByRole('link', { name: 'Ledger' }).click();
  const table = page.getByRole('region', { name: /^Ledger/ });
  await page.getByLabel('Any fact', { exact: true }).fill('C-20334');
  await expect(table.getByRole('row').filter({ hasText: '2033' })).toContainText('1125.30 AC');
  await expect(page.getByText('asked 2250.59 AC · we bear 1125.30 AC')).toBeVisible();
  const out = await desk.download(() => page.getByRole('button', { name: 'CSV', exact: true }).click());
  expect(readFileSync(out.path, 'utf8')).toContain('Accept in part,2250.59,1125.3,');
  await page.getByRole('button', { name: 'All of them' }).click();
  await page.getByRole('button', { name: /^Asked/ }).click();
  await expect(table.getByRole('link').first()).toHaveText('2033');
  await clean();
});
