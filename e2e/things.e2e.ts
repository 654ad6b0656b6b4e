import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Desk, jsonFile } from './desk';
import { pdfText } from './pdf-text';
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
  const look = (name: RegExp) => page.locator('hs-look-list').getByRole('button', { name });
  const hand = page.getByRole('tabpanel');
  await page.getByRole('button', { name: 'Another tensioner' }).click();
  await page.getByLabel('Where the other tensioner belongs').fill('left');
  await page.getByLabel('Where the other tensioner belongs').press('Enter');
  await expect(page.getByRole('tab', { name: /^Tensioner, left/ })).toBeVisible();
  await desk.line('tensioner left ext 7.4');
  await take(/^Tensioner, left/);
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
  const out = await desk.download(() => page.getByRole('button', { name: 'Bundle with files' }).click());
  expect(out.name).toMatch(/\.zip$/);
  const bundle = unzipSync(readFileSync(out.path));
  const text = strFromU8(bundle['case.json']!);
  expect(JSON.parse(text)).toEqual(expect.objectContaining({ formatVersion: 2 }));
  const hash = createHash('sha256').update(PHOTO.buffer).digest('hex');
  expect(Object.keys(bundle).sort()).toEqual(['case.json', `files/${hash}.png`]);

  const other = await browser.newContext();
  const page2 = await other.newPage();
  await page2.route('**/setup.json', (route) => route.fulfill({ json: { demo: false } }));
  const desk2 = new Desk(page2);
  await desk2.open();
  await desk2.openFile(jsonFile('newer.json', text.replace('"formatVersion": 2', '"formatVersion": 3')));
  await expect(page2.getByText(/newer version \(file version 3\)/)).toBeVisible();
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
  await expect(page2.getByText('digest verified')).toBeVisible();
  await desk2.go('Examine');
  await expect(page2.getByRole('img', { name: 'plunger.png' })).toBeVisible();
  await desk2.line('tensioner left ext 7.6');
  await page2.getByRole('tab', { name: /^Chain/ }).click();
  await page2
    .locator('hs-look-list')
    .getByRole('button', { name: /^Chain length/ })
    .click();
  await expect(page2.getByRole('img', { name: /^Mean of 5: 321\.70/ })).toBeVisible();
  await desk2.go('Settle');
  const back = await desk2.download(() => page2.getByRole('button', { name: 'Case as JSON' }).click());
  const grown = readFileSync(back.path, 'utf8');
  await other.close();

  // what was done there comes back, and both say the same
  await desk.openFile(jsonFile('back.json', grown));
  await expect(page.getByText(/back\.json: digest verified/)).toBeVisible();
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
  await expect(rack.getByText('2027')).toBeVisible();
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

test('a belt unrolled: marks pressed on its teeth lead to the wheel that made them, and scattered ones to none', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2033/examine');
  await page.getByRole('tab', { name: /^Belt/ }).click();
  const map = page.getByRole('listbox', { name: 'Belt, tooth by tooth' });
  for (const n of [3, 23, 43, 63]) await map.getByRole('option', { name: `tooth ${n}`, exact: true }).click();
  await expect(page.getByText(/4 of 4 marks repeat with the 20 teeth of the crank sprocket/)).toBeVisible();
  for (const n of [3, 23, 43]) await map.getByRole('option', { name: `tooth ${n}, root crack` }).click();
  await expect(page.getByText(/1 mark: too few/)).toBeVisible();
  for (const n of [7, 18, 52, 90]) await map.getByRole('option', { name: `tooth ${n}`, exact: true }).click();
  await expect(page.getByText(/repeat with the teeth of no wheel/)).toBeVisible();
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual([]);
});

test('a guide of which a piece is missing obliges to open the sump, at the part and in the report', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/examine');
  await page.getByRole('tab', { name: /^Guide/ }).click();
  const guide = page.getByRole('tabpanel');
  const look = (name: RegExp) => guide.locator('hs-look-list').getByRole('button', { name }).click();
  await look(/^Mass of a new one/);
  const fresh = guide.getByRole('textbox', { name: /^Mass of a new one/ });
  await fresh.fill('80');
  await fresh.press('Enter');
  await look(/^Mass of each piece/);
  const piece = guide.getByRole('textbox', { name: /^Mass of each piece/ });
  for (const text of ['1 52.4', '2 11.3']) {
    await piece.fill(text);
    await piece.press('Enter');
  }
  await expect(guide).toContainText(
    'A piece is missing: 2 pieces weigh 63.7 g, 16.3 ± 1.6 g less than a new one',
  );
  await expect(guide).toContainText('open the sump');
  await piece.fill('3 15.9');
  await piece.press('Enter');
  await expect(guide).toContainText('Cannot tell');
  await guide.getByRole('button', { name: /^Strike piece 3/ }).click();
  await expect(guide).toContainText('A piece is missing');
  await desk.go('Settle');
  const pdf = await desk.download(() => page.getByRole('button', { name: 'Draft PDF' }).click());
  expect(pdfText(pdf.path)).toContain('open the sump and clean the pickup before the engine runs');
});

test('a simulated dial gauge feeds a leak-down, is unplugged half-way, and what came is judged up to Cause', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/examine?instruments=pace%3D40%26leak%3D0.06%26unplug%3D40');
  const hand = page.getByRole('tabpanel');
  await desk.look('Tensioner', 'Leak-down under a constant load');
  // what it destroys was not read yet
  await expect(hand.getByText(/First overall length/)).toBeVisible();
  await hand.getByRole('button', { name: 'It can no longer be read' }).click();
  await hand.getByRole('button', { name: 'Load is on: record' }).click();
  await expect(hand.getByText(/The instrument went away; \d+ readings are kept/)).toBeVisible();
  await expect(hand.getByRole('img', { name: /readings over time/ }).locator('canvas')).toBeVisible();
  await hand.getByRole('button', { name: 'Use what came' }).click();
  await expect(hand.getByText(/faster than its limit of 20.µm\/s/)).toBeVisible();
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual([]);
  await desk.go('Cause');
  await expect(page.getByText(/Leak-down of the plunger/).first()).toBeVisible();
});

/** A camera that looks down on a plane at a slant: pixels of a point in mm. */
const seen = ([x, y]: readonly [number, number]) => {
  const [pan, tilt] = [0.35, 0.3];
  const [px, pz] = [x * Math.cos(pan), -x * Math.sin(pan)];
  const [py, qz] = [y * Math.cos(tilt) - pz * Math.sin(tilt), y * Math.sin(tilt) + pz * Math.cos(tilt)];
  const depth = 300 + qz;
  return [500 + (1900 * px) / depth, 150 + (1900 * py) / depth] as const;
};

test('a length on a photograph taken at a slant is right within its stated uncertainty, and stays with its picture', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2027/examine');
  const card = (
    [
      [0, 0],
      [85, 0],
      [85, 54],
      [0, 54],
    ] as const
  ).map(seen);
  const ends = (
    [
      [10, 75],
      [50, 75],
    ] as const
  ).map(seen);
  // the picture shows a card and a bar of 40 mm
  const base64 = await page.evaluate(
    async ({ card, ends }) => {
      const canvas = new OffscreenCanvas(1600, 1200);
      const g = canvas.getContext('2d')!;
      g.fillStyle = '#ddd';
      g.fillRect(0, 0, 1600, 1200);
      g.beginPath();
      for (const [x, y] of card) g.lineTo(x, y);
      g.closePath();
      g.stroke();
      g.moveTo(...(ends[0] as unknown as [number, number]));
      g.lineTo(...(ends[1] as unknown as [number, number]));
      g.stroke();
      const bytes = new Uint8Array(await (await canvas.convertToBlob()).arrayBuffer());
      return btoa(bytes.reduce((t, b) => t + String.fromCharCode(b), ''));
    },
    { card, ends },
  );
  await page.getByRole('tab', { name: /^Tensioner/ }).click();
  await page.getByLabel('Files of Tensioner', { exact: true }).setInputFiles([
    { name: 'slant.png', mimeType: 'image/png', buffer: Buffer.from(base64, 'base64') },
    { name: 'broken.png', mimeType: 'image/png', buffer: Buffer.from('no picture') },
  ]);
  await desk.look('Tensioner', 'Length of its bolt');
  const hand = page.getByRole('tabpanel');
  await hand.getByRole('button', { name: 'Measure on broken.png' }).click();
  const dialog = page.getByRole('dialog', { name: /on broken.png/ });
  await expect(dialog.getByText(/is no picture that can be read/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await hand.getByRole('button', { name: 'Measure on slant.png' }).click();
  const photo = page.getByRole('application', { name: /^Photograph slant.png/ });
  await expect(photo).toBeVisible();
  const measuring = page.getByRole('dialog', { name: /on slant.png/ });
  await measuring.getByText('A rectangle in it').click();
  await measuring.getByRole('textbox', { name: /^Width/ }).fill('85');
  await measuring.getByRole('textbox', { name: /^Height/ }).fill('54');
  for (const [x, y] of [...card, ...ends]) {
    const box = (await photo.boundingBox())!;
    const k = box.width / 1600;
    await photo.click({ position: { x: x * k, y: y * k } });
  }
  await expect(measuring.getByText('All spots are set.')).toBeVisible();
  expect(
    (await new AxeBuilder({ page }).include('.ant-modal').analyze()).violations.map((v) => v.id),
  ).toEqual([]);
  await measuring.getByRole('button', { name: 'File it' }).click();
  await expect(measuring).toBeHidden();
  const box = hand.getByRole('textbox', { name: /^Length of its bolt/ });
  await expect(box).toHaveValue(/±/);
  const said = await box.inputValue();
  const [, value, u] = /([\d.]+)\s*±\s*([\d.]+)/.exec(said)!;
  expect(Math.abs(Number(value) - 40)).toBeLessThanOrEqual(2 * Number(u));
  expect(Number(u)).toBeLessThan(2);
  // what was picked is there again
  await hand.getByRole('button', { name: 'Measure on slant.png' }).click();
  await expect(page.getByText('All spots are set.')).toBeVisible();
});
