import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { Desk, type PanelName } from './desk';

const body = (page: Page) => page.getByRole('region', { name: 'Ask the drive' });

test('the wrong way round stands beside the right one and becomes a fact', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2027/identify');
  await page.getByRole('tab', { name: 'The drive' }).click();
  await page.getByRole('link', { name: 'On the drive bench' }).click();
  await expect(body(page)).toContainText('Pointer 90.0°, in its window');
  await expect(body(page)).toContainText('Pointer −102.3°, outside its window');
  await page.getByText('Side by side', { exact: true }).click();
  await body(page).getByRole('button', { name: 'Draw this one' }).click();
  // drawn: the tensioner stands where the other solution puts it, the one for comparison does not
  const hub = (nth: number) =>
    page
      .locator('hs-drive-figure')
      .nth(nth)
      .getByRole('img', { name: 'Tensioner' })
      .locator('> g')
      .getAttribute('transform');
  expect(await hub(0)).not.toBe(await hub(1));
  await expect(body(page)).toContainText(
    'Smallest clearance 2.2 mm between the rim of Guide roller and Tensioner',
  );
  await page.getByRole('button', { name: 'File: it shows the wrong way round' }).click();
  await expect(desk.tape()).toContainText('Turned the wrong way');
  await expect(body(page)).toContainText('filed as a fact of this case');
});

test('half a tooth is go where geometry brings it, one tooth is no go', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2044/call');
  await page.locator('body').press('v');
  await desk.panel('Marks');
  await expect(body(page)).toContainText('A correct fitting shows it 0.46 teeth ahead');
  await desk.type('Mark offset, right upper cam', '+0.5');
  await expect(body(page)).toContainText('✓ as this drive must show');
  await expect(body(page)).toContainText('Go so far, 1 of 4 marks');
  await body(page).getByRole('button', { name: 'File this' }).click();
  await expect(desk.tape()).toContainText('Go so far');

  // every mark right: only now it is go
  for (const wheel of ['left lower', 'left upper', 'right lower']) await desk.line(`mark ${wheel} 0`);
  await expect(body(page)).toContainText('Go: all 4 marks');

  await desk.type('Mark offset, left upper cam', '1 teeth');
  await expect(body(page)).toContainText('✕ 1 tooth out, advanced');
  await expect(body(page)).toContainText('Do not start it.');
  await body(page).getByRole('button', { name: 'File this' }).click();
  await expect(desk.tape()).toContainText('No go: do not start');
  await desk.go('Cause');
  // nobody sent anything in: it is a question until somebody says otherwise
  await expect(page.getByText('no causes are weighed').first()).toBeVisible();
  await desk.line('kind return');
  await expect(page.getByRole('region', { name: 'Rival causes' }).getByRole('button').first()).toContainText(
    'Belt fitted a tooth out',
  );
});

test('machined heads are compensated by two idlers, one of them out of range', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/drive');
  await desk.pick('Drive', 'OL25-FLET', 'OL25');
  await desk.panel('Heads');
  const dial = async (name: string, value: string) => {
    await page.getByLabel(name, { exact: true }).fill(value);
    await page.getByLabel(name, { exact: true }).press('Enter');
  };
  await dial('Left head nearer by', '0,4');
  await dial('Right head nearer by', '0.4');
  await expect(body(page).getByRole('listitem')).toHaveText([
    /Left lower cam is back/,
    /Right upper cam is back/,
  ]);
  await dial('Left head nearer by', '1');
  await dial('Right head nearer by', '1');
  await page.getByRole('button', { name: 'Compute and set the idlers' }).click();
  await expect(body(page).getByRole('listitem')).toHaveText([
    /Left lower cam is back in place/,
    /is out of range: at 180° Right upper cam still stands −0\.58°/,
  ]);
  await expect(page.getByRole('textbox', { name: 'Idler before the right head' })).toHaveValue('180.0');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('textbox', { name: 'Idler before the right head' })).toHaveValue('90.0');
  await dial('Left head nearer by', 'a lot');
  await expect(body(page)).toContainText('“a lot” is not a number.');

  // the way back: from the marks seen to the millimetres
  await page.getByRole('button', { name: 'As made' }).click();
  await desk.panel('Marks');
  const seen = page.getByLabel('Stands off by', { exact: true });
  for (const [i, v] of ['-0.08', '-0.08', '0.13', '-0.29'].entries()) {
    await seen.nth(i).fill(v);
    await seen.nth(i).press('Enter');
  }
  await desk.panel('Heads');
  await expect(body(page)).toContainText(
    /Left head (0\.9|1\.0)\d ± 0\.\d\d mm nearer, Right head (0\.9|1\.0)\d ±/,
  );
});

test('extension against elongation leaves guide wear, which becomes a fact', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/drive');
  await desk.panel('Wear');
  await expect(body(page)).toContainText('0.28 ± 0.04 % longer than new, limit 0.50 %');
  await expect(body(page)).toContainText(/left over 4\.\d+\s±\s0\.\d+\smm: more than its length explains/);
  await expect(body(page)).toContainText('clean both before the engine runs');
  await body(page).getByRole('button', { name: 'File the guide wear' }).click();
  await expect(desk.tape()).toContainText('Guide wear, by computation');
  await expect(desk.tape()).toContainText(/3\.\d+\s±\s0\.\d+\smm/);
});

test('by keyboard, out to files and in again, and what cannot exist is named', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/drive');
  const crank = page.getByLabel('Crank turned', { exact: true });
  await page.getByRole('img', { name: 'Crank sprocket' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(crank).toHaveValue('11');
  await page.keyboard.press('PageUp');
  await expect(crank).toHaveValue('29');
  // a quarter turn by hand: from below the crank's centre round to its left, clockwise
  const centre = await page.getByRole('img', { name: 'Crank sprocket' }).locator('> g').boundingBox();
  const [cx, cy] = [centre!.x + centre!.width / 2, centre!.y + centre!.height / 2];
  await page.keyboard.press('Home');
  await page.mouse.move(cx, cy + 20);
  await page.mouse.down();
  for (const a of [15, 30, 45, 60, 75, 90])
    await page.mouse.move(cx - 20 * Math.sin((a * Math.PI) / 180), cy + 20 * Math.cos((a * Math.PI) / 180));
  await page.mouse.up();
  await expect(crank).toHaveValue(/^(89|90|91)$/);
  await crank.fill('29');
  await crank.press('Enter');
  await desk.panel('Table');
  await expect(page.getByRole('row', { name: /Cam sprocket/ })).toContainText('-14.5');
  await page.getByRole('row', { name: /Water pump/ }).focus();
  await expect(page.locator('.callout')).toContainText('pitch radius 28.60 mm');

  const takeOut = async (what: string) => {
    await page.getByRole('button', { name: /^Take out/ }).click();
    await page.getByRole('menuitem', { name: what }).click();
    await expect(page.getByRole('menu')).toHaveCount(0);
  };
  const svg = await desk.download(() => takeOut('Drawing as SVG'));
  expect(readFileSync(svg.path, 'utf8')).toMatch(/^<svg[^>]+xmlns=[\s\S]+<path[^>]+stroke=/);
  const png = await desk.download(() => takeOut('Drawing as PNG'));
  expect(readFileSync(png.path).subarray(1, 4).toString()).toBe('PNG');
  const json = await desk.download(() => takeOut('Layout as JSON'));
  const text = readFileSync(json.path, 'utf8');
  const bring = (content: string) =>
    page
      .getByLabel('Layout file')
      .setInputFiles({ name: 'drive.json', mimeType: 'application/json', buffer: Buffer.from(content) });
  await bring(text.slice(0, 300));
  await expect(
    page.getByText(/drive\.json: it is broken at line \d+, column \d+ .* Nothing was changed/),
  ).toBeVisible();
  await bring(text.replace('"pitchMm": 8', '"pitchMm": 0'));
  await expect(page.getByText(/drive\.json: at pitchMm: /)).toBeVisible();
  await bring(text.replace('"count": 121', '"count": 150'));
  await expect(
    page
      .getByRole('region', { name: 'Ask the drive' })
      .or(page.getByText(/mm too long for any setting/))
      .first(),
  ).toBeVisible();
  await expect(page.getByText(/The belt is \d+\.\d mm too long for any setting/)).toBeVisible();
  await bring(text);
  await expect(body(page)).toContainText('121 teeth × 8 mm');

  await desk.panel('Draw up');
  await page.getByLabel('x of Water pump').fill('8');
  await page.getByLabel('y of Water pump').fill('20');
  await page.getByLabel('y of Water pump').press('Enter');
  await expect(body(page)).toContainText(/Crank sprocket and Water pump overlap by \d+\.\d mm/);
  await page.getByLabel('Teeth of Cam sprocket').fill('-40');
  await page.getByLabel('Teeth of Cam sprocket').press('Enter');
  await expect(body(page).getByRole('alert')).toContainText('Cam sprocket: -40 teeth cannot be');
});

test('a drive is drawn up from a workshop’s figures, and distances that disagree are told', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/drive');
  await desk.panel('Draw up');
  await page.getByRole('button', { name: 'Begin with two wheels' }).click();
  await expect(body(page)).toContainText(/This drive can exist; its path is \d+\.\d\d mm/);
  await page.getByRole('button', { name: 'Add a wheel' }).click();
  const put = async (name: string, value: string) => {
    await page.getByLabel(name, { exact: true }).fill(value);
    await page.getByLabel(name, { exact: true }).press('Enter');
  };
  await put('x of Wheel 2', '30');
  await put('y of Wheel 2', '150');
  await expect(body(page)).toContainText('✓ This drive can exist');
  await desk.pick('Wheel', 'Wheel 2');
  await put('Pivot x', '44');
  await page.getByRole('button', { name: 'Make Wheel 2 the tensioner' }).click();
  await put('Teeth', '106');
  await expect(body(page)).toContainText('its tensioner takes up the rest');
  await page.getByRole('button', { name: 'Lay it on the bench' }).click();
  await desk.panel('Setting');
  await expect(body(page)).toContainText(/Pointer -?−?\d/);

  await desk.panel('Draw up');
  for (const [i, [from, to, mm]] of [
    ['Crank sprocket', 'Cam sprocket', '300'],
    ['Crank sprocket', 'Wheel 2', '153.0'],
    ['Cam sprocket', 'Wheel 2', '153,0'],
    ['Cam sprocket', 'Wheel 2', '9 o'],
  ].entries()) {
    await page.getByRole('button', { name: 'Add a distance' }).click();
    await desk.pick(`Distance ${i + 1} from`, from!);
    await desk.pick(`Distance ${i + 1} to`, to!);
    await put(`Distance ${i + 1}, mm`, mm!);
  }
  await page.getByRole('button', { name: 'Place the wheels' }).click();
  await expect(body(page).getByRole('alert')).toContainText('Distance 4: “9 o” is not a number.');
  await put('Distance 4, mm', '170');
  await page.getByRole('button', { name: 'Place the wheels' }).click();
  await expect(body(page)).toContainText(
    'These distances do not agree, and it cannot be told which one is wrong',
  );
  await put('Distance 4, mm', '153,1');
  await page.getByRole('button', { name: 'Place the wheels' }).click();
  await expect(body(page)).toContainText(/Cam sprocket to Wheel 2: off by -?0\.\d\d mm/);
});

for (const theme of ['light', 'dark'])
  test(`the drive bench is free of accessibility faults and of page scroll, ${theme}`, async ({ page }) => {
    const desk = new Desk(page);
    await page.addInitScript((t) => localStorage.setItem('hs-theme', t), theme);
    await desk.open('/case/demo-2036/drive');
    // each part with all of its panels open
    for (const panels of [
      ['Setting', 'Marks', 'Heads'],
      ['Wear', 'Heat', 'Valves'],
      ['Table', 'Strands', 'Draw up'],
    ] satisfies PanelName[][]) {
      for (const name of panels) await desk.panel(name);
      const found = (await new AxeBuilder({ page }).analyze()).violations.map(
        (v) => `${panels[0]} ${theme}: ${v.id} ${v.nodes[0]?.target.join(' ') ?? ''}`,
      );
      expect(found).toEqual([]);
    }
    const over = await page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight);
    expect(over).toBeLessThanOrEqual(0);
  });
