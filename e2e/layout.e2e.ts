import { expect, test } from '@playwright/test';
import { Desk } from './desk';
import { textTrouble } from './text-laid';

const SIZES = [
  [1280, 800],
  [1024, 768],
  [768, 1024],
  [390, 844],
  [1600, 900],
  [1920, 1080],
] as const;
/** Every view, on cases with the longest names and the most facts that the demo has. */
const VIEWS = [
  '',
  'case/demo-2044/call',
  'case/demo-2041/identify',
  'case/demo-2033/fit',
  'case/demo-2027/examine',
  'case/demo-box-1942/examine',
  'case/demo-2033/cause',
  'case/demo-2027/settle',
  'case/demo-2044/drive',
  'ledger',
  'patterns',
  'catalogue',
  'catalogue/engine/TE16-CORM',
  'catalogue/own',
  'knowledge',
  'words',
  'safety',
  'proof',
  'claims',
  'mail',
];

test.describe('text is laid so that none collides and none is cut', () => {
  for (const [density, scheme] of [
    ['compact', 'light'],
    ['large', 'dark'],
  ] as const)
    test(`${density}, ${scheme}`, async ({ page }) => {
      test.setTimeout(300_000);
      await page.emulateMedia({ colorScheme: scheme });
      const desk = new Desk(page);
      await desk.open();
      await desk.page.getByText('2048').first().waitFor();
      const found: string[] = [];
      await desk.newCase();
      const empty = new URL(page.url()).pathname.split('/')[2] ?? '';
      const stations = ['call', 'identify', 'fit', 'examine', 'cause', 'settle', 'drive'];
      for (const view of [...VIEWS, ...stations.map((s) => `case/${empty}/${s}`)]) {
        await page.setViewportSize({ width: 1280, height: 800 });
        await page.goto(`/${view}`);
        await page.locator('main').first().waitFor();
        await page.evaluate((d) => (document.documentElement.dataset['density'] = d), density);
        await page.waitForLoadState('networkidle');
        for (const [width, height] of SIZES) {
          await page.setViewportSize({ width, height });
          await page.evaluate(
            () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
          );
          for (const t of await page.evaluate(textTrouble)) found.push(`/${view} ${width}x${height}: ${t}`);
        }
      }
      expect(found).toEqual([]);
    });
});
