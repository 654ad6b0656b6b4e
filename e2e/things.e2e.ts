import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { Desk } from './desk';

test('two tensioners and a chain measured five times go out in a file and come back alike', async ({
  page,
  browser,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/examine');
  await page.getByRole('button', { name: 'Another tensioner' }).click();
  await page.getByLabel('Where the other tensioner belongs').fill('left');
  await page.getByLabel('Where the other tensioner belongs').press('Enter');
  const second = page.getByRole('region', { name: 'Tensioner, left' });
  await expect(second).toBeVisible();
  await desk.line('tensioner left ext 7.4');
  await expect(second.getByLabel(/^Plunger extension/).first()).toHaveValue(/7\.4/);
  await expect(desk.tape()).toContainText('tensioner, left');
  // the first one says what it said
  await expect(
    page
      .getByRole('region', { name: 'Tensioner', exact: true })
      .getByLabel(/^Plunger extension/)
      .first(),
  ).toHaveValue(/21\.6/);

  const chain = page.getByRole('region', { name: 'Chain', exact: true });
  await chain.getByRole('button', { name: /^Measure again: / }).click();
  for (const mm of ['321.0', '320.8', '320.9', '324.9']) {
    const box = chain.locator('input.mono').first();
    await box.fill(mm);
    await box.press('Enter');
    await expect(box).toHaveValue('');
  }
  await expect(chain.getByText(/^Mean of 5: 321\.70/)).toBeVisible();
  await desk.line('link 17 stiff');
  await expect(chain.getByRole('list')).toContainText('link 17');
  const box = chain.getByPlaceholder(/a link/);
  await box.fill('900 stiff');
  await box.press('Enter');
  await expect(chain.getByText(/There is no link 900/)).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  // what does not belong with the others is pointed out, and kept
  await desk.go('Cause');
  await expect(page.getByText(/does not belong with its other readings/).first()).toBeVisible();

  await desk.go('Settle');
  const out = await desk.download(() => page.getByRole('button', { name: 'Case as JSON' }).click());
  const text = readFileSync(out.path, 'utf8');
  expect(JSON.parse(text)).toEqual(expect.objectContaining({ formatVersion: 2 }));

  const other = await browser.newContext();
  const page2 = await other.newPage();
  await page2.route('**/setup.json', (route) => route.fulfill({ json: { demo: false } }));
  const desk2 = new Desk(page2);
  await desk2.open();
  const as = (name: string, content: string) => ({
    name,
    mimeType: 'application/json',
    buffer: Buffer.from(content),
  });
  await desk2.openFile(as('newer.json', text.replace('"formatVersion": 2', '"formatVersion": 3')));
  await expect(page2.getByText(/newer version \(file version 3\)/)).toBeVisible();
  await desk2.openFile(as('case.json', text));
  await expect(page2.getByText('digest verified')).toBeVisible();
  await desk2.go('Examine');
  await desk2.line('tensioner left ext 7.6');
  await expect(page2.getByText(/^Mean of 5: 321\.70/)).toBeVisible();
  await desk2.go('Settle');
  const back = await desk2.download(() => page2.getByRole('button', { name: 'Case as JSON' }).click());
  const grown = readFileSync(back.path, 'utf8');
  await other.close();

  // what was done there comes back, and both say the same
  await desk.openFile(as('back.json', grown));
  await desk.go('Examine');
  await expect(second.getByLabel(/^Plunger extension/).first()).toHaveValue(/7\.6/);
  await desk.go('Settle');
  const merged = await desk.download(() => page.getByRole('button', { name: 'Case as JSON' }).click());
  const digest = (file: string) => (JSON.parse(file) as { digest: { facts: string } }).digest.facts;
  expect(digest(readFileSync(merged.path, 'utf8'))).toBe(digest(grown));
});
