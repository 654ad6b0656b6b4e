import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Desk } from './desk';

type Tour = { key: string; name: string; steps: { at: string; shows?: string }[] };
const TOURS = JSON.parse(readFileSync('app/tours/tours.json', 'utf8')) as Tour[];

test('every step of every tour shows what it speaks of, and the tour is gone when it is left', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open();
  await page.getByText('2048').first().waitFor();
  const strip = page.getByRole('region', { name: 'Tour' });
  for (const tour of TOURS) {
    await page.goto('/');
    await page.locator('main').getByRole('button', { name: tour.name.toLowerCase(), exact: true }).click();
    for (const [i, step] of tour.steps.entries()) {
      await expect(strip).toContainText(`${tour.name}, ${i + 1} of ${tour.steps.length}`);
      await expect(page).toHaveURL(new RegExp(`/${step.at}$`));
      if (step.shows !== undefined) await expect(page.locator('.toured')).toBeVisible();
      const over = await page.evaluate(() => document.documentElement.scrollHeight - innerHeight);
      expect(over).toBeLessThanOrEqual(0);
      if (i === 0) {
        const { violations } = await new AxeBuilder({ page }).include('hs-tour-strip').analyze();
        expect(violations.map((v) => v.id)).toEqual([]);
      }
      // What a message says has to be filed before there is an answer to speak of.
      if (tour.key === 'call' && i === 0) {
        await page.getByRole('button', { name: /^File \d+ facts/ }).click();
      } else await strip.getByRole('button', { name: i + 1 < tour.steps.length ? 'Next' : 'Done' }).click();
    }
    await expect(strip).toHaveCount(0);
    await expect(page.locator('.toured')).toHaveCount(0);
  }
});

test('a step goes on when the person did it, and a tour without its case says so', async ({
  page,
  browser,
}) => {
  const desk = new Desk(page);
  await desk.open();
  const strip = page.getByRole('region', { name: 'Tour' });
  await page.locator('main').getByRole('button', { name: 'a box', exact: true }).click();
  await strip.getByRole('button', { name: 'Next' }).click();
  await expect(strip).toContainText('2 of 3');
  await desk.line('belt teeth sound');
  await expect(strip).toContainText('3 of 3');
  await expect(page).toHaveURL(/\/cause$/);
  await strip.getByRole('button', { name: 'Leave the tour' }).click();
  await expect(strip).toHaveCount(0);

  const other = await browser.newContext();
  const empty = await other.newPage();
  await empty.route('**/setup.json', (route) => route.fulfill({ json: { demo: false } }));
  const desk2 = new Desk(empty);
  await desk2.open();
  await empty.keyboard.press('Control+k');
  await empty.keyboard.type('tour: a claim');
  await empty.keyboard.press('Enter');
  await expect(empty.getByRole('region', { name: 'Tour' })).toContainText('is not on this rack');
  await other.close();
});
