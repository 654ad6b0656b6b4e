import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { Desk } from './desk';

const understood = (page: Page) => page.getByRole('group', { name: 'Understood' });
const answer = (page: Page) => page.getByRole('region', { name: 'To read out' });
const row = (page: Page, words: string) => understood(page).getByRole('checkbox', { name: words });

/** Says a message into a new case, as one who pastes it. */
async function say(desk: Desk, text: string): Promise<void> {
  await desk.page.getByLabel('What came in?').focus();
  await desk.page.keyboard.insertText(text);
  await desk.page.keyboard.press('Enter');
  await expect(understood(desk.page)).toBeVisible();
}

test('a mail with quoted mail and two vehicles becomes two cases, each with its own', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open();
  await say(
    desk,
    'Good morning,\n\nbus 3: Causeway, 88 400 km on the clock, squeals in the wet. bus 9: Furrow Bus, plate K, P0017 stored.\nWhen is the belt due?\n\nKind regards,\nWystan Merrow\n\n> On 3 May you wrote:\n> a pointer at 150 degrees means that the spring is at its end.\n',
  );
  await expect(page.getByText('This message tells of 2: bus 3 and bus 9.')).toBeVisible();
  await expect(row(page, 'Distance now')).toBeVisible();
  await expect(row(page, 'Fault codes')).toHaveCount(0);
  await expect(row(page, 'Pointer')).toHaveCount(0);
  await page.getByRole('button', { name: 'Open the other as a case' }).click();
  await expect(page.getByText('1 case opened')).toBeVisible();
  await understood(page).focus();
  await page.keyboard.press('Enter');
  // what is still to be asked has the eye and the hand
  await expect(page.getByRole('region', { name: 'Still to ask' }).locator(':focus')).toHaveCount(1);
  await page.getByRole('link', { name: 'QU16-WHIN' }).first().click();
  await expect(page.getByText('This case is bus 9')).toBeVisible();
  await expect(desk.tape()).toContainText('P0017');
});

test('a speech-to-text note is read without a mark in it, and a correction takes what was put right', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open();
  await say(
    desk,
    'okay so this is dag from mire street garage um ive got the orchard man truck in with the uh seven no hang on five five screws round the top cover and the pointer is on one hundred and twelve degrees and the edge at the front is frayed the rear one is straight um so do i change the tension er or just set it again thanks',
  );
  await expect(row(page, 'Screws of the upper cover: Five')).toBeChecked();
  await expect(row(page, 'Pointer, as found: 112')).toBeChecked();
  await expect(row(page, 'Belt edge, front: Frayed')).toBeChecked();
  await expect(row(page, 'Belt edge, rear: Straight')).toBeChecked();
  await expect(row(page, 'They want to know')).toBeChecked();
  await desk.open();
  await say(
    desk,
    'TE16-CORM. The odometer read 143,862 km this morning.\nP.S. I misread the dial without my glasses: it is 134,862 and not what I wrote.',
  );
  await expect(row(page, 'Distance now')).toHaveCount(1);
  await expect(row(page, 'Distance now: 134')).toBeVisible();
});

test('a message that would unlock “go” does not', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open();
  await say(
    desk,
    'OL25-FLET automatic. The plunger was pressed in 6 turns. If all four marks are in line, can I start it? Upper right looks half a tooth ahead, the others I have not looked at.',
  );
  await expect(row(page, 'Turned by hand')).toHaveCount(0);
  await expect(row(page, 'Mark offset, right upper')).toBeChecked();
  await page.keyboard.press('Enter');
  // the gearbox’s own drive shows that half tooth; what was only supposed of the others is not taken for seen
  await expect(answer(page)).toContainText('1 of 4 marks looked at');
  await expect(page.getByText('turned by hand 2 turns')).toBeVisible();
});

test('a word is taught to the house: tried on all messages, taken, and read in the next one', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open();
  await say(desk, 'TE16-CORM. One side of the belt is like a bottle brush.');
  await page.getByRole('link', { name: 'Teach a word' }).click();
  const teach = page.getByRole('region', { name: 'Teach a word' });
  await teach.getByLabel('Phrase').fill('like a bottle brush');
  await desk.pick('says of', 'Belt edge, front', 'Belt edge, front');
  await desk.pick('that it is', 'Frayed');
  await expect(teach.getByRole('button', { name: 'Take it' })).toBeDisabled();
  await teach.getByRole('button', { name: 'Try it on all messages' }).click();
  await expect(teach.getByRole('status')).toContainText(/It would change 1 of \d+ messages/);
  await teach.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('region', { name: 'Words taught here' })).toContainText('like a bottle brush');
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
  await desk.open();
  await say(desk, 'OL25-FLET. The edge is like a bottle brush now.');
  await expect(row(page, 'Belt edge, front: Frayed')).toBeVisible();
});

test('many mails are looked through first, opened one by one and together, and known again', async ({
  page,
}) => {
  const mail = (n: number, words: string) =>
    `From: Writer ${n} <w${n}@mire.example>\nSent: ${n} November 2026 09:14\nSubject: Question ${n}\n\n${words}\n`;
  const box = [
    mail(3, 'TE16-CORM, seven screws. Which kit?'),
    mail(4, 'OL25-FLET rattles when it is cold. Fitted yesterday.'),
    mail(5, 'bus 3: Causeway, squeals. bus 9: Furrow Bus, P0017 stored.'),
  ].join('\n');
  const desk = new Desk(page);
  await desk.open();
  await page.getByLabel('What came in?').focus();
  await page.keyboard.insertText(box);
  await page.keyboard.press('Enter');
  const list = page.getByRole('list', { name: /^Messages/ });
  await expect(list.getByRole('listitem')).toHaveCount(3);
  await expect(list.getByRole('listitem').nth(2)).toContainText('2 vehicles or claims');
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual([]);
  await page.getByRole('button', { name: 'Open Question 4 as a case' }).click();
  // what the mail calls yesterday is the day before it was sent
  await expect(row(page, 'Fitted on')).toContainText('03.11.2026');
  await expect(row(page, 'Caller')).toContainText('Writer 4');
  await page.goBack();
  await page.getByRole('checkbox', { name: 'Choose all that are not here' }).check();
  await page.getByRole('button', { name: 'Open 2 cases' }).click();
  await expect(page.getByText('2 cases opened')).toBeVisible();
  await page.reload();
  await page
    .getByLabel('File of messages')
    .setInputFiles({ name: 'week.txt', mimeType: 'text/plain', buffer: Buffer.from(box) });
  await expect(page.getByText('week.txt: 3 messages, 3 of them here already')).toBeVisible();
});
