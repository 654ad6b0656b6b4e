import { observed, standing, textOf, valueOf } from '@core/facts/read';
import { EXAMINATIONS } from '@core/examination/examination-data';
import { TestBed } from '@angular/core/testing';
import type { CaseDesk } from '../../data/case-desk';
import { DeskSettingsStore } from '../../data/desk-settings';
import { closeDesk, openDesk, paint, type Painted, until } from '../../testing/demo-desk';
import { ExaminePage } from './examine-page';

const CHAIN = 'demo-2036';
const BELT = 'demo-2027';

describe('the bench', () => {
  let desk: CaseDesk;
  let page: Painted<ExaminePage>;
  const main = document.createElement('main');
  const state = () => desk.current()!.state;
  const on = async (id: string) => {
    await desk.open(id);
    page = await paint(ExaminePage);
    // what is walked over is looked for in the desk's main part
    main.append(page.element);
    document.body.append(main);
  };
  const tag = (name: string) =>
    page.all('[role=tab]').find((t) => t.querySelector('.name')!.textContent.trim().startsWith(name))!;
  const inHand = () => page.one('.looks h2').textContent.trim();
  const rows = () => page.all('hs-inspection-list li').map((li) => li.dataset['row']!);
  const row = (key: string) => page.one(`[data-row="${key}"] button`);
  const take = async (name: string) => {
    tag(name).click();
    await page.fixture.whenStable();
  };
  const open = async (key: string) => {
    row(key).click();
    await page.fixture.whenStable();
  };
  const key = async (target: Element, k: string, more: KeyboardEventInit = {}) => {
    target.dispatchEvent(new KeyboardEvent('keydown', { key: k, bubbles: true, cancelable: true, ...more }));
    await page.fixture.whenStable();
  };
  beforeEach(async () => {
    desk = await openDesk();
    TestBed.inject(DeskSettingsStore).change({ looks: 'list' });
  });
  afterEach(async () => {
    main.remove();
    main.replaceChildren();
    await closeDesk();
  });

  it('files nothing found for the rest of one place at once, and takes it back at once', async () => {
    await on(BELT);
    await take('Guide roller');
    await open('roller.face');
    const before = state().log.length;
    const open_ = () => page.all('hs-inspection-list li[data-field=lacks]').map((li) => li.dataset['row']!);
    const at = (key: string) => EXAMINATIONS.get('roller')!.inspections.find((l) => l.key === key)!.zone;
    const lacked = open_();
    await key(page.one('hs-inspection-panel'), '*');
    await until(() => state().log.length > before);
    await page.fixture.whenStable();
    const gone = lacked.filter((k) => !open_().includes(k));
    expect(gone.length).toBeGreaterThan(0);
    for (const k of gone) {
      expect(at(k)).toBe(at('roller.face'));
      const o = desk.current()!.answers!.registry.get(k)!;
      const filed = valueOf(state(), k);
      expect(o.type.kind === 'choice' && o.type.options.find((x) => x.key === filed)?.abnormal).toBeFalsy();
    }
    // what is measured stays open, and the hand is at an inspection that is
    expect(open_()).toContain('roller.od');
    expect(open_()).toContain(page.one('[aria-current]').closest('li')!.dataset['row']!);
    await desk.undo();
    await page.fixture.whenStable();
    expect(open_()).toEqual(lacked);
  });

  it('asks of each thing what this drive has, in the order of the work', async () => {
    await on(CHAIN);
    expect(inHand()).toBe('Tensioner');
    expect(rows()).toContain('tensioner.extension');
    expect(rows()).not.toContain('tensioner.pointer');
    const order = EXAMINATIONS.get('tensioner')!.inspections.map((l) => l.key);
    expect(rows()).toEqual(order.filter((k) => rows().includes(k)));
    expect(tag('Belt')).toBeUndefined();
    expect(tag('Water pump')).toBeUndefined();
    await desk.open(BELT);
    await page.fixture.whenStable();
    expect(rows()).toContain('tensioner.pointer');
    expect(rows()).not.toContain('tensioner.extension');
    expect(tag('Chain')).toBeUndefined();
  });

  it('shows what did not come, what that forbids to claim, and takes it in when it came after all', async () => {
    await on(BELT);
    expect(tag('Water pump').classList).toContain('absent');
    await take('Water pump');
    expect(page.one('.work > .caution').textContent).toContain(EXAMINATIONS.get('pump')!.without!);
    await page.press('It came after all');
    await until(() => (valueOf(state(), 'parts.sent') as string[]).includes('pump'));
    await page.fixture.whenStable();
    expect(tag('Water pump').classList).not.toContain('absent');
    expect(inHand()).toBe('Water pump');
  });

  it('one letter files a grade and goes on to the next open look; Shift and Enter passes one over', async () => {
    await on(BELT);
    await take('Belt');
    await open('belt.roots');
    await until(() => document.activeElement?.id === 'field-belt-roots');
    await key(document.activeElement!, 'd');
    await until(() => textOf(state(), 'belt.roots') === 'deep');
    await until(() => document.activeElement?.id === 'field-belt-flanks');
    await key(document.activeElement!, 'Enter', { shiftKey: true });
    await until(() => observed(state(), 'belt.flanks').is === 'notExamined');
    await until(() => document.activeElement?.id === 'field-belt-lands');
    expect(row('belt.flanks').textContent).toContain('not examined');
    // it says nothing of the part, and can be taken back
    expect(textOf(state(), 'belt.flanks')).toBeUndefined();
    await open('belt.flanks');
    await page.press('Examine it after all');
    await until(() => standing(state(), 'belt.flanks') === undefined);
  });

  it('holds a look that destroys what another reads, until that one is done or passed over', async () => {
    await on(CHAIN);
    await desk.strike(standing(state(), 'tensioner.extension')!);
    await page.fixture.whenStable();
    await open('tensioner.backdrive');
    expect(page.all('hs-inspection-panel hs-field').length).toBe(0);
    await page.press('Plunger extension, as found');
    expect(page.one('hs-inspection-panel').dataset['apart']).toBe('tensioner.extension');
    await desk.file({ key: 'tensioner.extension', value: 8, how: 'measured' });
    await page.fixture.whenStable();
    await open('tensioner.backdrive');
    // the overall length is still to be read
    expect(page.all('hs-inspection-panel hs-field').length).toBe(0);
    await page.press('It can no longer be read');
    await until(() => observed(state(), 'tensioner.overall').is === 'notExamined');
    await page.fixture.whenStable();
    expect(page.all('hs-inspection-panel hs-field').length).toBe(1);
  });

  it('a place on the drawing leads to its looks, one after the other', async () => {
    await on(BELT);
    const places = page.all('hs-thing-drawing button');
    expect(places.length).toBeGreaterThan(4);
    const tab = places.find((b) => b.getAttribute('aria-label')!.startsWith('Tab or hook'))!;
    tab.click();
    await page.fixture.whenStable();
    expect(page.one('hs-inspection-panel').dataset['apart']).toBe('tensioner.tab');
    tab.click();
    await page.fixture.whenStable();
    expect(page.one('hs-inspection-panel').dataset['apart']).toBe('tensioner.tab_print');
  });

  it('plus adds another of the kind in hand, Page down takes the next thing', async () => {
    await on(CHAIN);
    const before = page.all('[role=tab]').length;
    await key(page.one('.bench'), '+');
    await until(() => page.all('[role=tab]').length === before + 1);
    await page.fixture.whenStable();
    expect(inHand()).toBe('Tensioner, no. 2');
    await key(page.one('.bench'), 'PageDown');
    expect(inHand()).toBe('Chain');
    await key(page.one('.bench'), 'PageUp');
    expect(inHand()).toBe('Tensioner, no. 2');
  });

  it('judges nothing on an empty case, and names no undefined on any', async () => {
    for (const id of [BELT, CHAIN, 'demo-2044', 'demo-2041', 'demo-2038', 'new']) {
      if (id === 'new') await desk.newCase();
      else await desk.open(id);
      page = await paint(ExaminePage);
      for (const t of page.all('[role=tab]')) {
        t.click();
        await page.fixture.whenStable();
        expect(page.words)
          .withContext(`${id} ${t.textContent}`)
          .not.toMatch(/undefined|NaN|\{\w+\}/);
      }
      if (id === 'new') {
        expect(page.all('.bad').length).toBe(0);
        expect(page.all('.absent').length).toBe(0);
        expect(page.words).not.toContain('Next best');
      }
    }
  });
});
