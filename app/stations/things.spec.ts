import { Balance } from '../shell/balance';
import { CasePage } from '../shell/case-page';
import { Tape } from '../shell/tape';
import { TestBed } from '@angular/core/testing';
import { CaseDesk } from '../data/case-desk';
import { PartDetails } from '../entry/part-details';
import { closeDesk, failWrites, openDesk, paint, until } from '../testing/demo-desk';
import { PlacedField } from '../entry/placed-field';
import { DeskSession } from '../entry/desk-session';
import { Field } from '../entry/field';
import { CallPage } from './call/call-page';
import { CausePage } from './cause/cause-page';
import { ExaminePage } from './examine/examine-page';
import { CheckPanel } from './fit/check-panel';
import { SettlePage } from './settle/settle-page';
import { measuredOf, placedOf, textOf, thingsOf } from '@core/facts/read';
import { isMarked } from '@core/drive/judge-marks';
import { placeKey } from '@core/facts/place';

const CHAIN = 'demo-2036';
const BELT = 'demo-2027';
const QUESTION = 'demo-2041';

describe('parts told apart', () => {
  let desk: CaseDesk;
  const state = () => desk.current()!.state;
  beforeEach(async () => {
    desk = await openDesk();
    await desk.open(CHAIN);
  });
  afterEach(closeDesk);

  it('a second part gets a tag of its own by its place, once, and keeps its facts to itself', async () => {
    const page = await paint(ExaminePage);
    const tags = () => page.all('[role=tab]').map((s) => s.querySelector('.name')!.textContent.trim());
    const before = tags();
    await until(() => page.words.includes('Another tensioner'));
    await page.press('Another tensioner');
    await page.press('Add it');
    expect(page.one('[role=alert]').textContent).not.toBe('');
    expect(tags()).toEqual(before);
    await page.type('Where the other tensioner belongs', 'left');
    await until(() => tags().length === before.length + 1);
    expect(tags()).toContain('Tensioner, left');
    await page.press('Another tensioner');
    await page.type('Where the other tensioner belongs', 'LEFT');
    await until(() => page.all('[role=alert]').length === 1);
    const second = thingsOf(state(), desk.registry()).find((t) => t.place === 'left')!;
    await desk.file({ key: 'tensioner.extension', about: second.id, value: 7, how: 'measured' });
    expect(desk.current()!.answers!.drive!.tensioners.map((t) => [t.about, t.reading.value])).toEqual([
      ['', 21.6],
      [second.id, 7],
    ]);
    const tape = await paint(Tape);
    expect(tape.all('.line')[0]!.textContent).toContain('tensioner, left');
  });

  it('looks at places: filed in order, refused beyond the last, kept when the store refuses', async () => {
    const field = await paint(PlacedField, {
      session: TestBed.inject(DeskSession),
      key: 'chain.link_damage',
    });
    const box = field.one<HTMLInputElement>('input');
    const enter = async (text: string) => {
      box.value = text;
      box.dispatchEvent(new Event('input'));
      box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
      await field.fixture.whenStable();
    };
    const links = desk.current()!.answers!.drive!.layout.count;
    await enter(`${links + 1} stiff`);
    expect(field.all('.bad').length).toBe(1);
    await enter('17 purple');
    expect(field.all('.bad').length).toBe(1);
    expect(placedOf(state(), 'chain.link_damage')).toEqual([]);
    const works = failWrites('QuotaExceededError');
    await enter('17 stiff');
    await until(() => field.all('.bad').length === 1);
    expect(box.value).toBe('17 stiff');
    works();
    await enter('17 stiff');
    await until(() => box.value === '');
    await enter(`${links} pin turned`);
    await until(() => placedOf(state(), 'chain.link_damage').length === 2);
    await field.fixture.whenStable();
    expect(field.all('li .mono').map((x) => x.textContent)).toEqual(['link 17', `link ${links}`]);
    await field.press('Strike');
    await until(() => placedOf(state(), 'chain.link_damage').length === 1);
    expect(placedOf(state(), 'chain.link_damage').map((p) => placeKey(p.place))).toEqual([`link ${links}`]);
  });

  it('a reading taken again joins the others; Escape ends it, and the next entry corrects them all', async () => {
    const field = await paint(Field, { session: TestBed.inject(DeskSession), key: 'chain.length' });
    const box = field.one<HTMLInputElement>('input.mono');
    const press = async (text: string, key: string) => {
      box.value = text;
      box.dispatchEvent(new Event('input'));
      box.dispatchEvent(new KeyboardEvent('keydown', { key }));
      await field.fixture.whenStable();
    };
    const read = () => measuredOf(state(), desk.registry(), 'chain.length')!.repeats;
    await field.press('again');
    await press('321.1 mm', 'Enter');
    await until(() => read().n === 2 && box.value === '');
    await press('321.3 mm', 'Enter');
    await until(() => read().n === 3);
    expect(read().value).toBeCloseTo((320.9 + 321.1 + 321.3) / 3, 9);
    await field.fixture.whenStable();
    // each reading is a tick beside their mean
    expect(field.all('.tick').length).toBe(3);
    await press('', 'Escape');
    await press('322 mm', 'Enter');
    await until(() => read().n === 1);
    expect(read().value).toBe(322);
  });
});

describe('a question', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);

  it('has no rivals beside it until it is said to be a return', async () => {
    await desk.open(QUESTION);
    const [page, balance] = [await paint(CausePage), await paint(Balance)];
    expect([page.all('.cause').length, balance.all('.row').length]).toEqual([0, 0]);
    await desk.file({ key: 'case.kind', value: 'return', how: 'decided' });
    await desk.file({ key: 'feature.cover-screws', value: 'seven', how: 'reported' });
    await page.fixture.whenStable();
    expect(page.all('.cause').length).toBeGreaterThan(0);
  });

  it('is never called decided or sealed, and a claim only once it is', async () => {
    const lacks = async (id: string) => {
      await desk.open(id);
      const page = await paint(CasePage, { id });
      await page.fixture.whenStable();
      return page.all('nav .lack').map((l) => l.textContent.trim());
    };
    for (const id of [QUESTION, CHAIN]) {
      const words = await lacks(id);
      expect(words).not.toContain('decided');
      expect(words).not.toContain('sealed');
    }
    const words = await lacks(BELT);
    expect([words.includes('decided'), words.includes('sealed')]).toEqual([true, true]);
    await desk.file({ key: 'claim.reason', value: 'another', how: 'decided' });
    expect(await lacks(BELT)).not.toContain('sealed');
  });
});

describe('which one a part is', () => {
  beforeEach(() => openDesk());
  afterEach(closeDesk);

  it('is asked for on a drive of several stages, filed of that part, and shown once known', async () => {
    const desk = TestBed.inject(CaseDesk);
    await desk.newCase([
      { key: 'engine.code', value: 'QU30-VASK', how: 'reported' },
      { key: 'feature.tensioner-house', value: 'iron', how: 'seen' },
      { key: 'parts.sent', value: ['tensioner'], how: 'seen' },
    ]);
    const page = await paint(PartDetails, { about: 'tensioner', name: 'Tensioner' });
    await page.press('Number, lot, stage');
    await page.type('Number on it', 'MF-T77');
    await page.press('Right secondary chain');
    const of = (key: string) => textOf(desk.current()!.state, key, 'tensioner');
    await until(() => of('thing.stage') === 'vasker-a-right' && of('thing.number') === 'MF-T77');
    await page.fixture.whenStable();
    expect(page.one('[role=radio][aria-checked=true]').textContent).toContain('Right secondary');
    const later = await paint(PartDetails, { about: 'tensioner', name: 'Tensioner' });
    expect(later.one<HTMLInputElement>('input').value).toBe('MF-T77');
    // a drive of one stage asks for none
    await desk.open(BELT);
    const belt = await paint(PartDetails, { about: 'belt', name: 'Belt' });
    await belt.press('Number and lot');
    expect(belt.all('[role=radio]').length).toBe(0);
  });
});

describe('fields of a station', () => {
  let desk: CaseDesk;
  beforeEach(async () => (desk = await openDesk()));
  afterEach(closeDesk);

  it('follow the data and the drive: every page shows what its groups name, and Settle asks for a way round only without a paper, for our own words only where we advised', async () => {
    const fields = async (page: Parameters<typeof paint>[0]) => (await paint(page)).all('hs-field').length;
    for (const id of [BELT, CHAIN, QUESTION, 'demo-2044']) {
      await desk.open(id);
      const of = (station: 'call' | 'settle') => desk.groupsAt(station).flatMap((g) => g.fields).length;
      const call = await paint(CallPage);
      for (const o of desk.groupsAt('call').flatMap((g) => g.fields))
        expect(call.all(`[id="field-${o.key.replace(/\W/g, '-')}"]`).length)
          .withContext(`${id} ${o.key}`)
          .toBe(1);
      const missing = desk.current()!.answers!.decision.objections.some((o) => o.code === 'missing_document');
      // a share for each fault that was recorded; the sale is asked for only where the plan begins at it
      const { state, answers } = desk.current()!;
      const recorded = answers!.faults.filter((f) => f.recorded).length;
      const begins =
        answers!.kit?.terms.from === 'fitted_else_sold' && textOf(state, 'kit.fitted') === undefined;
      // sums stand with the lines of cost, nothing here wants a second signature, own words are asked for one paper at a time
      expect(await fields(SettlePage))
        .withContext(id)
        .toBe(of('settle') - (missing ? 0 : 1) - 1 - 3 - 1 - 1 - (begins ? 0 : 1) + recorded);
      const shown = (await paint(CheckPanel))
        .all('hs-field label')
        .filter((l) => l.textContent.includes('Mark offset'));
      const marked = (desk.current()!.answers!.drive?.stages ?? []).flatMap((x) =>
        x.layout.wheels.filter(isMarked),
      );
      expect(shown.length).withContext(id).toBe(marked.length);
    }
  });
});
