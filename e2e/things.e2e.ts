import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Desk, jsonFile } from './desk';
import { fillDesk } from './many';

/** One grey point, as small as a picture can be. */
const PHOTO = {
  mimeType: 'image/png',
  buffer: Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGOoBwAAgQCBZQ2EOgAAAABJRU5ErkJggg==',
    'base64',
  ),
};

test('two tensioners, a chain measured five times and a photograph go out in a bundle and come back alike', async ({
  page,
  browser,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/examine');
  const take = (name: RegExp) => page.getByRole('tab', { name }).click();
  const look = (name: RegExp) => page.locator('hs-inspection-list').getByRole('button', { name });
  const hand = page.getByRole('tabpanel');
  await page.getByRole('button', { name: 'Another tensioner' }).click();
  await page.getByLabel('Where the other tensioner belongs').fill('left');
  await page.getByLabel('Where the other tensioner belongs').press('Enter');
  await expect(page.getByRole('tab', { name: /^Tensioner, left/ })).toBeVisible();
  await desk.line('tensioner left ext 7.4');
  await take(/^Tensioner, left/);
  await desk.list();
  await expect(look(/^Plunger extension/)).toContainText('7.4');
  await expect(desk.tape()).toContainText('tensioner, left');
  // the first one says what it said
  await take(/^Tensioner \d/);
  await expect(look(/^Plunger extension/)).toContainText('21.6');

  await take(/^Chain/);
  await look(/^Chain length/).click();
  await hand.getByRole('button', { name: /^Measure again: / }).click();
  for (const mm of ['321.0', '320.8', '320.9', '324.9']) {
    const box = hand.locator('input.mono').first();
    await box.fill(mm);
    await box.press('Enter');
    await expect(box).toHaveValue('');
  }
  await expect(hand.getByRole('img', { name: /^Mean of 5: 321\.70/ })).toBeVisible();
  await desk.line('link 17 stiff');
  await look(/^Damage at a link/).click();
  await expect(hand.getByRole('list', { name: 'Damage at a link' })).toContainText('link 17');
  const box = hand.getByPlaceholder(/a link/);
  await box.fill('900 stiff');
  await box.press('Enter');
  await expect(hand.getByText(/There is no link 900/)).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  // what does not belong with the others is pointed out, and kept
  await desk.go('Cause');
  await expect(page.getByText(/does not belong with its other readings/).first()).toBeVisible();

  // a photograph of the first tensioner is shown at it, and on the tape
  await desk.go('Examine');
  await page
    .getByLabel('Files of Tensioner', { exact: true })
    .setInputFiles({ ...PHOTO, name: 'plunger.png' });
  await expect(hand.getByRole('img', { name: 'plunger.png' })).toBeVisible();
  await expect(desk.tape()).toContainText('plunger.png');

  await desk.go('Settle');
  const out = await desk.download(() => page.getByRole('button', { name: 'Bundle' }).click());
  expect(out.name).toMatch(/\.zip$/);
  const bundle = unzipSync(readFileSync(out.path));
  const text = strFromU8(bundle['case.json']!);
  expect(JSON.parse(text)).toEqual(expect.objectContaining({ formatVersion: 5 }));
  const hash = createHash('sha256').update(PHOTO.buffer).digest('hex');
  expect(Object.keys(bundle).sort()).toEqual(['case.json', `files/${hash}.png`]);

  const other = await browser.newContext();
  const page2 = await other.newPage();
  await page2.route('**/setup.json', (route) => route.fulfill({ json: { demo: false } }));
  const desk2 = new Desk(page2);
  await desk2.open();
  await desk2.openFile(jsonFile('newer.json', text.replace('"formatVersion": 5', '"formatVersion": 6')));
  await expect(page2.getByText(/newer version \(file version 6\)/)).toBeVisible();
  const zip = (name: string, entries: Record<string, Uint8Array>) => ({
    name,
    mimeType: 'application/zip',
    buffer: Buffer.from(zipSync(entries)),
  });
  const only = { 'case.json': bundle['case.json']! };
  await desk2.openFile(zip('lacks.zip', only));
  await expect(page2.getByText(/lacks\.zip lacks plunger\.png/)).toBeVisible();
  await desk2.openFile(zip('wrong.zip', { ...only, [`files/${hash}.png`]: strToU8('another picture') }));
  await expect(page2.getByText(/wrong\.zip holds plunger\.png with other content/)).toBeVisible();
  await desk2.openFile(zip('empty.zip', { 'readme.txt': strToU8('nothing') }));
  await expect(page2.getByText(/no case\.json/)).toBeVisible();
  await expect(page2.getByText('No cases yet.')).toBeVisible();
  await desk2.openFile(zip('case.zip', bundle));
  await expect(page2.getByText('unchanged since it was written')).toBeVisible();
  await desk2.go('Examine');
  await expect(page2.getByRole('img', { name: 'plunger.png' })).toBeVisible();
  await desk2.line('tensioner left ext 7.6');
  await page2.getByRole('tab', { name: /^Chain/ }).click();
  await page2
    .locator('hs-inspection-list')
    .getByRole('button', { name: /^Chain length/ })
    .click();
  await expect(page2.getByRole('img', { name: /^Mean of 5: 321\.70/ })).toBeVisible();
  await desk2.go('Settle');
  const back = await desk2.download(() => page2.getByRole('button', { name: 'Case as JSON' }).click());
  const grown = readFileSync(back.path, 'utf8');
  await other.close();

  // what was done there comes back, and both say the same
  await desk.openFile(jsonFile('back.json', grown));
  await expect(page.getByText(/back\.json: unchanged since/)).toBeVisible();
  await desk.go('Examine');
  await take(/^Tensioner, left/);
  await expect(look(/^Plunger extension/)).toContainText('7.6');
  await desk.go('Settle');
  const merged = await desk.download(() => page.getByRole('button', { name: 'Case as JSON' }).click());
  const digest = (file: string) => (JSON.parse(file) as { digest: { facts: string } }).digest.facts;
  expect(digest(readFileSync(merged.path, 'utf8'))).toBe(digest(grown));
});

test('a desk of twenty thousand cases opens, is found in and is filed into', async ({ page }) => {
  test.setTimeout(240_000);
  const desk = new Desk(page);
  await desk.open();
  const rack = page.getByRole('navigation', { name: 'Rack of cases' });
  await expect(rack.getByText('2048')).toBeVisible();
  // fewer facts a case than the bench has: what is tried here is that it works
  expect(await fillDesk(page, 20_000, 10)).toBe(200_000);
  await desk.open();
  await expect(rack.getByText(/^Reading all cases anew/)).toHaveCount(0, { timeout: 180_000 });
  const filter = rack.getByLabel('Filter cases by any fact');
  await filter.fill('22345 quarry');
  // a quick machine has read them all anew before anybody looks
  await expect(rack.getByText(/^1 of 200\d\d cases$/)).toBeVisible({ timeout: 180_000 });
  await rack.getByRole('link', { name: /^22345/ }).click();
  await expect(page.getByRole('heading', { name: /^22345/ })).toBeVisible();
  await desk.line('odo 61000 km');
  await desk.line('market inland');
  await filter.fill('inland 22345');
  await expect(rack.getByText(/^1 of 200\d\d cases$/)).toBeVisible();
  await page.reload();
  await expect(desk.tape()).toContainText('61');
  // only what is in sight is in the page
  expect(await rack.getByRole('link').count()).toBeLessThan(60);
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
});
