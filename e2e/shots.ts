import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { type Page, test } from '@playwright/test';
import { Desk } from './desk';
import { joinedDesk } from './shelf-desk';
import { serve, stop } from '../server/serve';
import { drivePicture, ownStep, pickOwnDrive } from './own-drive';

/** Takes the pictures in docs/screenshots from the demo data. Run with `npm run shots`. */
const out = (name: string) => `docs/screenshots/${name}.png`;

async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await page.getByRole('navigation', { name: 'Rack of cases' }).waitFor();
  await page.locator('main').first().waitFor();
  // What is still being read is no view: a case has its first card, the rack what came with the demo.
  if (path.startsWith('/case/')) await page.locator('main .card').first().waitFor();
  await page.getByText('Reading the case').waitFor({ state: 'hidden' });
  if ((page.viewportSize()?.width ?? 0) > 1000) await page.getByText('2048').first().waitFor();
  await page.evaluate(() => document.fonts.ready);
}

const fill = async (page: Page, name: string, value: string) => {
  await page.getByLabel(name, { exact: true }).fill(value);
  await page.getByLabel(name, { exact: true }).press('Enter');
};

const views = [
  ['start', '/'],
  ['identify', '/case/demo-2041/identify'],
  ['examine', '/case/demo-2027/examine'],
  ['cause', '/case/demo-2033/cause'],
  ['settle', '/case/demo-2027/settle'],
  ['ledger', '/ledger'],
  ['catalogue', '/catalogue'],
] as const;

for (const [name, path] of views) {
  test(name, async ({ page }) => {
    await open(page, path);
    // What came weeks ago comes last into a new desk.
    if (name === 'start') await page.getByRole('region', { name: 'To do' }).getByText('1931').waitFor();
    await page.screenshot({ path: out(name) });
  });
}

test('patterns', async ({ page }) => {
  await open(page, '/patterns');
  await page.getByText('An invented one').click();
  await page.getByRole('list', { name: 'What stands out' }).waitFor();
  await page.locator('hs-pattern-chart svg, hs-pattern-chart canvas').first().waitFor();
  await page.screenshot({ path: out('patterns') });
});

test('practice', async ({ page }) => {
  await open(page, '/practice');
  await page.getByRole('button', { name: 'Begin: Opposed marks' }).click();
  const main = page.getByRole('main');
  await main
    .getByRole('button', { name: /^(Look|Ask) · / })
    .first()
    .click();
  await page.locator('body').press('5');
  await main.getByLabel('Cause', { exact: true }).press('Enter');
  await page.keyboard.type('tooth out');
  await page.keyboard.press('Enter');
  await main.getByRole('button', { name: 'That is my verdict' }).click();
  await main.getByRole('button', { name: 'Open the lesson' }).click();
  await page.screenshot({ path: out('practice') });
});

test('fit', async ({ page }) => {
  await open(page, '/case/demo-2033/fit');
  await page.getByRole('option', { name: /Turn the key/ }).click();
  await page.screenshot({ path: out('fit') });
});

test('a sheet on a telephone', async ({ page, browser }, info) => {
  await open(page, '/case/demo-2033/fit');
  await page.getByRole('listbox', { name: 'Steps' }).waitFor();
  const html = await new Desk(page).download(() => page.keyboard.press('w'));
  const file = info.outputPath('sheet.html');
  copyFileSync(html.path, file);
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 800 } })).newPage();
  await phone.goto(pathToFileURL(file).href);
  await phone.getByRole('heading', { name: /Turn the key/ }).scrollIntoViewIfNeeded();
  await phone.locator('article', { hasText: 'Turn the key' }).getByText('Done', { exact: true }).click();
  await phone.screenshot({ path: out('phone') });
  await phone.context().close();
});

test('lost timing', async ({ page }) => {
  await open(page, '/case/demo-2044/fit');
  await page.getByRole('group', { name: 'At the fitting' }).getByText('Timing lost').click();
  for (const [name, deg] of [
    ['Crank', '30'],
    ['Right lower cam', '4'],
    ['Right upper cam', '40'],
    ['Left upper cam', '0'],
    ['Left lower cam', '0'],
  ] as const)
    await fill(page, name, deg);
  await page.getByRole('region', { name: 'The way back' }).waitFor();
  await page.screenshot({ path: out('lost') });
});

test('call', async ({ page }) => {
  await open(page, '/case/demo-2044/call');
  const said = page.getByRole('textbox', { name: 'What was said' });
  await said.fill(
    'Hi, new belt is on the Fletcher, manual box. Everything lines up, only the upper right is about half a tooth ahead. 178 200 on the clock. Mechanic says the old one was never loud. Start it or not?',
  );
  await said.press('Enter');
  await page.getByRole('group', { name: 'Understood' }).press('Enter');
  await page.getByRole('region', { name: 'To read out' }).waitFor();
  await page.screenshot({ path: out('call') });
});

test('together', async ({ browser }) => {
  const folder = mkdtempSync(join(tmpdir(), 'hs-shots-'));
  const started = await serve({
    root: resolve('dist/app'),
    port: 4297,
    host: '127.0.0.1',
    demo: true,
    shelf: { folder, now: () => '2026-12-01T08:00:00.000Z' },
  });
  if (!started.ok) throw new Error(started.error.code);
  const at = 'http://127.0.0.1:4297';
  const other = await joinedDesk(at, started.invitation ?? '', 'Bench tablet');
  const code = await other.shelf.invite();
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await open(page, `${at}/together?invitation=${code.ok ? code.value : ''}`);
  await page.getByLabel('Name of this desk').fill('Front desk');
  await page.getByRole('button', { name: 'Join' }).click();
  await page.getByRole('region', { name: 'Desks' }).getByText('Bench tablet').waitFor();
  await page.screenshot({ path: out('together') });
  await stop(started, 0);
  rmSync(folder, { recursive: true, force: true });
});

test('the drive bench: both settings', async ({ page }) => {
  await open(page, '/case/demo-2027/drive');
  await page.getByText('Side by side', { exact: true }).click();
  await page.getByRole('button', { name: 'Draw this one' }).click();
  await page.screenshot({ path: out('drive') });
});

test('cam against crank', async ({ page }) => {
  await open(page, '/');
  await new Desk(page).box('1947');
  await page.getByRole('link', { name: 'A capture of crank and cam' }).click();
  await page.getByRole('button', { name: 'OL15 no start.zip', exact: true }).click();
  await page.getByText('All cams are one link late').waitFor();
  const cursor = page.getByRole('slider', { name: /Cursor over one cycle/ });
  for (const key of ['Home', 'n', 'm', 'n', '+']) await cursor.press(key);
  await page.screenshot({ path: out('trace') });
});

test('narrow', async ({ page }) => {
  await page.setViewportSize({ width: 700, height: 1000 });
  await open(page, '/case/demo-2044/drive');
  await new Desk(page).panel('Strands');
  await page.screenshot({ path: out('narrow') });
});

test('dark', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('hs-theme', 'dark'));
  await open(page, '/knowledge?cause=tensioner_bearing');
  await page.getByRole('button', { name: /^How common/ }).click();
  await page.screenshot({ path: out('dark') });
});

test('an engine of one’s own', async ({ page }) => {
  await open(page, '/catalogue/own');
  await ownStep(page, 'Drive');
  await page.getByRole('button', { name: 'Try it on an invented engine' }).click();
  await drivePicture(page).waitFor();
  await pickOwnDrive(page);
  await page.screenshot({ path: out('own') });
});
