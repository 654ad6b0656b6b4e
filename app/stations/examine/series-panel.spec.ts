import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import { signal } from '@angular/core';
import { standing, valueOf } from '@core/facts/read';
import type { CaseDesk } from '../../data/case-desk';
import { DeskSession } from '../../entry/desk-session';
import type { Instrument, InstrumentEvent } from '../../instruments/instrument';
import { Instruments } from '../../instruments/instruments';
import { closeDesk, failWrites, openDesk, paint, type Painted, until } from '../../testing/demo-desk';
import { SeriesPanel } from './series-panel';

const KEY = 'tensioner.leak_series';

describe('a leak-down on the bench', () => {
  let desk: CaseDesk;
  let page: Painted<SeriesPanel>;
  let says: Subject<InstrumentEvent>;
  const state = () => desk.current()!.state;
  beforeEach(async () => {
    says = new Subject();
    const gauge: Instrument = { key: 'g', wording: 'Dial gauge', dimension: 'length', open: () => says };
    const scale: Instrument = { key: 's', wording: 'Scale', dimension: 'mass', open: () => says };
    desk = await openDesk(true, [
      {
        provide: Instruments,
        useValue: { all: signal([scale, gauge]), look: () => Promise.resolve() },
      },
    ]);
    await desk.open('demo-2036');
    page = await paint(SeriesPanel, {
      session: TestBed.inject(DeskSession),
      observable: desk.registry().get(KEY)!,
    });
  });
  afterEach(closeDesk);
  const sink = (from: number, to: number, rate: number) => {
    for (let t = from; t < to; t++)
      says.next({ kind: 'reading', value: 8 - rate * t + (t % 2) * 1e-4, dimension: 'length', t });
  };

  it('is recorded live, survives a pulled plug, and is judged; it weighs, and is taken back', async () => {
    await page.press('Load is on');
    sink(0, 40, 0.05);
    says.next({ kind: 'gone', why: 'unplugged' });
    says.complete();
    await until(() => page.words.includes('40 readings are kept'));
    await page.press('Use what came');
    await until(() => valueOf(state(), KEY) !== undefined);
    await page.fixture.whenStable();
    const leak = desk.current()!.answers!.leaks[0]!;
    expect(leak.points.length).toBe(40);
    expect(leak.result!.chosen.rate).toBeCloseTo(0.05, 4);
    expect(leak.verdict).toBe('above');
    expect(page.words).toContain('faster than its limit');
    const starved = () =>
      desk.current()!.answers!.ranking.causes.find((c) => c.cause.key === 'plunger_starved')!.probability;
    const bad = starved();
    await page.press('Strike it');
    await until(() => standing(state(), KEY) === undefined);
    expect(starved()).toBeLessThan(bad);
  });

  it('comes from a table too; what cannot be read is said and nothing is filed', async () => {
    const chooser = page.one<HTMLInputElement>('input[type=file]');
    const choose = (name: string, text: string) => {
      const files = new DataTransfer();
      files.items.add(new File([text], name));
      chooser.files = files.files;
      chooser.dispatchEvent(new Event('change'));
    };
    choose('bad.csv', 't [s];p [bar]\n0;1');
    await until(() => page.words.includes('Nothing was filed'));
    expect(page.words).toContain('bar');
    expect(standing(state(), KEY)).toBeUndefined();
    const rows = Array.from(
      { length: 60 },
      (_, i) => `${i},0;${(8 - 0.004 * i).toFixed(4).replace('.', ',')}`,
    );
    const works = failWrites('QuotaExceededError');
    choose('leak.csv', rows.join('\r\n'));
    await until(() => document.querySelector('.ant-message-notice') !== null);
    expect(standing(state(), KEY)).toBeUndefined();
    works();
    choose('leak.csv', rows.join('\r\n'));
    await until(() => valueOf(state(), KEY) !== undefined);
    expect(desk.current()!.answers!.leaks[0]!.verdict).toBe('within');
  });

  it('stopped before anything came files nothing', async () => {
    await page.press('Load is on');
    await page.press('Stop and keep');
    expect(page.words).toContain('Nothing came');
    expect(standing(state(), KEY)).toBeUndefined();
  });
});
