import { type Page, test } from '@playwright/test';

/** Takes the pictures in docs/screenshots from the demo data. Run with `npm run shots`. */
const out = (name: string) => `docs/screenshots/${name}.png`;

async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await page.getByRole('navigation', { name: 'Rack of cases' }).waitFor();
  await page.locator('main').first().waitFor();
  await page.evaluate(() => document.fonts.ready);
}

const views = [
  ['call', '/case/demo-2038/call'],
  ['identify', '/case/demo-2041/identify'],
  ['examine', '/case/demo-2027/examine'],
  ['cause', '/case/demo-2033/cause'],
  ['settle', '/case/demo-2027/settle'],
  ['fit', '/case/demo-2033/fit'],
  ['catalogue', '/catalogue'],
] as const;

for (const [name, path] of views) {
  test(name, async ({ page }) => {
    await open(page, path);
    await page.screenshot({ path: out(name) });
  });
}

test('the drive with both settings', async ({ page }) => {
  await open(page, '/case/demo-2027/identify');
  await page.getByRole('region', { name: 'The drive, computed' }).scrollIntoViewIfNeeded();
  await page.screenshot({ path: out('drive') });
});

test('dark', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('hs-theme', 'dark'));
  await open(page, '/case/demo-2033/cause');
  await page.screenshot({ path: out('dark') });
});

test('parts compared, the job and the interval', async ({ page }) => {
  await open(page, '/case/demo-2027/identify');
  await page.getByRole('region', { name: 'What the job needs' }).evaluate((e) => e.scrollIntoView());
  await page.screenshot({ path: out('job') });
});
