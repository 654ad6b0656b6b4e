import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { boxCapture, type BoxDialect, type BoxFault } from '../core/simulate/capture-box';
import { Desk } from './desk';

const file = (fault: BoxFault, dialect: BoxDialect, seed: number) => ({
  name: `${fault}.csv`,
  mimeType: 'text/csv',
  buffer: Buffer.from(boxCapture({ engine: 'QU13-STOA', fault, dialect, seed, zCrank: 20 })),
});

test('captures lead to one link late, to in tolerance and to a fraction, with the arithmetic, and weigh in Cause', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2036/examine');
  await page.getByRole('link', { name: 'A capture of crank and cam' }).click();
  const mine = page.getByLabel('The engine in question, capture file', { exact: true });
  const good = page.getByLabel('Known good, or another time, capture file', { exact: true });
  await good.setInputFiles(file('good', 'point', 5));
  const answer = page.getByRole('region', { name: /^What .* says$/ });
  await mine.setInputFiles(file('one_late', 'comma', 6));
  await expect(answer).toContainText('One link late at the crank');
  await expect(answer.getByRole('listitem')).toHaveCount(5);
  await expect(page.locator('hs-capture-chart canvas')).toBeVisible();
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations.map((v) => v.id)).toEqual([]);
  await page.getByRole('button', { name: 'File it with the capture' }).click();
  await expect(desk.tape()).toContainText('Cam against crank, by a capture');
  await desk.go('Cause');
  await expect(page.getByText(/Cam against crank by a capture/).first()).toBeVisible();
  await page.goBack();

  await mine.setInputFiles(file('good', 'tab', 7));
  await good.setInputFiles(file('good', 'point', 5));
  await expect(answer).toContainText('In tolerance');
  await mine.setInputFiles(file('worn', 'bare', 8));
  await expect(answer).toContainText('A fraction of a link');
  await mine.setInputFiles(file('phaser', 'bare', 9));
  await expect(answer).toContainText('as a phaser does');
  await expect(page.getByRole('button', { name: 'File it with the capture' })).toHaveCount(0);
  // bad input: its sentence, and the other capture stays
  await mine.setInputFiles({ name: 'note.csv', mimeType: 'text/csv', buffer: Buffer.from('not a capture') });
  await expect(page.getByRole('alert')).toContainText('note.csv, line 1');
  await expect(page.getByText('good.csv', { exact: true })).toBeVisible();
});

test('the simulated box answers without a case, for the teeth that are typed', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/trace');
  await page.getByRole('textbox', { name: 'Teeth at the crank' }).fill('24');
  await page.getByRole('textbox', { name: 'Teeth at the cam' }).fill('48');
  await page.getByRole('textbox', { name: 'Teeth at the cam' }).blur();
  for (const name of ['The engine in question', 'Known good, or another time'])
    await page.getByRole('region', { name }).getByRole('button', { name: 'From the simulated box' }).click();
  await expect(page.getByRole('region', { name: 'What Cam says' })).toContainText(
    'One tooth late at the crank',
  );
  const csv = await desk.download(() => page.getByRole('button', { name: 'Edges as a table' }).click());
  expect(csv.name).toBe('cam-edges.csv');
});
