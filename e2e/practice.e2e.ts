import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Desk } from './desk';

test('what causes are weighed by is tried on virtual returns; it can be stopped, and nothing of it comes among the cases', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const desk = new Desk(page);
  await desk.open('/knowledge');
  const rack = page.getByRole('navigation', { name: 'Rack of cases' });
  await expect(rack.getByText('2048')).toBeVisible();
  // what stands on top of the rack is what came last
  const top = rack.getByRole('link', { name: /^20\d\d/ }).first();
  const before = await top.innerText();
  const score = page.getByRole('region', { name: 'How often it is right' });
  const judge = score.getByRole('button', { name: /^Judge 2\D?000 virtual returns/ });
  const going = score.getByRole('progressbar', { name: 'Judging virtual returns' });
  await judge.press('Enter');
  await expect(going).toBeVisible();
  await score.getByRole('button', { name: 'Stop' }).press('Enter');
  await expect(judge).toBeVisible();
  await expect(score.getByRole('table')).toHaveCount(0);
  await judge.press('Enter');
  await expect(going).toHaveCount(0, { timeout: 180_000 });
  const right = score.getByRole('row', { name: /^Leader right/ });
  // the same returns everywhere: half of the causes at the least, and no more than are there
  await expect(right).toContainText(/^Leader right\s*[5-9]\d\s%/);
  await expect(score.getByRole('row')).toHaveCount(6);
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
  expect(await top.innerText()).toBe(before);
});

test('a set of three is practised by keyboard, scored and looked back on; nothing of it stands in ledger, patterns, rack, backup or papers', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const desk = new Desk(page);
  await desk.open('/practice');
  const rack = page.getByRole('navigation', { name: 'Rack of cases' });
  await expect(rack.getByText('2048')).toBeVisible();
  const begin = page.getByRole('button', { name: 'Begin: Boxes with nothing wrong' });
  await expect(begin).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
  await begin.press('Enter');
  const strip = page.getByRole('region', { name: 'Practice' });
  const main = page.getByRole('main');
  for (const at of [1, 2, 3]) {
    await expect(strip).toContainText(`${at} of 3`);
    // nothing shows before it is looked at, and a look has its cost
    const look = main.getByRole('button', { name: /^(Look|Ask) · \d+ min$/ }).first();
    await expect(look).toBeVisible();
    await expect(main.getByRole('listbox')).toHaveCount(0);
    await expect(strip).toContainText('0 min spent');
    await look.press('Enter');
    await expect(strip).not.toContainText(/^.*\b0 min spent/);
    if (at === 1) {
      expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
      await expect(page.getByRole('region', { name: 'Balance of causes' })).toHaveCount(0);
      await page.locator('body').press('6');
      await expect(main.getByRole('region', { name: 'Report and letters' })).toHaveCount(0);
    }
    await page.locator('body').press('5');
    const cause = main.getByLabel('Cause', { exact: true });
    await cause.press('Enter');
    await expect(page.locator('nz-option-item').first()).toBeVisible();
    await page.keyboard.type('tensioner');
    await page.keyboard.press('Enter');
    const verdict = main.getByRole('button', { name: 'That is my verdict' });
    await expect(verdict).toBeEnabled();
    await verdict.press('Enter');
    await expect(main.getByRole('region', { name: 'Your path' })).toContainText('min');
    await expect(
      main.getByRole('region', { name: 'The desk’s own path' }).getByRole('listitem').first(),
    ).toContainText('min');
    const lesson = main.getByRole('button', { name: 'Open the lesson' });
    if (await lesson.isVisible()) {
      await lesson.press('Enter');
      await expect(main.getByRole('region', { name: 'To take along' })).toContainText('goes with');
    }
    if (at === 1) expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
    await main
      .getByRole('button', { name: at < 3 ? `Next of the set: ${at + 1} of 3` : 'The set is done' })
      .press('Enter');
  }
  await expect(main.getByRole('region', { name: 'Decided' })).toContainText('3 returns');
  await expect(main.getByRole('img', { name: /^Stated against right: at 70 %/ })).toBeVisible();
  // after a reload it is still known, and still nowhere else
  await page.reload();
  await expect(main.getByRole('region', { name: 'Decided' })).toContainText('3 returns');
  await expect(rack.getByRole('link', { name: /Practice\b.*no engine|^Practice / })).toHaveCount(0);
  for (const where of ['/ledger', '/patterns']) {
    await desk.open(where);
    await expect(main.getByRole('heading', { level: 1 })).toBeVisible();
    await expect(main.getByText(/practice-/)).toHaveCount(0);
  }
  const stored = await page.evaluate(async () => {
    const names = (await indexedDB.databases()).map((d) => d.name ?? '');
    const own = names.find((n) => n === 'hollow-sprocket') ?? '';
    const db = await new Promise<IDBDatabase>((yes) => {
      const ask = indexedDB.open(own);
      ask.onsuccess = () => yes(ask.result);
    });
    const out: string[] = [];
    for (const store of Array.from(db.objectStoreNames)) {
      const all = await new Promise<unknown[]>((yes) => {
        const ask = db.transaction(store).objectStore(store).getAll();
        ask.onsuccess = () => yes(ask.result as unknown[]);
      });
      if (JSON.stringify(all).includes('practice-')) out.push(store);
    }
    db.close();
    return { names: names.sort(), out };
  });
  expect(stored).toEqual({ names: ['hollow-sprocket', 'hollow-sprocket-practice'], out: [] });
});

test('the fitting trainer takes a procedure by keyboard, springs a trap and says what follows; a wrong choice breaks nothing', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/practice/fitting');
  const main = page.getByRole('main');
  await expect(main.getByRole('heading', { name: 'What comes next?' })).toBeVisible();
  const follows = main.getByRole('region', { name: 'What follows' });
  const answers = main.locator('button.answer');
  let sprung = 0;
  // each letter once: those that come too early are told why, the right one goes on
  for (const letter of ['a', 'b', 'c', 'd']) {
    if ((await answers.count()) <= 'abcd'.indexOf(letter)) break;
    const step = await main.getByText(/^Step \d+ of \d+$/).innerText();
    await page.locator('body').press(letter);
    if (
      (await main.getByText(/^Step \d+ of \d+$/).innerText()) !== step ||
      !(await follows.getByRole('listitem').count())
    )
      continue;
    await expect(follows).toContainText('comes first');
    sprung++;
  }
  expect(sprung).toBeGreaterThan(0);
  const traps = main.getByRole('heading', { name: /^Traps of step/ });
  // on until a step is done, whose traps can be sprung
  for (let k = 0; k < 24 && !(await traps.isVisible()); k++)
    await page.locator('body').press('abcd'.charAt(k % 4));
  await expect(traps).toBeVisible();
  await main
    .getByRole('button', { name: /^(Otherwise|Before|With another tool|Against|To the far side)/ })
    .first()
    .press('Enter');
  await expect(follows.getByRole('listitem').first()).toBeVisible();
  await expect(follows).toContainText('Nothing broke');
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);
});
