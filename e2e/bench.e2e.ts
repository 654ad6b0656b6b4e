import { pngBytes } from '../app/testing/picture-bytes';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Desk } from './desk';
import { pdfText } from './pdf-text';

test('belts of the demo lead to the wheel that marked them, and one to wheels that cannot be told apart', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2027/examine');
  await desk.box('1931');
  await page.getByRole('tab', { name: /^Belt/ }).click();
  await expect(page.getByText(/6 of 6 marks repeat with the 20 teeth of the crank sprocket/)).toBeVisible();
  await expect(page.getByText(/cannot be told from/)).toHaveCount(0);
  await desk.box('1936');
  await page.getByRole('tab', { name: /^Belt, lower/ }).click();
  await expect(page.getByText(/8 of 8 marks repeat with the 24 teeth of the oil pump/)).toBeVisible();
  await desk.box('1933');
  await page.getByRole('tab', { name: /^Belt/ }).click();
  await expect(page.getByText(/By these marks it cannot be told from/)).toBeVisible();
  // its photograph came with it
  await page.getByRole('tab', { name: /^Guide roller/ }).click();
  await expect(page.getByRole('img', { name: 'guide roller.png' })).toBeVisible();
});

test('two tensioners of one engine are examined apart, side by side, and so are those of other returns', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2027/examine');
  await desk.box('1941');
  await desk.look('Tensioner, left', 'Seal ring');
  const hand = page.getByRole('tabpanel');
  await hand.press('=');
  const cells = page.getByRole('list', { name: 'Side by side' }).getByRole('listitem');
  await expect(cells.filter({ hasText: 'In hand' })).toContainText('Cut');
  await expect(cells.filter({ hasText: 'Tensioner, right' })).toContainText('Whole');
  await expect(cells.filter({ hasText: 'New' })).toContainText('Whole');
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual([]);
  await desk.look('Tensioner, right', 'Seal ring');
  await expect(cells.filter({ hasText: 'In hand' })).toContainText('Whole');
});

test('a box with tensioner, belt and roller is examined in at most 25 actions', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2038/examine');
  let actions = 0;
  const act = async (key: string) => {
    actions++;
    await page.keyboard.press(key);
  };
  const hand = page.getByRole('tabpanel');
  const left = () => hand.getByRole('button', { name: /^Nothing found/ });
  await page.getByRole('tab', { name: /^Tensioner/ }).click();
  await desk.list();
  actions += 2;
  for (const thing of ['Tensioner', 'Belt', 'Guide roller']) {
    await expect(hand.getByRole('heading', { name: thing, exact: true })).toBeVisible();
    if (thing === 'Tensioner') {
      // what the next looks destroy is read first
      await hand
        .locator('hs-inspection-list')
        .getByRole('button', { name: /^Pointer, as found/ })
        .click();
      await hand.getByRole('textbox', { name: /^Pointer, as found/ }).fill('88');
      await page.keyboard.press('Enter');
      actions += 2;
      await expect(hand.locator('[data-row="tensioner.pointer"][data-field=known]')).toBeVisible();
    }
    // one glance a place; what is measured is left for later
    const open = hand.locator('hs-inspection-list li[data-field=lacks]');
    for (let places = 0; places < 12 && (await left().isVisible()); places++) {
      const n = await open.count();
      await act('*');
      await expect(async () => expect(await open.count()).toBeLessThan(n)).toPass();
    }
    await act('PageDown');
  }
  expect(actions).toBeLessThanOrEqual(25);
  // and it was all of what is graded by eye there
  await expect(page.getByRole('region', { name: 'In short' })).toContainText(
    /\b(3[5-9]|[4-9]\d) inspections made/,
  );
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
  await desk.list();
  const guide = page.getByRole('tabpanel');
  const look = (name: RegExp) => guide.locator('hs-inspection-list').getByRole('button', { name }).click();
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
    { name: 'broken.png', mimeType: 'image/png', buffer: Buffer.from(pngBytes('draws nothing')) },
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

test('the part stands alone and large: a place on it leads to its inspections, and the list is one press away', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/examine');
  await page.getByRole('tab', { name: /^Tensioner/ }).click();
  const list = page.locator('hs-inspection-list');
  await expect(list).toHaveCount(0);
  const drawing = page.locator('hs-thing-drawing .frame');
  const alone = (await drawing.boundingBox())!.height;
  await page.getByRole('button', { name: /^Tip of the plunger/ }).click();
  await expect(page.getByRole('listbox', { name: /^Tip of the plunger/ })).toBeVisible();
  await desk.list();
  await expect(list.locator('[aria-current=step]')).toContainText('Tip of the plunger');
  expect((await drawing.boundingBox())!.height).toBeLessThan(alone);
  await page.reload();
  await expect(list).toBeVisible();
  // a belt is shown unrolled, and its inspections stay beside it
  await page.getByRole('button', { name: /inspections as a list$/ }).click();
  await expect(list).toHaveCount(0);
  await page.getByRole('tab', { name: /^Chain/ }).click();
  await expect(list).toBeVisible();
});
