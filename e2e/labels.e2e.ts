import { expect, test } from '@playwright/test';
import { Desk } from './desk';

test('labels of a box are printed, and one that is typed or scanned opens its case with the part in hand', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2027/examine');
  await page.getByRole('button', { name: 'Labels for the box' }).click();
  const dialog = page.getByRole('dialog', { name: 'Labels for the box' });
  await dialog.getByText('Guide roller').click();
  const pdf = await desk.download(() => dialog.getByRole('button', { name: '4 labels as PDF' }).click());
  expect(pdf.name).toBe('labels-2027.pdf');
  await expect(dialog).toBeHidden();
  // from the start page, and from another case by a scanner
  const code = 'HSBOX|04d5afc858|belt';
  await desk.open('/');
  await page.getByLabel('What came in?').fill(code);
  await page.getByLabel('What came in?').press('Enter');
  await expect(page).toHaveURL(/demo-2027\/examine$/);
  await expect(page.getByRole('tab', { name: /^Belt/ })).toHaveAttribute('aria-selected', 'true');
  await desk.open('/case/demo-2041/cause');
  await page.locator('main').focus();
  // a scanner is quicker than any hand
  await Promise.all([...code.replace('belt', 'tensioner'), 'Enter'].map((k) => page.keyboard.press(k)));
  await expect(page).toHaveURL(/demo-2027\/examine$/);
  await expect(page.getByRole('tab', { name: /^Tensioner/ })).toHaveAttribute('aria-selected', 'true');
});
