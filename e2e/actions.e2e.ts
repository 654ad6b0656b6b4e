import { expect, type Locator, type Page, test } from '@playwright/test';
import { Desk } from './desk';

/** A person's hand: a press is one action, and so is a text typed, pasted or dictated, however long. */
class OneHand {
  actions = 0;
  constructor(
    private readonly page: Page,
    private readonly by: 'mouse' | 'touch',
  ) {}

  async press(target: Locator): Promise<void> {
    this.actions++;
    if (this.by === 'touch') await target.tap();
    else await target.click();
  }

  async say(text: string): Promise<void> {
    this.actions++;
    await this.page.keyboard.insertText(text);
  }
}

const answer = (page: Page) => page.getByRole('region', { name: 'To read out' });
const begin = async (page: Page, hand: OneHand, text: string) => {
  await hand.press(page.getByRole('textbox', { name: 'What came in?' }));
  await hand.say(text);
  await hand.press(page.getByRole('option', { name: /^New case, read what was said/ }));
  await hand.press(page.getByRole('button', { name: /^File \d+ fact/ }));
};

for (const by of ['mouse', 'touch'] as const)
  test.describe(`actions by ${by}`, () => {
    test.use({ hasTouch: by === 'touch' });

    test('from a message to its answer: at most five', async ({ page }) => {
      const desk = new Desk(page);
      await desk.open();
      const hand = new OneHand(page, by);
      await begin(
        page,
        hand,
        'Does MF-K302A-1 fit? BR19-SHAW. The shop sent it. We took a bolt out: M10 thread.',
      );
      await expect(answer(page)).toContainText('No, MF-K302A-1 does not fit; it takes MF-K302B-1');
      expect(hand.actions).toBeLessThanOrEqual(5);
    });

    test('from a call to go or no go: at most six', async ({ page }) => {
      const desk = new Desk(page);
      await desk.open();
      const hand = new OneHand(page, by);
      await begin(
        page,
        hand,
        'OL25-FLET, manual box, new belt, turned by hand two turns. Upper right half a tooth ahead, lower right in line, left side in line both. Go or no go?',
      );
      await expect(answer(page)).toContainText('Go: all 4 marks stand as they must');
      await expect(page.getByRole('region', { name: 'Still to ask' })).toHaveCount(0);
      expect(hand.actions).toBeLessThanOrEqual(6);
    });

    test('from a box to its sealed report: at most forty', async ({ page }) => {
      const desk = new Desk(page);
      await desk.open();
      const hand = new OneHand(page, by);
      const station = (name: string) =>
        hand.press(page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name }));
      const tile = (name: string, option: string) => hand.press(desk.tile(name, option));
      const look = async (name: string, option: string) => {
        const inspection = page
          .locator('hs-inspection-list')
          .getByRole('button', { name: new RegExp(`^${name}`) });
        await hand.press(inspection);
        await tile(name, option);
      };
      await begin(
        page,
        hand,
        'Box from Odo Larkham, Saltmarsh Road Garage: tensioner and belt sent in. TE16-CORM built 11.3.2017, kit MF-K121-1 fitted on 1.6.2026 at 55 200 km, engine stopped on 2.11.2026 at 61 000 km. Claim.',
      );
      await station('Examine');
      await hand.press(page.getByRole('tab', { name: /^Tensioner/ }));
      await hand.press(page.getByRole('button', { name: /inspections as a list$/ }));
      await look('Setting key was turned', 'Clockwise');
      await hand.press(
        page.locator('hs-inspection-list').getByRole('button', { name: /^Pointer, as found/ }),
      );
      const pointer = page.getByRole('textbox', { name: /^Pointer, as found/ });
      await hand.press(pointer);
      await hand.say('-98');
      await hand.press(page.getByRole('tab', { name: /^Wheels/ }));
      await look('Rim climb marks on', 'Guide roller');
      await hand.press(page.getByRole('tab', { name: /^Belt/ }));
      await look('Belt edge, front', 'Frayed');
      await station('Cause');
      await hand.press(page.getByRole('button', { name: 'Decide: Tensioner set the wrong way round' }));
      await station('Settle');
      await hand.press(page.getByRole('button', { name: 'Record SET-WAY against the claim' }));
      await tile('Decision', 'Decline');
      for (const [field, text] of [
        ['Alternative considered', 'A seized pump would have torn teeth; they are sound.'],
        ['Reason, in plain words', 'The tensioner was set against its arrow.'],
      ] as const) {
        await hand.press(page.getByRole('textbox', { name: field }));
        await hand.say(text);
      }
      await tile('Invoice received', 'Yes');
      const pdf = await desk.download(() =>
        hand.press(page.getByRole('button', { name: 'Seal and issue', exact: true })),
      );
      expect(pdf.name).toMatch(/^report-\d+\.pdf$/);
      await expect(page.getByText('Issue 1: ✓ facts unchanged since')).toBeVisible();
      expect(hand.actions).toBeLessThanOrEqual(40);
    });
  });
