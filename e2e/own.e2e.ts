import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import writeWorkbook from 'write-excel-file/node';
import { Desk } from './desk';
import { drivePicture, ownStep, ownTruth, pickOwnDrive, pressOn } from './own-drive';

const axe = async (page: Page, where: string) => {
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((v) => `${where}: ${v.id} ${v.nodes[0]?.target.join(' ') ?? ''}`)).toEqual([]);
};

test('an engine is entered from a photograph: a miscounted belt is found, the loop closes, and the next call finds its kit', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const desk = new Desk(page);
  await desk.open('/catalogue');
  await page.getByRole('link', { name: 'Or engine by engine' }).click();
  await axe(page, 'engine');
  await ownStep(page, 'Check');
  const todo = page.getByRole('list', { name: 'Still to do' });
  await expect(todo).toContainText('Engine: Still missing: the engine’s code.');
  await expect(todo).toContainText('Kit: Still missing: at least one part.');

  await ownStep(page, 'Drive');
  await page.getByRole('button', { name: 'Try it on an invented engine' }).click();
  await expect(drivePicture(page)).toBeVisible();
  const verdict = page.getByRole('region', { name: 'Does the loop close?' });
  await pickOwnDrive(page);
  const wheels = page.locator('hs-wheel-list');
  await axe(page, 'drive');

  // a belt counted wrongly: what it really has is the first that would explain it
  const teeth = page.getByLabel('Teeth', { exact: true });
  await teeth.fill(String(ownTruth.photo.count + 2));
  await teeth.press('Tab');
  await expect(verdict).toContainText('The loop does not close');
  await expect(verdict.getByRole('listitem').first()).toContainText(
    `The belt has ${ownTruth.photo.count} teeth`,
  );
  await ownStep(page, 'Check');
  await expect(todo).toContainText('its loop does not close yet');
  await ownStep(page, 'Drive');

  // nothing is lost when the window goes
  await page.reload();
  await ownStep(page, 'Drive');
  await verdict.getByRole('listitem').first().getByRole('button').click();
  await expect(verdict).toContainText('The loop closes');
  await expect(teeth).toHaveValue(String(ownTruth.photo.count));

  // the cross does what the pointer does
  await drivePicture(page).focus();
  await expect(page.getByText('Crank sprocket: 4 spots', { exact: false })).toHaveCount(0);
  await wheels.getByRole('button', { name: '1 Crank sprocket' }).click();
  await drivePicture(page).focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Crank sprocket: 5 spots', { exact: false })).toBeVisible();
  await expect(verdict).toContainText('Spot 5 of Crank sprocket does not lie on the circle of the others.');
  await page.keyboard.press('Backspace');
  await expect(verdict).toContainText('The loop closes');

  await ownStep(page, 'Check');
  await expect(page.getByRole('heading', { name: `${ownTruth.form.code} answers` })).toBeVisible();
  await expect(page.getByRole('img', { name: `Drive of ${ownTruth.form.code}` })).toBeVisible();
  await axe(page, 'check');
  await page.getByRole('button', { name: 'Check it and show what changes' }).click();
  await expect(page.getByRole('row', { name: /^Drives/ })).toContainText(/46\s*1\s*0\s*0/);
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(ownTruth.form.code);
  await page.getByRole('button', { name: 'New case for it' }).click();
  await desk.go('Identify');
  await expect(page.getByRole('row', { name: new RegExp(ownTruth.form.kit.number) })).toContainText('✓ Fits');
  await page.goto('/catalogue/own');
  await expect(page.getByLabel('Engine code')).toHaveValue('');
  // the invented drive overwrites nothing that was typed, and a drive begun anew can be had back
  await page.getByLabel('Engine code').fill('ZX-9');
  await ownStep(page, 'Drive');
  await page.getByRole('button', { name: 'Try it on an invented engine' }).click();
  await pressOn(page, ownTruth.photo.marks[0]!);
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await expect(drivePicture(page)).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Press corner 2 of the rectangle')).toBeVisible();
  await ownStep(page, 'Engine');
  await expect(page.getByLabel('Engine code')).toHaveValue('ZX-9');
});

test('a row is corrected: a wrong cell is refused, the correction outlives the window, and comes in as the next version', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/catalogue');
  await page.getByRole('group', { name: 'Shown as' }).getByText('Tables').click();
  await page.getByRole('group', { name: 'Tables' }).getByText('Kits').click();
  await page.getByRole('row', { name: /^MF-K121-1 / }).click();
  const dialog = page.getByRole('dialog', { name: 'Kits: MF-K121-1' });
  const months = dialog.getByLabel('Terms, months');
  const before = await months.inputValue();
  await months.fill('soon');
  await expect(dialog.getByText('“soon” is not a number.')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Keep the correction' })).toBeDisabled();
  await axe(page, 'row');
  await months.fill('48');
  await dialog.getByRole('button', { name: 'Keep the correction' }).click();
  const card = page.getByRole('region', { name: 'Corrections' });
  await expect(card).toContainText(`"months":${before}`);
  await page.reload();
  await expect(card).toContainText('"months":48');
  // put back as it was it is no correction
  await card.getByRole('button', { name: 'Take back MF-K121-1' }).click();
  await expect(card).toHaveCount(0);
  await page.getByRole('group', { name: 'Shown as' }).getByText('Tables').click();
  await page.getByRole('button', { name: 'New row' }).click();
  const fresh = page.getByRole('dialog', { name: 'Engines: a new row' });
  await fresh.getByLabel('Code').fill('PQ77-ROOK');
  await fresh.getByLabel('Maker').fill('Rookhope');
  await fresh.getByLabel('Family').fill('Petrol');
  await desk.pick('Interference', 'unknown');
  await fresh.getByRole('button', { name: 'Keep the correction' }).click();
  await card.getByRole('button', { name: 'Check as version 2026.3.1' }).click();
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText('Marrowfen 2026.3.1 is here.')).toBeVisible();
  await expect(card).toHaveCount(0);
  await page.getByLabel('Find by engine').fill('pq77');
  await expect(page.getByRole('button', { name: /PQ77-ROOK/ })).toBeVisible();
});

test('a workbook with names of its own is read once they are said, and never asked for again', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/catalogue');
  const book = await writeWorkbook(
    [
      ['Alt. no.', 'For', 'Shelf'].map((value) => ({ value })),
      ['ZZ 900', 'MF-K121-1', 'B4'].map((value) => ({ value })),
    ],
    { sheet: 'Old numbers' },
  ).toBuffer();
  const give = () =>
    page.getByLabel('Catalogue files').setInputFiles({
      name: 'numbers.xlsx',
      mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
      buffer: Buffer.from(book),
    });
  await give();
  await expect(page.getByText('Some names are not known here. Nothing was changed.')).toBeVisible();
  await desk.pick('“old numbers” is the table of', 'Other numbers');
  await page.getByRole('button', { name: 'Read it again' }).click();
  await desk.pick('“alt. no.” in Other numbers is', 'Number');
  await desk.pick('“for” in Other numbers is', 'Names');
  await desk.pick('“shelf” in Other numbers is', 'leave it out');
  await axe(page, 'names');
  await page.getByRole('button', { name: 'Read it again' }).click();
  await expect(page.getByRole('row', { name: /^Other numbers/ })).toBeVisible();
  await page.getByRole('button', { name: 'Leave it' }).click();
  await page.reload();
  await give();
  await expect(page.getByRole('row', { name: /^Other numbers/ })).toBeVisible();
});
