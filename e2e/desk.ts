import { expect, type Locator, type Page } from '@playwright/test';

/** Where the panels of the drive bench are: part, and heading in it. */
const PANELS = {
  Setting: ['Setting, marks', 'Setting'],
  Marks: ['Setting, marks', 'Marks'],
  Heads: ['Setting, marks', 'Heads, block and gasket'],
  Wear: ['Wear, heat', 'Wear'],
  Heat: ['Wear, heat', 'Heat'],
  Valves: ['Wear, heat', 'Valves and pistons'],
  Table: ['Table, drawing up', 'Table of all figures'],
  Strands: ['Table, drawing up', 'Strands and slots'],
  'Draw up': ['Table, drawing up', 'Drawing up'],
} as const;
export type PanelName = keyof typeof PANELS;

/** A JSON file as a user would choose it. */
export const jsonFile = (name: string, content: string) => ({
  name,
  mimeType: 'application/json',
  buffer: Buffer.from(content),
});

/** The desk as a person uses it, so that tests read as sentences. */
export class Desk {
  constructor(readonly page: Page) {}

  async open(path = '/'): Promise<void> {
    await this.page.goto(path);
    await expect(this.page.getByRole('navigation', { name: 'Rack of cases' })).toBeVisible();
  }

  async newCase(): Promise<void> {
    await this.page.getByRole('button', { name: 'New case' }).first().click();
    await expect(this.page.getByRole('heading', { name: 'Who and which engine' })).toBeVisible();
  }

  async go(station: string): Promise<void> {
    await this.page
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('link', { name: station })
      .click();
  }

  /** Types a value into a field and files it with Enter. */
  async type(name: string, text: string): Promise<void> {
    const box = this.page
      .getByLabel(name, { exact: false })
      .and(this.page.locator('main input.ant-input, main textarea'));
    await box.first().fill(text);
    await box.first().press((await this.isLong(box.first())) ? 'Control+Enter' : 'Enter');
  }

  async choose(name: string, option: string): Promise<void> {
    await this.tile(name, option).click();
    await expect(this.tile(name, option)).toHaveAttribute('aria-selected', 'true');
  }

  tile(name: string, option: string): Locator {
    return this.page
      .getByRole('listbox', { name, exact: true })
      .getByRole('option', { name: option, exact: true });
  }

  /** Picks from a list of the library, typing what it is searched by. */
  async pick(label: string, option: string, typed = ''): Promise<void> {
    const box = this.page.getByLabel(label, { exact: true });
    await this.page.locator('nz-select').filter({ has: box }).click();
    if (typed) await box.fill(typed);
    await this.page.locator('nz-option-item').filter({ hasText: option }).first().click();
  }

  /** Opens a panel of the drive bench: its part, then itself where it is folded. */
  async panel(name: keyof typeof PANELS): Promise<void> {
    const [part, head] = PANELS[name];
    await this.page.getByRole('tab', { name: part }).click();
    const header = this.page.getByRole('button', { name: head, exact: true });
    await expect(header).toBeVisible();
    if ((await header.getAttribute('aria-expanded')) !== 'true') await header.click();
  }

  /** Files through the fact line. */
  async line(text: string): Promise<void> {
    const box = this.page.getByLabel('Fact line');
    await box.fill(text);
    await expect(this.page.locator('#fact-line-says')).toContainText('Enter files');
    await box.press('Enter');
    await expect(box).toHaveValue('');
  }

  /** Has the inspections of the thing in hand stand as a list beside it. */
  async list(): Promise<void> {
    const turn = this.page.getByRole('button', { name: /inspections? as a list$/, pressed: false });
    const list = this.page.locator('hs-inspection-list');
    await expect(turn.or(list).first()).toBeVisible();
    if (await turn.isVisible()) await turn.click();
    await expect(list).toBeVisible();
  }

  /** Takes a thing on the bench in hand, and one look at it. */
  async look(thing: string, look: string): Promise<void> {
    await this.page.getByRole('tab', { name: new RegExp(`^${thing}`) }).click();
    await this.list();
    await this.page
      .locator('hs-inspection-list')
      .getByRole('button', { name: new RegExp(`^${look}`) })
      .click();
  }

  /** Opens a box of the demo's earlier months at the bench, once they have come. */
  async box(tag: string): Promise<void> {
    const rack = this.page.getByRole('navigation', { name: 'Rack of cases' });
    await rack.getByLabel('Filter cases by any fact').fill(`C-${tag}0`);
    await rack.getByRole('link', { name: new RegExp(`^${tag}`) }).click();
    await expect(this.page).toHaveURL(new RegExp(`-${tag}/`));
    await expect(this.page.getByRole('heading', { level: 1 })).toContainText(tag);
    await this.go('Examine');
  }

  tape(): Locator {
    return this.page.getByRole('list', { name: 'Facts, newest first' });
  }

  /** Chooses which paper of the case is made. */
  async paper(name: 'Workshop' | 'Customer' | 'Full'): Promise<void> {
    await this.page.getByRole('group', { name: 'Paper' }).getByText(name, { exact: true }).click();
  }

  async download(press: () => Promise<void>): Promise<{ name: string; path: string }> {
    const waiting = this.page.waitForEvent('download');
    await press();
    const file = await waiting;
    return { name: file.suggestedFilename(), path: await file.path() };
  }

  /** Gives the desk a file as the user would through "Open file". */
  async openFile(file: { name: string; mimeType: string; buffer: Buffer }): Promise<void> {
    await this.page.getByLabel('Case file', { exact: true }).setInputFiles(file);
  }

  private async isLong(box: Locator): Promise<boolean> {
    return (await box.evaluate((e) => e.tagName)) === 'TEXTAREA';
  }
}
