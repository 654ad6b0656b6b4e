import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { type BoxAsk, boxCapture, type BoxDialect, type BoxFault } from '../core/simulate/capture-box';
import { knownGood } from '../core/trace/drive-teeth';
import { readWheel } from '../core/trace/wheel';
import type { Pack } from '../core/catalogue/pack';
import { Desk } from './desk';

const ENGINE = 'QU13-STOA';
/** Slots of the engine's crank wheel, as the catalogue has it. */
const teeth = () => {
  const { pack } = JSON.parse(readFileSync('demo/demo.json', 'utf8')) as { pack: Pack };
  const layout = pack.variants.find((v) => v.engine === ENGINE)!.layout;
  const good = knownGood(
    pack.layouts.filter((l) => l.id === layout),
    1,
  );
  const wheel = good.ok && good.value ? readWheel(good.value.wheel) : undefined;
  if (!wheel?.ok) throw new Error('the engine names no wheel');
  return wheel.value.teeth;
};
const file = (fault: BoxFault, dialect: BoxDialect, seed: number, more: Partial<BoxAsk> = {}) => ({
  name: `${fault}.csv`,
  mimeType: 'text/csv',
  buffer: Buffer.from(
    boxCapture({ engine: ENGINE, fault, dialect, seed, zCrank: 20, teeth: teeth(), ...more }),
  ),
});
const capture = (page: Page, of: string) => page.getByLabel(`${of}, capture file`, { exact: true });
const [MINE, GOOD, BEFORE] = ['The engine in question', 'A good engine', 'This engine before the repair'];
const hold = (page: Page, against: string) =>
  page.getByRole('group', { name: 'What the capture is held against' }).getByText(against).click();

test('captures lead to one link late, to in tolerance and to a fraction, with the arithmetic, and weigh in Cause', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/examine');
  await page.getByRole('link', { name: 'A capture of crank and cam' }).click();
  await hold(page, GOOD);
  const [mine, good] = [capture(page, MINE), capture(page, GOOD)];
  await good.setInputFiles(file('good', 'point', 5));
  const answer = page.getByRole('region', { name: /^What .* says$/ });
  await mine.setInputFiles(file('one_late', 'comma', 6));
  await expect(answer).toContainText('One link late at the crank');
  await expect(answer.getByRole('listitem')).toHaveCount(5);
  await expect(page.locator('hs-capture-chart canvas')).toBeVisible();
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual([]);
  await page.getByRole('button', { name: 'File it as it came, with the capture' }).click();
  await expect(desk.tape()).toContainText('Cam against crank, by a capture');
  await desk.go('Cause');
  await expect(page.getByText(/Cam against crank by a capture/).first()).toBeVisible();
  await page.goBack();

  // the capture lies with the case now, and is read again from there, against what the catalogue names
  await hold(page, 'What the catalogue names');
  await page.getByRole('button', { name: 'one_late.csv', exact: true }).click();
  await expect(answer).toContainText('One link late at the crank');
  await mine.setInputFiles(file('good', 'tab', 7));
  await expect(answer).toContainText('In tolerance');
  await hold(page, GOOD);
  await good.setInputFiles(file('good', 'point', 5));
  await mine.setInputFiles(file('worn', 'bare', 8));
  await expect(answer).toContainText('A fraction of a link');
  await mine.setInputFiles(file('phaser', 'bare', 9));
  await expect(answer).toContainText('as a phaser does');
  await expect(page.getByRole('button', { name: 'File it as it came, with the capture' })).toHaveCount(0);
  // bad input: its sentence, and the other capture stays
  await mine.setInputFiles({ name: 'note.csv', mimeType: 'text/csv', buffer: Buffer.from('not a capture') });
  await expect(page.getByRole('alert')).toContainText('note.csv, line 1');
  await expect(page.getByText('good.csv', { exact: true })).toBeVisible();
});

test('a capture that lies with a box is answered by the catalogue alone: each cam, all together, and its picture by keys', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/');
  await desk.box('1947');
  await page.getByRole('link', { name: 'A capture of crank and cam' }).click();
  await page.getByRole('button', { name: 'OL15 no start.zip', exact: true }).click();
  await expect(page.getByText('All cams are one link late')).toBeVisible();
  await expect(page.getByRole('region', { name: /^What .* says$/ })).toHaveCount(2);

  const cursor = page.getByRole('slider', { name: /Cursor over one cycle/ });
  await cursor.focus();
  for (const key of ['Home', 'n', 'm', 'n']) await page.keyboard.press(key);
  await expect(cursor).toHaveAttribute('aria-valuetext', /behind the mark: [\d.]+ links at the crank/);
  const at = Number(await cursor.getAttribute('aria-valuenow'));
  for (const key of ['+', '+', 'ArrowRight']) await page.keyboard.press(key);
  expect(Number(await cursor.getAttribute('aria-valuenow'))).toBeCloseTo(at + 0.5, 6);
  const svg = await desk.download(() => page.getByRole('button', { name: 'Drawing' }).click());
  expect(svg.name).toBe('capture.svg');
  expect(readFileSync(svg.path, 'utf8')).toContain('<svg');
  const csv = await desk.download(() => page.getByRole('button', { name: 'Edges as a table' }).click());
  // both cams, ten edges each, under one heading
  expect(readFileSync(csv.path, 'utf8').trim().split(/\r?\n/).length).toBe(21);
  await page.getByText('The whole recording').click();
  await expect(page.getByRole('slider', { name: 'Cursor over the recording' })).toBeVisible();

  // said instead of guessed: crank and cam swapped is told by name, and taken back
  await page.getByRole('button', { name: 'Change what was guessed' }).click();
  await desk.pick('Crank', 'Exhaust cam');
  await expect(page.getByRole('alert')).toContainText('swapped');
  await page.getByRole('button', { name: 'Find crank and cam by itself' }).click();
  await expect(page.getByText('All cams are one link late')).toBeVisible();
});

test('before and after a repair: what it moved, and what each says against the catalogue', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/trace');
  await hold(page, BEFORE);
  await capture(page, MINE).setInputFiles(file('good', 'tab', 3));
  await capture(page, BEFORE).setInputFiles(file('two_late', 'comma', 4));
  const answer = page.getByRole('region', { name: /^What .* says$/ });
  await expect(answer).toContainText(/The repair moved it 3[56]\.\d\d°/);
  await expect(answer).toContainText('2 links earlier at the crank');
  await expect(answer.getByText(/^Before the repair: 2 links late/)).toBeVisible();
  await expect(answer.getByText(/^Now: In tolerance/)).toBeVisible();

  // both are kept: the fault stays named in Cause, and the repair is proved beside it
  await page.getByRole('button', { name: 'File both, before and after' }).click();
  await expect(desk.tape()).toContainText('Cam against crank after the repair');
  const filed = page.getByRole('region', { name: 'What is filed' });
  await expect(filed).toContainText(/As it came: 2 links late/);
  await expect(filed).toContainText(/After the repair: In tolerance/);
  await desk.go('Cause');
  await expect(page.getByText(/Cam against crank by a capture/).first()).toBeVisible();
});

test('a second of cranking is answered, with the crank’s wires swapped too, and an offset that was told without any capture', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/trace');
  const answer = page.getByRole('region', { name: /^What .* says$/ });
  // two turns and a half of the crank: what the screen of a small oscilloscope holds
  await capture(page, MINE).setInputFiles(file('one_late', 'comma', 21, { cycles: 1.3 }));
  await expect(answer).toContainText('One link late at the crank');
  await capture(page, MINE).setInputFiles(file('good', 'comma', 22, { cycles: 1.3, crankSwapped: true }));
  await expect(answer).toContainText('In tolerance');
  await capture(page, MINE).setInputFiles(file('good', 'comma', 23, { cycles: 0.5 }));
  await expect(page.getByText(/less than one whole cycle/)).toBeVisible();

  const told = page.getByRole('textbox', { name: 'Told without a capture' });
  await told.fill('1.8 teeth late');
  const card = page.getByRole('region', { name: 'Told without a capture' });
  await expect(card).toContainText('One link late at the crank');
  await told.fill('1.8 teeth of the 60 wheel late');
  await expect(card).toContainText('ask which wheel was counted');
  await told.fill('16 degrees crank');
  await expect(card).toContainText('Late or early?');
  await told.fill('18 degrees crank late');
  await card.getByRole('button', { name: 'File it as told' }).click();
  await expect(page.getByRole('region', { name: 'What is filed' })).toContainText(
    'One link late at the crank',
  );
});

test('a message that tells teeth of the sensor’s wheel is answered without a file', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open();
  const box = page.getByLabel('What came in?');
  await box.fill('QU13-STOA. Cam was checked on the scope: 1.8 teeth of the 36 wheel late.');
  await box.press('Enter');
  await expect(page.getByRole('group', { name: 'Understood' })).toContainText('Cam against crank');
  await page.keyboard.press('Enter');
  await expect(desk.tape()).toContainText('Cam against crank, by a capture');
  await desk.go('Examine');
  await page.getByRole('link', { name: 'A capture of crank and cam' }).click();
  await expect(page.getByRole('region', { name: 'What is filed' })).toContainText(
    'One link late at the crank',
  );
});

test('the simulated box answers without a case, for the teeth that are typed', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/trace');
  await page.getByRole('textbox', { name: 'Teeth at the crank' }).fill('24');
  await page.getByRole('textbox', { name: 'Teeth at the cam' }).fill('48');
  await page.getByRole('textbox', { name: 'Teeth at the cam' }).blur();
  for (const name of [MINE, GOOD])
    await page.getByRole('region', { name }).getByRole('button', { name: 'From the simulated box' }).click();
  await expect(page.getByRole('region', { name: 'What Cam says' })).toContainText(
    'One tooth late at the crank',
  );
  const csv = await desk.download(() => page.getByRole('button', { name: 'Edges as a table' }).click());
  expect(csv.name).toBe('cam-edges.csv');
});
