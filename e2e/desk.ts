import { expect, type Locator, type Page } from '@playwright/test';

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

  field(name: string): Locator {
    return this.page.locator('main hs-fact-field').filter({ hasText: name });
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
    await this.page.getByRole('group', { name, exact: true }).getByLabel(option, { exact: true }).check();
  }

  /** Files through the fact line. */
  async line(text: string): Promise<void> {
    const box = this.page.getByLabel('Fact line');
    await box.fill(text);
    await expect(this.page.locator('#fact-line-says')).toContainText('Enter files');
    await box.press('Enter');
    await expect(box).toHaveValue('');
  }

  tape(): Locator {
    return this.page.getByRole('list', { name: 'Facts, newest first' });
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
