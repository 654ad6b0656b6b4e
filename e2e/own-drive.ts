import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';

type Spot = { x: number; y: number };
/** What is right of the invented engine that ships to be entered: its figures, and where everything lies on its photograph. */
export const ownTruth = JSON.parse(readFileSync('demo/own-drive.json', 'utf8')) as {
  form: { code: string; kit: { number: string } };
  photo: {
    count: number;
    marks: Spot[];
    wheels: { name: string; spots: Spot[]; eccentric?: { pivot: Spot } }[];
  };
};

export const drivePicture = (page: Page) => page.locator('hs-drive-photo-picture svg');
/** Presses a spot of the photograph, given in its own pixels. */
export async function pressOn(page: Page, spot: Spot): Promise<void> {
  const at = await drivePicture(page).evaluate((svg: SVGSVGElement, s) => {
    const p = new DOMPoint(s.x, s.y).matrixTransform(svg.getScreenCTM()!);
    return { x: p.x, y: p.y };
  }, spot);
  await page.mouse.click(at.x, at.y);
}
export const ownStep = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Step' }).locator('label', { hasText: name }).click();

/** Picks everything on the photograph of the invented engine, wheel by wheel, each asked for in its turn. */
export async function pickOwnDrive(page: Page): Promise<void> {
  const verdict = page.getByRole('region', { name: 'Does the loop close?' });
  await expect(verdict).toContainText('Press the four corners of the rectangle');
  for (const m of ownTruth.photo.marks) await pressOn(page, m);
  for (const [i, w] of ownTruth.photo.wheels.entries()) {
    await expect(verdict).toContainText(`${w.name} is not picked yet.`);
    await page
      .locator('hs-wheel-list')
      .getByRole('button', { name: `${i + 1} ${w.name}` })
      .click();
    for (const s of w.spots) await pressOn(page, s);
    if (w.eccentric) {
      await page.getByRole('button', { name: 'Press its pivot', exact: true }).click();
      await pressOn(page, w.eccentric.pivot);
    }
  }
  await expect(verdict).toContainText('The loop closes');
}
