import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { chromium, expect, test } from '@playwright/test';
import { killBrowserOf, launch } from './browser';
import { Desk, jsonFile } from './desk';

test('a returned tensioner, from the call to a report that can be proved', async ({ page, browser }) => {
  const desk = new Desk(page);
  await desk.open();
  await desk.newCase();

  // Call
  await desk.type('Caller', 'Odo Larkham, Saltmarsh Road Garage');
  await desk.type('Engine code', 'te-16 c0rm');
  await expect(page.getByLabel('Engine code', { exact: true })).toHaveValue('TE16-CORM');
  await desk.type('Distance now', '54 300 mi');
  await desk.type('Distance when fitted', '49000 mi');
  await desk.type('Date of failure', '3.11.2026');
  await desk.type('Fitted on', '14 Jul 2026');
  await desk.type('Kit', 'mf k121 1');
  await desk.choose('Symptom', 'Engine stopped while running');
  await desk.type('Complaint', 'Bang, then nothing. The belt was off.');
  await desk.type('Fault codes', 'P0335 P0340');
  await desk.choose('Parts sent in', 'Tensioner');
  await desk.choose('Parts sent in', 'Belt');
  await expect(desk.tape()).toContainText('87 387 ± 500 km');

  // Identify: unknown stays unknown, then one answer leaves one design
  await desk.go('Identify');
  await desk.choose('Screws of the upper cover', 'Unknown');
  await expect(page.getByText('Fits if').first()).toBeVisible();
  await desk.choose('Lower guide roller', 'Steel, 48 mm outside');
  await expect(page.getByRole('row', { name: /^MF-K121-1/ })).toContainText('✓ Fits');
  await expect(page.getByRole('row', { name: /^MF-K123-1/ })).toContainText(
    'its belt has 123 teeth, this drive needs 121',
  );

  // Examine, the fields and the fact line alike
  await desk.go('Examine');
  await desk.look('Tensioner', 'Pointer, as found');
  await desk.type('Pointer, as found', '-101');
  await desk.look('Tensioner', 'Setting key was turned');
  await desk.tile('Setting key was turned', 'Clockwise').click();
  // one press goes on to the next inspection
  await expect(page.locator('hs-inspection-list [aria-current=step]')).not.toContainText('Setting key');
  await desk.look('Wheels', 'Rim climb marks on');
  await desk.choose('Rim climb marks on', 'Guide roller');
  await desk.look('Tensioner', 'Setting key was turned');
  await desk.line('edge front frayed');
  await desk.line('rub through seen');
  await desk.line('brg quiet');
  const shown = page.locator('figure.shown');
  await expect(shown).toContainText('Turned the wrong way');
  await expect(shown).toContainText(/Smallest clearance\s*2\.\d mm/);
  expect(
    (await new AxeBuilder({ page }).analyze()).violations.map(
      (v) => `${v.id} ${v.nodes[0]?.target.join(' ') ?? ''}`,
    ),
  ).toEqual([]);

  // Cause
  await desk.go('Cause');
  await expect(
    page
      .getByRole('button', { name: /Tensioner set the wrong way round/ })
      .filter({ hasText: '>99 %' })
      .first(),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Decide: Tensioner set the wrong way round' }).click();

  // Settle: not before the rules are met
  await desk.go('Settle');
  await expect(page.getByText('In terms:')).toBeVisible();
  await page.getByRole('button', { name: 'Record SET-WAY against the claim' }).click();
  await desk.choose('Decision', 'Decline');
  await expect(page.getByRole('button', { name: 'Seal and issue', exact: true })).toBeDisabled();
  await expect(page.getByText('Declining needs an alternative cause that was considered.')).toBeVisible();
  await desk.type('Alternative considered', 'A seized pump would have torn teeth; they are sound.');
  await desk.type('Reason, in plain words', 'The tensioner was set against its arrow.');
  // the terms require the invoice
  await expect(page.getByRole('button', { name: 'Seal and issue', exact: true })).toBeDisabled();
  await desk.choose('Invoice received', 'Yes');
  const pdf = await desk.download(() =>
    page.getByRole('button', { name: 'Seal and issue', exact: true }).click(),
  );
  expect(pdf.name).toMatch(/^report-\d+\.pdf$/);
  expect(readFileSync(pdf.path).subarray(0, 5).toString()).toBe('%PDF-');
  await expect(page.getByText('Issue 1: ✓ facts unchanged since')).toBeVisible();
  const sealed = (await page.locator('[title^="SHA-256 "]').getAttribute('title')) ?? '';
  const json = await desk.download(() => page.getByRole('button', { name: 'Case as JSON' }).click());
  const text = readFileSync(json.path, 'utf8');

  // A second, empty profile
  const other = await browser.newContext();
  const page2 = await other.newPage();
  await page2.route('**/setup.json', (route) => route.fulfill({ json: { demo: false } }));
  const desk2 = new Desk(page2);
  await desk2.open();
  await expect(page2.getByRole('region', { name: 'Bring your own catalogue' })).toBeVisible();

  await desk2.openFile(jsonFile('cut.json', text.slice(0, text.length / 2)));
  await expect(page2.getByText(/cut\.json is broken at line \d+/)).toBeVisible();
  await desk2.openFile(jsonFile('altered.json', text.replace('"value": -101', '"value": 90')));
  await expect(page2.getByRole('dialog', { name: 'This file was altered' })).toBeVisible();
  await page2.getByRole('button', { name: 'Leave it out' }).click();
  await expect(page2.getByText('No cases yet')).toBeVisible();

  await desk2.openFile(jsonFile('case.json', text));
  await expect(page2.getByText('unchanged since it was written')).toBeVisible();
  await desk2.go('Cause');
  await expect(
    page2
      .getByRole('button', { name: /Tensioner set the wrong way round/ })
      .filter({ hasText: '>99 %' })
      .first(),
  ).toBeVisible();
  await desk2.go('Settle');
  await expect(page2.getByText('Issue 1: ✓ facts unchanged since')).toBeVisible();
  expect(await page2.locator('[title^="SHA-256 "]').getAttribute('title')).toBe(sealed);
  await other.close();
});

test('from a new case to a sealed report by keyboard takes fewer than 45 actions, and nothing is lost', async ({
  page,
}) => {
  const desk = new Desk(page);
  let actions = 0;
  const key = (k: string) => {
    actions++;
    return page.keyboard.press(k);
  };
  /** One text typed, however long, and Enter. */
  const file = async (text: string) => {
    actions++;
    await expect(page.getByLabel('Fact line')).toBeFocused();
    await page.keyboard.type(text);
    await expect(page.locator('#fact-line-says')).toContainText('Enter files');
    await key('Enter');
    await expect(page.getByLabel('Fact line')).toHaveValue('');
  };
  await desk.open();
  await page.locator('body').focus();
  await key('n');
  await expect(page.getByRole('textbox', { name: 'What was said' })).toBeFocused();
  await key('Escape');
  await key('f');
  await file('who Odo Larkham; engine TE16-CORM; built 11.3.2017; odo 61000; date 2.11.2026; kit MF-K121-1');
  await file('fitted 1.6.2026; fitodo 55200; symptom stopped; sent tensioner, belt');
  await file('ptr -98 ±2; key clockwise; rim guide; rub front');
  await file('ef frayed; er straight; brg quiet; break whole; oil dry');
  actions++;
  await page.keyboard.type('half a thought');
  await page.reload();
  await expect(page.getByLabel('Fact line')).toHaveValue('half a thought');
  await expect(desk.tape()).toContainText('−98 ± 2°');
  await page.locator('body').focus();
  await key('f');
  await expect(page.getByLabel('Fact line')).toBeFocused();
  await key('Control+a');

  await file('cause tensioner set the wrong way');
  await file('fault SET-WAY');
  // deciding against the leader needs a reason
  actions++;
  await page.keyboard.type('cause wrong kit');
  await expect(page.locator('#fact-line-says')).toContainText('because');
  await key('Control+a');
  await file(
    'decide decline; invoice yes; alternative A seized pump would have torn teeth; reason Set against its sense.',
  );
  await key('Escape');
  await key('5');
  await expect(page.getByText('You decided this.')).toBeVisible();
  await key('Control+z');
  await expect(page.getByText('Taken back: Reason, in plain words')).toBeVisible();
  await key('Control+Shift+z');
  await expect(page.getByText('Brought back.')).toBeVisible();
  const pdf = await desk.download(() => key('s'));
  expect(pdf.name).toMatch(/\.pdf$/);
  expect(actions).toBeLessThan(45);

  await page.locator('body').press('6');
  await expect(page.getByText('Issue 1: ✓ facts unchanged since')).toBeVisible();
  const json = await desk.download(() => page.getByRole('button', { name: 'Case as JSON' }).press('Enter'));
  const facts = (JSON.parse(readFileSync(json.path, 'utf8')) as { facts: { key: string }[] }).facts;
  expect(facts.filter((f) => f.key === 'report.issue')).toHaveLength(1);

  await page.locator('body').press('Control+k');
  await page.keyboard.type('2027');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /2027/ })).toBeVisible();
  await page.locator('body').press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
});

test('a write that the browser refuses is said, keeps the text, and a part that does not come is fetched again', async ({
  page,
  browser,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2041/call');
  await page.evaluate(() => {
    const store = IDBObjectStore.prototype;
    const kept = (['add', 'put'] as const).map(
      (k) => [k, Object.getOwnPropertyDescriptor(store, k)!] as const,
    );
    const refuse = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    for (const [k, d] of kept) Object.defineProperty(store, k, { ...d, value: refuse });
    Object.assign(window, { mend: () => kept.forEach(([k, d]) => Object.defineProperty(store, k, d)) });
  });
  await desk.type('Distance now', '48 200');
  await expect(page.getByRole('alert').filter({ hasText: 'NOT filed' })).toBeVisible();
  await expect(page.getByLabel('Distance now', { exact: false }).first()).toHaveValue('48 200');
  await expect(desk.tape()).not.toContainText('48 200');
  // everything filed and typed goes out in one file, and opens in another profile
  const all = await desk.download(() => page.getByRole('button', { name: 'Everything as one file' }).click());
  const text = readFileSync(all.path, 'utf8');
  const taken = JSON.parse(text) as { drafts: Record<string, string>; facts: { case: string }[] };
  expect(Object.values(taken.drafts)).toContain('48 200');
  const cases = new Set(taken.facts.map((f) => f.case)).size;
  const other = await browser.newContext();
  const page2 = await other.newPage();
  await page2.route('**/setup.json', (route) => route.fulfill({ json: { demo: false } }));
  const desk2 = new Desk(page2);
  await desk2.open();
  const twice = JSON.stringify({ ...taken, facts: [...taken.facts, taken.facts[0]] });
  await desk2.openFile(jsonFile('twice.json', twice));
  await expect(page2.getByText(/twice\.json holds fact .* twice/)).toBeVisible();
  await expect(page2.getByText('No cases yet.')).toBeVisible();
  await desk2.openFile(jsonFile('desk.json', text));
  await expect(page2.getByText(`${cases} cases are on the rack`)).toBeVisible();
  await expect(page2.getByRole('link', { name: /^2044 OL25-FLET/ })).toBeVisible();
  await other.close();
  await page.evaluate(() => (window as unknown as { mend: () => void }).mend());
  await page.getByLabel('Distance now', { exact: false }).first().press('Enter');
  await expect(desk.tape()).toContainText('48 200');
  await expect(page.getByRole('alert').filter({ hasText: 'NOT filed' })).toBeHidden();

  await page.route('**/chunk-*.js', (route) => route.abort());
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Settle' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'could not be fetched' })).toBeVisible();
  await page.unroute('**/chunk-*.js');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { name: /Decision/ }).first()).toBeVisible();
});

test('half-typed text is there again after the browser was killed', async ({ baseURL }) => {
  const profile = mkdtempSync(join(tmpdir(), 'hs-profile-'));
  const first = await chromium.launchPersistentContext(profile, { ...launch, baseURL: baseURL ?? '' });
  const desk = new Desk(await first.newPage());
  await desk.open('/case/demo-2041/call');
  await desk.page.getByLabel('Fact line').fill('the noise comes when it');
  // as soon as the text is on the disk's way, with no word to the page that its end is near
  await expect
    .poll(() =>
      desk.page.evaluate(
        () =>
          new Promise<number>((done) => {
            const opening = indexedDB.open('hollow-sprocket');
            opening.onsuccess = () => {
              const count = opening.result.transaction('drafts').objectStore('drafts').count();
              count.onsuccess = () => {
                opening.result.close();
                done(count.result);
              };
            };
          }),
      ),
    )
    .toBeGreaterThan(0);
  killBrowserOf(profile);
  const second = await chromium.launchPersistentContext(profile, { ...launch, baseURL: baseURL ?? '' });
  const again = new Desk(await second.newPage());
  await again.open('/case/demo-2041/call');
  await expect(again.page.getByLabel('Fact line')).toHaveValue('the noise comes when it');
  await second.close();
  rmSync(profile, { recursive: true, force: true });
});

test('a case whose design is open shows no other engine’s drive, and names the possible ones', async ({
  page,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2041/drive');
  const open = page.getByRole('region', { name: 'Which design' });
  await expect(open.getByRole('button')).toHaveText([
    /TE16-CORM · first design/,
    /TE16-CORM · second design/,
  ]);
  await expect(page.locator('hs-drive-figure')).toHaveCount(0);
  await open.getByRole('button').first().click();
  await expect(page.locator('hs-drive-figure')).toBeVisible();
});

// Colour hangs on the theme, size on the density: two of the four together show every one of both.
for (const [theme, density] of [
  ['light', 'Compact'],
  ['dark', 'Large, for gloves'],
] as const)
  test(`every view fits the window without an accessibility fault: ${theme}, ${density}`, async ({
    page,
  }) => {
    // it goes through every view and has each one audited
    test.slow();
    const desk = new Desk(page);
    await page.addInitScript((t) => localStorage.setItem('hs-theme', t), theme);
    await desk.open();
    await page.locator('body').press('h');
    const house = page.getByRole('dialog', { name: 'Settings' });
    await house.getByText(density, { exact: true }).click();
    const faults = async (view: string) =>
      (await new AxeBuilder({ page }).analyze()).violations.map(
        (v) => `${view} ${theme}: ${v.id} ${v.nodes[0]?.target.join(' ') ?? ''}`,
      );
    expect(await faults('house')).toEqual([]);
    await house.getByRole('button', { name: 'Done' }).click();
    await expect(house).toHaveCount(0);
    const views = ['call', 'identify', 'fit', 'examine', 'cause', 'settle'].map(
      (s) => `/case/demo-2033/${s}`,
    );
    for (const view of [
      '/',
      ...views,
      '/case/demo-2041/identify',
      '/drive',
      '/catalogue',
      '/catalogue/own',
      '/knowledge',
    ]) {
      await desk.open(view);
      await expect(page.locator('main .card').first()).toBeVisible();
      const over = await page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight);
      expect(over, `${view} scrolls the page`).toBeLessThanOrEqual(0);
      expect(await faults(view)).toEqual([]);
    }
    await page.locator('body').press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
    expect(await faults('keys')).toEqual([]);
    await page.keyboard.press('Escape');
    await page.locator('body').press('g');
    await page.getByLabel('Find a word').fill('plunger');
    await expect(page.getByText('How far a plunger stands out of its body')).toBeVisible();
    expect(await faults('glossary')).toEqual([]);
  });

test('a station that fits one screen does, rack and tape fold, and the next case is one key away', async ({
  page,
}) => {
  const desk = new Desk(page);
  for (const view of ['demo-2038/call', 'demo-2027/settle', 'demo-2041/identify']) {
    await desk.open(`/case/${view}`);
    await expect(page.locator('main .card').first()).toBeVisible();
    const over = await page.locator('main').evaluate((m) => m.scrollHeight - m.clientHeight);
    expect(over, view).toBeLessThanOrEqual(0);
  }
  const wide = (name: string) =>
    page.locator(name).evaluate((e) => Math.round(e.getBoundingClientRect().width));
  const before = await wide('main');
  await page.locator('body').press('[');
  await page.locator('body').press(']');
  await expect.poll(() => wide('hs-rack')).toBeLessThan(80);
  expect(await wide('main')).toBeGreaterThan(before + 300);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Open the tape' })).toBeVisible();
  await page.locator('body').press('f');
  await expect(page.getByLabel('Fact line')).toBeFocused();
  await page.keyboard.press('Escape');
  await page.locator('body').press(',');
  await expect(page.getByRole('heading', { name: /^2042/ })).toBeVisible();
  await page.locator('body').press('.');
  await expect(page.getByRole('heading', { name: /^2041/ })).toBeVisible();
});

test('a part is examined by letters alone, and a day is taken from the calendar', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2038/examine');
  await page.getByRole('tab', { name: /^Belt/ }).click();
  const looks = page.locator('hs-inspection-list');
  await looks.getByRole('button', { name: /^Tooth roots/ }).click();
  await expect(page.locator('#field-belt-roots')).toBeFocused();
  // the first tile's own letter, as it stands on it
  const tile = page.locator('#field-belt-roots [role=option]').first();
  await page.keyboard.press((await tile.getAttribute('aria-keyshortcuts')) ?? '');
  await expect(page.locator('#field-belt-flanks')).toBeFocused();
  await page.keyboard.press('Shift+Enter');
  await expect(looks.getByRole('button', { name: /^Tooth flanks/ })).toContainText('not examined');
  await expect(page.locator('#field-belt-lands')).toBeFocused();

  await desk.go('Call');
  await page.getByRole('button', { name: 'Calendar: Date of failure' }).click();
  await page.locator('.ant-picker-cell-in-view').filter({ hasText: '17' }).click();
  await expect(page.getByLabel('Date of failure', { exact: true })).toHaveValue(
    /17[./]\d\d[./]\d{4}|\d\d.17.\d{4}/,
  );
});

test('bad input is refused with a sentence and changes nothing', async ({ page }) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2041/call');
  await expect(desk.tape()).toContainText('2041');
  const before = await desk.tape().getByRole('listitem').count();
  await desk.type('Engine code', 'TE16-CORN');
  await expect(page.getByText('“TE16-CORN” is not in the catalogue.')).toBeVisible();
  await page.getByRole('button', { name: 'TE16-CORM', exact: true }).click();
  await desk.type('Distance now', '48 miles per hour');
  await expect(page.getByText('is not a unit for this. Use km, mi and m.')).toBeVisible();
  await desk.type('Date of failure', '31.2.2026');
  await expect(page.getByText('“31.2.2026” is not a day.')).toBeVisible();
  expect(await desk.tape().getByRole('listitem').count()).toBe(before);
});

test('a case file of the first edition is read as it is, its digest and its seal verify', async ({
  page,
  browser,
}) => {
  const desk = new Desk(page);
  await desk.open('/case/demo-2027/settle');
  const out = await desk.download(() => page.getByRole('button', { name: 'Case as JSON' }).click());
  const today = JSON.parse(readFileSync(out.path, 'utf8')) as Record<string, unknown>;
  type Old = Record<string, unknown> & { id: string; case: string };
  const all = JSON.parse(readFileSync('core/facts/fixtures/edition-1.json', 'utf8')) as Old[];
  const facts = all.filter((f) => f.case === 'demo-2027');
  // the digest as the formats page describes it, by other means than the program's
  const canonical = (v: unknown): string =>
    JSON.stringify(v, (_k, x: unknown) =>
      typeof x === 'object' && x !== null && !Array.isArray(x)
        ? Object.fromEntries(Object.entries(x).sort(([a], [b]) => (a < b ? -1 : 1)))
        : x,
    );
  const lines = [...facts].sort((a, b) => (a.id < b.id ? -1 : 1)).map(canonical);
  const digest = createHash('sha256').update(lines.join('\n')).digest('hex');
  const old = {
    ...today,
    formatVersion: 1,
    facts,
    digest: { algorithm: 'SHA-256', facts: digest },
  };
  const other = await browser.newContext();
  const page2 = await other.newPage();
  await page2.route('**/setup.json', (route) => route.fulfill({ json: { demo: false } }));
  const desk2 = new Desk(page2);
  await desk2.open();
  await desk2.openFile(jsonFile('old.json', JSON.stringify(old)));
  await expect(
    page2.getByText(/its facts did not change since it was written; the file is of an earlier make/),
  ).toBeVisible();
  await desk2.go('Settle');
  await expect(page2.getByText('Issue 1: ✓ facts unchanged since')).toBeVisible();
  await expect(page2.getByText('SET-WAY').first()).toBeVisible();
  const back = await desk2.download(() => page2.getByRole('button', { name: 'Case as JSON' }).click());
  const again = JSON.parse(readFileSync(back.path, 'utf8')) as { facts: Old[]; formatVersion: number };
  expect(again.formatVersion).toBe(5);
  expect(again.facts).toEqual(expect.arrayContaining(facts));
  expect(again.facts).toHaveLength(facts.length);
  await other.close();
});
