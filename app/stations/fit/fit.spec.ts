import { TestBed } from '@angular/core/testing';
import { textOf } from '@core/facts/read';
import { sheetDigest } from '@core/fitting/sheet-return';
import { Commands } from '../../commands/commands';
import { SheetReturns } from '../../commands/sheet-returns';
import type { CaseDesk } from '../../data/case-desk';
import { DeskSettingsStore } from '../../data/desk-settings';
import { sheetHtml } from '../../report/sheet-html';
import { sheetDocument } from '../../report/sheet-document';
import { sheetPaper } from '../../report/sheet-paper';
import { isDrawn, stepPicture } from '../../fitting/step-picture';
import { closeDesk, openDesk, paint, until } from '../../testing/demo-desk';
import { wayBackWords, shownWords } from '../../messages/fitting';
import { FitPage } from './fit-page';

const CHAIN = 'demo-2036';
const press = (page: Awaited<ReturnType<typeof paint>>, key: string) =>
  page
    .all('.steps')[0]!
    .dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));

describe('at the fitting', () => {
  let desk: CaseDesk;
  const answers = () => desk.current()!.answers!;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);

  it('steps are walked and told by keys, and one press of undo takes back what one entry filed', async () => {
    await desk.open(CHAIN);
    const page = await paint(FitPage);
    press(page, 'd');
    await until(() => answers().fitted?.said.size === 1);
    await page.fixture.whenStable();
    expect(page.words).toMatch(/\b1 of \d+ steps told/);
    expect(page.all('[aria-selected=true] .mono')[0]!.textContent).toBe('2');
    press(page, 'ArrowDown');
    await page.fixture.whenStable();
    press(page, 'n');
    await until(() => answers().fitted?.said.get('ready.battery')?.state === 'skipped');
    press(page, 'n');
    await until(() => !answers().fitted!.said.has('ready.battery'));
    // A figure and that the step was done are one entry.
    press(page, 'ArrowDown');
    await page.fixture.whenStable();
    const box = page.all('hs-step-card input')[0] as HTMLInputElement;
    box.value = '30';
    box.dispatchEvent(new Event('change'));
    await until(() => answers().fitted!.odd.length === 1);
    await page.fixture.whenStable();
    expect(page.words).toContain('SET-HOT');
    await desk.undo();
    await until(() => !answers().fitted!.said.has('ready.cold'));
  });

  it('another order is tried without being filed, names what it breaks, and is filed as one entry when it was so', async () => {
    await desk.open(CHAIN);
    const page = await paint(FitPage);
    const lock = answers().sheet!.steps.find((s) => s.id === 'place.lock')!;
    page.all(`#step-${lock.number}`)[0]!.click();
    await page.fixture.whenStable();
    const alt = () =>
      page
        .all('.steps')[0]!
        .dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', altKey: true, bubbles: true }));
    const facts = desk.current()!.state.log.length;
    alt();
    await page.fixture.whenStable();
    expect(page.words).toContain(`came before step ${lock.number}`);
    expect(desk.current()!.state.log.length).toBe(facts);
    await page.press('It was done in this order');
    await until(() => answers().fitted?.faults.some((f) => f.code === 'SHF-ALN') === true);
    expect(answers().fitted!.broken.every((b) => b.gate.before === lock.id)).toBeTrue();
    await desk.undo();
    await until(() => answers().fitted === undefined);
  });

  it('a fault names its step, weighs in Cause, can be recorded on its evidence, and shows the shortest way back', async () => {
    await desk.open(CHAIN);
    const before = answers().ranking.causes.find((c) => c.cause.key === 'not_released')!.probability;
    const release = answers().sheet!.steps.find((s) => s.id.startsWith('build.release'))!;
    await desk.fileAll([
      { about: 'step:build.route.crank', key: 'step.done', value: 'done', how: 'reported' },
      { about: `step:${release.id}`, key: 'step.done', value: 'skipped', how: 'reported' },
      { about: 'step:verify.unlock', key: 'step.done', value: 'done', how: 'reported' },
    ]);
    const page = await paint(FitPage);
    expect(page.words).toContain(shownWords(answers().fitted!.faults[0]!, answers().sheet!));
    const [back] = wayBackWords(answers().fitted!, answers().sheet!);
    expect(page.words).toContain(back!);
    expect(answers().fitted!.back.way).toEqual(
      jasmine.objectContaining({ undo: ['verify.unlock'], startAt: release.id }),
    );
    const after = answers().ranking.causes.find((c) => c.cause.key === 'not_released')!;
    expect(after.probability).toBeGreaterThan(5 * before);
    const weighed = after.weights.find((w) => w.finding === 'sheet.fault')!;
    const fault = answers().faults.find((f) => f.fault.code === 'REL-NONE')!;
    expect(fault.step!.id).toBe(release.id);
    expect(fault.evidence).toEqual(jasmine.arrayContaining(weighed.facts));
    expect(answers().why[0]!.step.id).toBe(release.id);
  });

  it('the sheet on a telephone and on paper says what the screen says, of any drive, and draws what touches it', async () => {
    for (const id of ['demo-2044', 'demo-2027', CHAIN]) {
      await desk.open(id);
      const a = answers();
      const head = { tag: '1', engine: 'E', design: 'D', kit: 'K', to: '<b>', by: 'me', day: '2026-11-26' };
      const paper = sheetPaper('c', head, a.sheet!, a.drive!.stages, a.policy, []);
      const html = sheetHtml(paper, 'let x = "</script>";');
      expect(html.length).withContext(id).toBeLessThan(115_000);
      const doc = new DOMParser().parseFromString(html, 'text/html');
      const articles = [...doc.querySelectorAll('article')];
      expect(articles.map((x) => x.dataset['step'])).toEqual(a.sheet!.steps.map((s) => s.id));
      a.sheet!.steps.forEach((s, i) => {
        const el = articles[i]!;
        expect(el.textContent).toContain(s.text);
        if (s.caution) expect(el.textContent).toContain(s.caution);
        expect(el.querySelectorAll('[data-ask]').length).toBe(s.proof?.asks.length ?? 0);
        const drawn = isDrawn(s) || s.pattern !== undefined;
        expect(el.querySelector('svg') !== null)
          .withContext(`${id} ${s.id}`)
          .toBe(drawn);
      });
      expect(doc.querySelector('header b')!.textContent).not.toBe('');
      expect(doc.querySelectorAll('script').length).toBe(2);
      expect(doc.querySelectorAll('[src], link').length).toBe(0);
      const body = JSON.stringify(sheetDocument(paper).content);
      for (const s of a.sheet!.steps) expect(body).toContain(JSON.stringify(s.text).slice(1, -1));
      // an order that nobody proved is told wherever the sheet goes
      const open = sheetPaper('c', head, { ...a.sheet!, unproved: true }, a.drive!.stages, a.policy, []);
      expect(paper.caution).toBeUndefined();
      expect(sheetHtml(open, '')).toContain(open.caution!);
      expect(JSON.stringify(sheetDocument(open).content)).toContain(open.caution!);
    }
  });

  it('a drawing shows the drive as it stands at the step: what is off is not there, what is locked says so', async () => {
    await desk.open('demo-2027');
    const { sheet, drive } = answers();
    const shapes = (id: string) => {
      const p = stepPicture(sheet!.steps.find((s) => s.id === id)!, drive!.stages)!;
      return {
        loop: p.loop.map((s) => s.is),
        words: p.over.flatMap((s) => (s.tag === 'text' ? [s.text] : [])),
        title: p.title,
      };
    };
    expect(shapes('place.turn').loop).toEqual(['loop fitted']);
    expect(shapes('place.lock').words.filter((w) => w === 'locked').length).toBe(2);
    expect(shapes('off.off').loop).toEqual([]);
    expect(shapes('route.route').loop).toEqual(['loop slack']);
    expect(shapes('tension').loop).toEqual(['loop taut']);
    expect(shapes('tension').words).toContain('key');
    expect(shapes('verify.turn').words).not.toContain('locked');
  });

  it('a house rule changes the sheet at once, and the case keeps the rules that it was sent by', async () => {
    await desk.open('demo-2033');
    const settings = TestBed.inject(DeskSettingsStore);
    const turns = () => answers().sheet!.steps.find((s) => s.turns !== undefined)!.text;
    expect(turns()).toContain('2 turns');
    const digest = sheetDigest(answers().sheet!);
    settings.change({ chosen: { turns: '4' } });
    TestBed.tick();
    expect(turns()).toContain('4 turns');
    expect(sheetDigest(answers().sheet!)).not.toBe(digest);
    await desk.file({ key: 'case.rules', value: 'as shipped', how: 'decided' });
    expect(turns()).toContain('2 turns');
    settings.change({ chosen: {} });
  });

  for (const id of ['demo-2044', 'demo-2041', CHAIN, 'demo-2038', 'new'])
    it(`every panel stands on ${id}, and judges nothing on an empty case`, async () => {
      if (id === 'new') await desk.newCase();
      else await desk.open(id);
      const page = await paint(FitPage);
      const parts = {
        Check: 'hs-check-panel',
        Torque: 'hs-torque-panel',
        'Cold enough?': 'hs-heat-helper',
        'Timing lost': 'hs-lost-panel',
        'What went wrong?': 'hs-why-panel',
      };
      for (const [name, part] of Object.entries(parts)) {
        page
          .all('.ant-segmented-item')
          .find((e) => e.textContent.trim() === name)!
          .click();
        await until(() => page.all(part).length === 1);
        await page.fixture.whenStable();
        expect(page.words)
          .withContext(`${id} ${name}`)
          .not.toMatch(/undefined|NaN|\{\w+\}/);
        if (id === 'new' && name === 'What went wrong?')
          expect(page.all('hs-why-panel button').length).toBe(0);
      }
    });

  it('a return that is refused says why in its words, and files nothing', async () => {
    await desk.open(CHAIN);
    const facts = desk.current()!.state.log.length;
    const refused = await TestBed.inject(SheetReturns).text('HS1 ABCD EFGH JKMN PQRS TVWX');
    expect(refused).toContain('Nothing was filed');
    expect(await TestBed.inject(SheetReturns).text('{"format"')).toContain('Nothing was filed');
    expect(desk.current()!.state.log.length).toBe(facts);
    expect(textOf(desk.current()!.state, 'fit.sheet_back')).toBeUndefined();
    expect(
      TestBed.inject(Commands)
        .list()
        .some((c) => c.key === 'u'),
    ).toBeTrue();
  });
});
