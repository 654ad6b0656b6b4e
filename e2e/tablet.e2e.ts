import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator, type Page, test } from '@playwright/test';
import { Desk } from './desk';

/** From here on whatever is pressed is touched: there is no mouse on the bench, and nothing hovers. */
function touches(page: Page): () => void {
  const locators = Object.getPrototypeOf(page.locator('body')) as Pick<Locator, 'click' | 'tap'>;
  const { click } = locators;
  locators.click = function (this: Locator, options) {
    return this.tap(options);
  };
  return () => (locators.click = click);
}

/** Controls of the page in hand that are smaller than a finger in a glove, px. */
const small = (page: Page, least: number): Promise<string[]> =>
  page.evaluate(
    (px) =>
      [
        ...document.querySelectorAll<HTMLElement>(
          'main button.ant-btn, main [role=option], main input.ant-input',
        ),
      ]
        .filter((e) => e.checkVisibility() && e.getBoundingClientRect().width > 0)
        .filter((e) => e.getBoundingClientRect().height < px)
        .map(
          (e) =>
            `${e.textContent?.trim() || e.getAttribute('aria-label')} ${Math.round(e.getBoundingClientRect().height)}`,
        ),
    least,
  );
/** How far the page is wider than its window, px: what is not in sight would have to be found by chance. */
const overflow = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);

for (const [width, height] of [
  [1024, 768],
  [820, 1180],
] as const) {
  test.describe(`a tablet of ${width} by ${height}`, () => {
    test.use({ viewport: { width, height }, hasTouch: true });

    test('from the box to a sealed report with touch alone', async ({ page }) => {
      test.setTimeout(120_000);
      const back = touches(page);
      try {
        const desk = new Desk(page);
        await desk.open();
        await page.getByRole('button', { name: 'Settings', exact: true }).click();
        await page.getByText('Left', { exact: true }).click();
        await page.getByText('Large, for gloves').click();
        await page.getByRole('button', { name: 'Done' }).click();
        await desk.newCase();
        await desk.type('Caller', 'Odo Larkham, Saltmarsh Road Garage');
        await desk.type('Engine code', 'te-16 c0rm');
        await desk.type('Distance now', '54 300 mi');
        await desk.type('Distance when fitted', '49000 mi');
        await desk.type('Date of failure', '3.11.2026');
        await desk.type('Fitted on', '14 Jul 2026');
        await desk.type('Kit', 'mf k121 1');
        await desk.choose('Symptom', 'Engine stopped while running');
        await desk.choose('Parts sent in', 'Tensioner');
        await desk.choose('Parts sent in', 'Belt');
        expect(await overflow(page)).toBeLessThanOrEqual(0);
        expect(await small(page, 40)).toEqual([]);
        // for the left hand the tape stands left of the bench, where they stand beside each other
        const [tape, bench] = [
          await page.locator('aside').boundingBox(),
          await page.locator('main').boundingBox(),
        ];
        if (width > 900) expect(tape!.x).toBeLessThan(bench!.x);

        await desk.go('Identify');
        await desk.choose('Screws of the upper cover', 'Unknown');
        await desk.choose('Lower guide roller', 'Steel, 48 mm outside');
        await desk.go('Examine');
        expect(await overflow(page)).toBeLessThanOrEqual(0);
        await desk.look('Tensioner', 'Pointer, as found');
        await desk.type('Pointer, as found', '-101');
        await desk.look('Tensioner', 'Setting key was turned');
        await desk.tile('Setting key was turned', 'Clockwise').click();
        await desk.look('Wheels', 'Rim climb marks on');
        await desk.choose('Rim climb marks on', 'Guide roller');
        await desk.line('edge front frayed');
        await desk.line('brg quiet');
        expect(await small(page, 40)).toEqual([]);
        expect(
          (await new AxeBuilder({ page }).analyze()).violations.map(
            (v) => `${v.id} ${v.nodes[0]?.target.join(' ')}`,
          ),
        ).toEqual([]);

        await desk.go('Cause');
        await page.getByRole('button', { name: 'Decide: Tensioner set the wrong way round' }).click();
        await desk.go('Settle');
        await page.getByRole('button', { name: 'Record SET-WAY against the claim' }).click();
        await desk.choose('Decision', 'Decline');
        await desk.type('Alternative considered', 'A seized pump would have torn teeth; they are sound.');
        await desk.type('Reason, in plain words', 'The tensioner was set against its arrow.');
        await desk.choose('Invoice received', 'Yes');
        expect(await overflow(page)).toBeLessThanOrEqual(0);
        const pdf = await desk.download(() =>
          page.getByRole('button', { name: 'Seal and issue', exact: true }).click(),
        );
        expect(readFileSync(pdf.path).subarray(0, 5).toString()).toBe('%PDF-');
      } finally {
        back();
      }
    });
  });
}
