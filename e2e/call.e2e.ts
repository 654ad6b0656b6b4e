import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { Desk, jsonFile } from './desk';
import { pdfText } from './pdf-text';

/** Presses and typings of a person: a text typed or pasted is one, however long. */
class Hand {
  actions = 0;
  constructor(private readonly page: Page) {}

  async press(key: string): Promise<void> {
    this.actions++;
    await this.page.keyboard.press(key);
  }

  /** Types as a hand does: no device is as slow. */
  async type(text: string): Promise<void> {
    this.actions++;
    await this.page.keyboard.type(text, { delay: 30 });
  }
}

/** Keys as a device sends them: one on the heels of the other, Enter behind. */
const scan = (page: Page, text: string) => Promise.all([...text, 'Enter'].map((k) => page.keyboard.press(k)));

const answer = (page: Page) => page.getByRole('region', { name: 'To read out' });
const understood = (page: Page) => page.getByRole('group', { name: 'Understood' });

test('a wrong kit: from a message to an answer that was told, by keyboard', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open();
  const hand = new Hand(page);
  await page.getByLabel('What came in?').focus();
  await hand.type('Does MF-K302A-1 fit? BR19-SHAW. The shop sent it. We took a bolt out: M10 thread.');
  await hand.press('Enter');
  await expect(understood(page)).toBeFocused();
  await hand.press('Enter');
  await expect(answer(page)).toContainText('No, MF-K302A-1 does not fit; it takes MF-K302B-1');
  await page.locator('main').focus();
  await hand.press('t');
  await expect(page.getByText('Told them (read out)')).toBeVisible();
  await expect(desk.tape()).toContainText('Told them');
  expect(hand.actions).toBeLessThanOrEqual(6);
  // it stands in the report, word for word
  await page.keyboard.press('6');
  const pdf = await desk.download(() => page.getByRole('button', { name: 'Draft PDF' }).click());
  const text = pdfText(pdf.path);
  expect(text).toContain('What we told them');
  expect(text).toContain('MF-K302A-1 does not fit');
});

test('an answer leaves as page, message file and text, a promise as a calendar entry, each of it once told', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const desk = new Desk(page);
  await desk.open('/case/demo-2041/call');
  await desk.line('asked how is it set; cover screws five');
  await expect(answer(page)).toContainText('Key');
  await page.locator('main').focus();
  const pdf = await desk.download(() => page.keyboard.press('p'));
  expect(pdf.name).toBe('answer-2041.pdf');
  expect(pdfText(pdf.path)).toContain('How is it set');
  const eml = await desk.download(() => page.keyboard.press('e'));
  expect(eml.name).toBe('answer-2041.eml');
  expect(readFileSync(eml.path, 'utf8')).toContain('drawing-2041.svg');
  await page.keyboard.press('y');
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toContain('How is it set?');
  await expect(desk.tape().getByText('Told them')).toHaveCount(3);
  await desk.line('callback 31.12.2026');
  const ics = await desk.download(() => page.getByRole('button', { name: 'Calendar entry' }).click());
  expect(readFileSync(ics.path, 'utf8')).toContain('20261231');
});

test('half a tooth: go or no go on an opposed engine takes at most eight actions', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open();
  const hand = new Hand(page);
  await page.locator('body').focus();
  await hand.press('n');
  await expect(page.getByRole('textbox', { name: 'What was said' })).toBeFocused();
  await hand.type(
    'OL25-FLET, manual box, new belt. Upper right half a tooth ahead, lower right in line, left side in line both. Go or no go?',
  );
  await hand.press('Enter');
  await expect(understood(page)).toBeFocused();
  await hand.press('Enter');
  // every mark is told and as predicted; the turns by hand are still to be asked
  await expect(answer(page)).toContainText('Go: all 4 marks stand as they must');
  await expect(answer(page)).toContainText('turned by hand 2 turns');
  await expect(page.getByRole('textbox', { name: 'Turned by hand before the check' })).toBeFocused();
  await hand.type('2');
  await hand.press('Enter');
  await expect(answer(page)).not.toContainText('turned by hand 2 turns');
  await expect(page.getByRole('region', { name: 'Still to ask' })).toHaveCount(0);
  expect(hand.actions).toBeLessThanOrEqual(8);
  await expect(page.getByRole('img', { name: 'Right upper cam' })).toBeVisible();
});

test('which kit with one feature asked takes at most ten actions from the start', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open();
  const hand = new Hand(page);
  await page.getByLabel('What came in?').focus();
  await hand.type('Tessarine Orchardman built May 2019, belt is due tomorrow. Which kit do I order?');
  await hand.press('Enter');
  await expect(understood(page)).toBeFocused();
  await hand.press('Enter');
  await expect(answer(page)).toContainText('if it is the first design');
  // the sentence to ask, and the place for its answer has the keys
  await expect(page.getByText('“Please count the screws')).toBeVisible();
  await expect(page.getByRole('listbox', { name: 'Screws of the upper cover' })).toBeFocused();
  await hand.press('s');
  await expect(answer(page)).toContainText('It takes MF-K123-1');
  expect(hand.actions).toBeLessThanOrEqual(10);
});

test('a returned box reaches its station, and a label and a caliper find their fields', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open();
  const hand = new Hand(page);
  await page.getByLabel('What came in?').focus();
  await hand.type(
    'Claim C-20470. Box: tensioner, belt, guide roller. Engine TE16-CORM, 88 150 km, fitted 28.8.2026 at 77 650 km. The front edge is frayed. It stopped on the pass.',
  );
  await hand.press('Enter');
  await expect(understood(page)).toBeFocused();
  await hand.press('Enter');
  await expect(page.getByRole('heading', { name: 'Now, and the kit' })).toBeVisible();
  // a scanner, wherever the focus is: here in the box of the caller, which keeps what it had
  await expect(
    page.getByRole('combobox', { name: 'Caller' }).or(page.getByRole('textbox', { name: 'Caller' })),
  ).toBeFocused();
  await scan(page, 'MF-K121-1|L2507');
  await expect(page.getByLabel('Kit', { exact: true })).toHaveValue('MF-K121-1');
  await expect(page.getByRole('textbox', { name: 'Lot on the box' })).toHaveValue('L2507');
  await expect(page.locator('#field-call-who')).toHaveValue('');
  await page.locator('main').focus();
  await hand.press('4');
  await expect(page.getByRole('tab', { name: /^Tensioner/ })).toBeVisible();
  // a caliper goes to the figure that waits
  await desk.look('Belt', 'Belt width');
  await page.getByRole('textbox', { name: 'Belt width' }).focus();
  await page.keyboard.press('Escape');
  await page.locator('main').focus();
  await scan(page, '21.85');
  await expect(desk.tape()).toContainText('Belt width');
  await expect(desk.tape()).toContainText('21.85');
  await page.locator('main').focus();
  await page.keyboard.press('1');
  await expect(page).toHaveURL(/call$/);
});

test('what cannot be read is said, and nothing is filed or lost', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open();
  const box = page.getByLabel('What came in?');
  const long = 'the belt is frayed and '.repeat(9000);
  await box.fill(long);
  await box.press('Enter');
  // more than one message can be is looked through, and begins no case
  await expect(page).toHaveURL(/mail$/);
  await expect(page.getByRole('list', { name: /^Messages/ }).getByRole('listitem')).toHaveCount(1);
  await expect(page.getByRole('button', { name: /as a case$/ })).toHaveCount(0);
  await desk.open();
  await box.fill('Kit\tDistance now\tSymptom\nMF-K121-1\t5 000 km\tLeak\nMF-K123-1\t6 000 km\tLeak');
  await box.press('Enter');
  await expect(page.getByRole('list', { name: /^Messages/ }).getByRole('listitem')).toHaveCount(2);
  await desk.open();
  await page
    .getByLabel('What came in, as files')
    .setInputFiles({ name: 'thing.bin', mimeType: '', buffer: Buffer.from([0, 1, 2]) });
  await expect(page.getByText('is of no kind that is read here')).toBeVisible();
  // a case file goes where it always went
  const file = JSON.parse(readFileSync('core/facts/fixtures/edition-1.json', 'utf8')) as object;
  await page.getByLabel('What came in, as files').setInputFiles(jsonFile('old.json', JSON.stringify(file)));
  await expect(page).toHaveURL(/\/case\//);
  // another language: only codes are taken
  await page.goto('/');
  await box.fill(
    'Buenos tardes, necesito la correa para TE16-CORM porque manana tengo que entregar el camion al cliente.',
  );
  await box.press('Enter');
  await expect(page.getByText('The language of these words is not read here')).toBeVisible();
  await expect(understood(page).getByRole('checkbox')).toHaveCount(1);
});

test('an engine’s page is reached from a case and left by one key', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2041/identify');
  await page.getByRole('link', { name: 'MF-K123-1' }).click();
  await expect(page.getByRole('heading', { name: /^TE16-CORM Tessarine/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Designs' }).getByRole('img')).toHaveCount(2);
  await expect(page.locator('.kit.lit')).toContainText('MF-K123-1');
  await page.keyboard.press('Backspace');
  await expect(page).toHaveURL(/identify$/);
});
