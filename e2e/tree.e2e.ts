import { expect, type Locator, type Page, test } from '@playwright/test';

/**
 * The desk as a screen reader has it: what is there is read from the accessibility tree, what is done is done by keys on what has a role and
 * a name. No selector, no position, no pointer.
 */
class Reader {
  constructor(private readonly page: Page) {}

  async open(path: string): Promise<void> {
    await this.page.goto(path);
    await this.hears(this.page.getByRole('navigation', { name: 'Rack of cases' }), 'link');
  }

  of(role: Parameters<Page['getByRole']>[0], name: string | RegExp): Locator {
    return this.page.getByRole(role, { name });
  }

  /** What the tree says of a part of the page. */
  async hears(part: Locator, words: string | RegExp): Promise<void> {
    await expect
      .poll(() => part.ariaSnapshot(), { timeout: 15_000 })
      .toMatch(typeof words === 'string' ? new RegExp(words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')) : words);
  }

  /** Goes to something and presses keys there. */
  async keys(at: Locator, ...keys: string[]): Promise<void> {
    await at.focus();
    for (const k of keys) await this.page.keyboard.press(k);
  }

  async types(at: Locator, text: string, files = 'Enter'): Promise<void> {
    await at.focus();
    await this.page.keyboard.insertText(text);
    await this.page.keyboard.press(files);
  }
}

test('a call is answered from the accessibility tree alone', async ({ page }) => {
  const reader = new Reader(page);
  await reader.open('/');
  await reader.types(
    reader.of('textbox', 'What came in?'),
    'Does MF-K302A-1 fit? BR19-SHAW. The shop sent it. We took a bolt out: M10 thread.',
  );
  const understood = reader.of('group', 'Understood');
  await reader.hears(understood, 'checkbox');
  await reader.keys(understood, 'Enter');
  await reader.hears(reader.of('region', 'To read out'), 'MF-K302A-1 does not fit');
});

test('a box is looked at and its cause decided from the accessibility tree alone', async ({ page }) => {
  const reader = new Reader(page);
  await reader.open('/case/demo-2038/examine');
  // past a rack of many cases in one step, the first there is
  await page.keyboard.press('Tab');
  await expect(reader.of('button', 'To the work')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main')).toBeFocused();
  const tensioner = reader.of('tab', /^Tensioner/);
  await reader.keys(tensioner, 'Enter');
  const hand = reader.of('tabpanel', /Tensioner/);
  await reader.hears(hand, 'inspections as a list');
  await reader.keys(reader.of('button', /inspections as a list$/), 'Enter');
  const inspections = reader.of('group', 'Inspections');
  await reader.keys(inspections.getByRole('button', { name: /^Setting key was turned/ }), 'Enter');
  const turned = reader.of('listbox', /^Setting key was turned/);
  await reader.hears(turned, 'option');
  await reader.keys(turned.getByRole('option', { name: /^Anticlockwise/ }), 'Enter');
  // what the answer moved is spoken, and stands in the first line
  await reader.hears(reader.of('tab', /^Tensioner/), /1 of \d+/);
  await reader.keys(reader.of('navigation', 'Stations').getByRole('link', { name: /Cause/ }), 'Enter');
  await reader.hears(reader.of('region', 'Verdict'), /\d\s%/);
  const decide = reader.of('button', /^Decide: /).first();
  const [, cause = 'no cause is offered'] = /Decide: ([^"]+)"/.exec(await decide.ariaSnapshot()) ?? [];
  await reader.keys(decide, 'Enter');
  await reader.hears(reader.of('list', 'Facts, newest first'), cause);
});

test('a drive is turned and its marks read from the accessibility tree alone', async ({ page }) => {
  const reader = new Reader(page);
  await reader.open('/case/demo-2036/drive');
  const drawing = reader.of('group', /crank turned \d+ degrees/).first();
  await reader.hears(drawing, 'crank turned 0 degrees');
  await reader.keys(reader.of('slider', 'Crank turned, slider'), 'ArrowRight', 'ArrowRight', 'ArrowRight');
  await reader.hears(drawing, /crank turned [1-9]\d* degrees/);
  // the last of the tabs lies before the first
  await reader.keys(reader.of('tab', 'Setting, marks'), 'ArrowLeft', 'Enter');
  await reader.hears(page.getByRole('table').first(), 'Crank sprocket');
});

test('a claim is settled as far as the tree says what is missing', async ({ page }) => {
  const reader = new Reader(page);
  await reader.open('/case/demo-2033/settle');
  const decision = reader.of('listbox', 'Decision');
  await reader.hears(decision, 'option');
  await reader.keys(decision.getByRole('option', { name: /^Decline/ }), 'Enter');
  await reader.hears(
    reader.of('region', 'Report and letters'),
    /Declining needs[\s\S]*button "Seal and issue" \[disabled\]|button "Seal and issue" \[disabled\][\s\S]*Declining needs/,
  );
  await reader.types(
    reader.of('textbox', 'Reason, in plain words'),
    'It was set on a warm engine.',
    'Control+Enter',
  );
  await reader.hears(reader.of('list', 'Facts, newest first'), 'set on a warm engine');
});
