import { TestBed } from '@angular/core/testing';
import { CAUSES } from '@core/cause/cause-data';
import { type Change, changeRows } from '@core/cause/changes';
import { CaseDesk } from '../data/case-desk';
import { Cases } from '../data/cases';
import { Database } from '../data/database';
import { FactRepository } from '../data/fact-repository';
import { OwnNumbers } from '../data/own-numbers';
import { rejudgeAll } from '../workers/rejudge-all';
import { writeCsv } from '../report/csv';
import { closeDesk, failWrites, openDesk, type Painted, paint, until } from '../testing/demo-desk';
import { CausePage } from '../stations/cause/cause-page';
import { KnowledgePage } from './knowledge-page';

const change = (place: string, value: number): Change => ({
  place,
  value,
  ground: 'Own cases.',
  by: 'T',
  at: '2026-11-26T09:00:00.000Z',
});

describe('what this house knows', () => {
  let desk: CaseDesk;
  let ownNumbers: OwnNumbers;
  beforeEach(async () => {
    desk = await openDesk();
    ownNumbers = TestBed.inject(OwnNumbers);
    await desk.open('demo-2036');
  });
  afterEach(closeDesk);

  const shareOf = (key: string) =>
    desk.current()!.answers!.ranking.causes.find((c) => c.cause.key === key)!.probability;
  const again = () => TestBed.runInInjectionContext(() => new OwnNumbers());

  it('judges the case in hand at once, is there after a reload, and stays when the store fails', async () => {
    const second = desk.current()!.answers!.ranking.causes[1]!.cause.key;
    const before = shareOf(second);
    const page = await paint(CausePage);
    expect((await ownNumbers.see([{ ...change(`causes/${second}/prior`, 0.8) }])).ok).toBeTrue();
    await page.fixture.whenStable();
    expect(shareOf(second)).toBeGreaterThan(2 * before);
    expect(page.words).toContain('1 number of its own');
    const mend = failWrites('QuotaExceededError');
    const failed = await ownNumbers.see([change('causes/set_hot/prior', 0.8)]);
    expect(failed.ok).toBeFalse();
    mend();
    expect(ownNumbers.changes().length).toBe(1);
    const read = again();
    await read.ready();
    expect(read.changes()).toEqual(ownNumbers.changes());
    expect(ownNumbers.changes()[0]!.by).not.toBe('');
  });

  it('grows in two windows at once without one losing what the other saw, and hears of it', async () => {
    const other = again();
    await Promise.all([ownNumbers.ready(), other.ready()]);
    const [a, b] = [change('causes/set_hot/prior', 0.2), change('causes/bolt_loose/prior', 0.3)];
    expect((await other.see([a])).ok && (await ownNumbers.see([b])).ok).toBeTrue();
    expect(ownNumbers.changes().map((c) => c.place)).toEqual([a.place, b.place]);
    // as another window tells it
    const window = new BroadcastChannel('hollow-sprocket-news-2');
    window.postMessage({ grown: [], summaries: [], packs: [], extracts: [], setting: 'knowledge-changes' });
    await until(() => other.changes().length === 2);
    window.close();
    expect(other.changes()).toEqual(ownNumbers.changes());
  });

  it('that cannot be read leaves what ships to judge, and the record as it is', async () => {
    const repository = TestBed.inject(FactRepository);
    const odd = [change('causes/set_hot/prior', 7)];
    await repository.keepSetting('knowledge-changes', odd);
    const read = again();
    await read.ready();
    expect([read.broken(), read.changes().length]).toEqual([true, 0]);
    expect(read.knowledge().causes).toBe(CAUSES);
    expect(await repository.setting('knowledge-changes')).toEqual(odd);
  });

  it('judges every case again, names those that read otherwise, and can be stopped', async () => {
    const db = await TestBed.inject(Database).open();
    const second = desk.current()!.answers!.ranking.causes[1]!.cause.key;
    const ask = { before: [], after: [change(`causes/${second}/prior`, 0.8)], chosen: {} };
    const told: number[] = [];
    const all = await rejudgeAll(db, ask, { progress: (n) => told.push(n), cancelled: () => false });
    expect(all.cases).toBe(TestBed.inject(Cases).summaries().length);
    expect(told.at(-1)).toBe(all.cases);
    const mine = all.moved.find((m) => m.id === 'demo-2036')!;
    expect([mine.after.cause, mine.tag]).toEqual([second, '2036']);
    const same = await rejudgeAll(
      db,
      { ...ask, after: [] },
      { progress: () => undefined, cancelled: () => false },
    );
    expect(same.moved).toEqual([]);
    let n = 0;
    const cut = await rejudgeAll(db, ask, { progress: () => undefined, cancelled: () => ++n > 2 });
    expect(cut.cases).toBe(2);
  });

  describe('on its page', () => {
    let page: Painted<KnowledgePage>;
    beforeEach(async () => (page = await paint(KnowledgePage, { cause: 'tensioner_bearing' })));
    const lines = () => page.all('[aria-label=History] div').length;

    it('takes a number only with its ground, keeps its history, and takes it back as one more line', async () => {
      await page.press('How common');
      await page.type('Here it is', '25');
      await page.press('See it so');
      expect(page.all('[role=alert]').length).toBe(1);
      expect(ownNumbers.changes().length).toBe(0);
      await page.type('On what ground', 'Seven of nine.');
      await page.press('See it so');
      await until(() => ownNumbers.changes().length === 1);
      await page.fixture.whenStable();
      expect(ownNumbers.changes()[0]).toEqual(
        jasmine.objectContaining({
          place: 'causes/tensioner_bearing/prior',
          value: 0.25,
          ground: 'Seven of nine.',
        }),
      );
      expect(page.words).toContain('◆ Tensioner bearing failed');
      expect(lines()).toBe(1);
      await page.press('Take the last change back');
      await until(() => ownNumbers.changes().length === 2);
      await page.fixture.whenStable();
      expect(lines()).toBe(2);
      expect(ownNumbers.knowledge().causes.causes).toEqual(CAUSES.causes);
    });

    it('names every look, with no case in hand', async () => {
      await desk.open(undefined);
      await page.press('How it shows');
      expect(page.all('hs-number-row').length).toBeGreaterThan(8);
      for (const row of page.all('hs-number-row'))
        expect(/\b[a-z]+\.[a-z_]+\b/.test(row.textContent))
          .withContext(row.textContent)
          .toBeFalse();
    });

    it('brings a file in whole, or names its line and changes nothing', async () => {
      const bring = (text: string) =>
        (page.fixture.componentInstance as unknown as { bringIn(f: File[]): Promise<void> }).bringIn([
          new File([text], 'numbers.csv'),
        ]);
      const good = writeCsv(changeRows([change('causes/set_hot/prior', 0.2)]));
      await bring(good);
      expect(ownNumbers.changes().map((c) => c.value)).toEqual([0.2]);
      await bring(`${good}\r\ncauses/set_hot/prior,1.5,x,T,2026-11-26T09:00:00.000Z`);
      await until(() => document.body.textContent.includes('Line 3'));
      expect(ownNumbers.changes().map((c) => c.value)).toEqual([0.2]);
    });

    it('counts the own settled cases and weighs by them at once', async () => {
      const cards = () => page.one('[aria-label="Own settled cases"]');
      expect(cards().textContent).toContain('1 decided');
      await page.press('Weigh by them');
      await until(() => ownNumbers.changes().length > 0);
      const mine = ownNumbers.changes().find((c) => c.place === 'causes/set_wrong_way/prior')!;
      const shipped = CAUSES.causes.find((c) => c.key === 'set_wrong_way')!.prior;
      expect(mine.value!).toBeGreaterThan(shipped);
      // what is counted is counted against what ships: once more changes nothing
      await page.press('Weigh by them');
      await until(() => ownNumbers.changes().length > 1);
      expect(ownNumbers.changes().findLast((c) => c.place === mine.place)!.value).toBe(mine.value);
    });
  });
});
