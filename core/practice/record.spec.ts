import { CAUSES } from '@core/cause/cause-data';
import { OBSERVABLES, registryWith } from '@core/facts/registry';
import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { reduce } from '@core/facts/state';
import { must } from '@core/quantity/must';
import { demoPack } from '../../demo/catalogue';
import { demoScenario } from '../../demo/scenario';
import { agreement, kappaOf } from './agreement';
import { ownReturn } from './own-return';
import { readPracticeFile, writePracticeFile } from './practice-file';
import { calibration, type Done, DUE_AFTER, spacing } from './record';
import { weekOf } from './themes';

const done = (id: number, o: Partial<Done['done']> = {}, looks: Done['looks'] = []): Done => ({
  case: {
    id: `practice-mixed-${id}`,
    cause: 'tensioner_bearing',
    opening: [],
    there: [],
    shows: [],
    wrong: [],
    patience: 20,
  },
  begun: '2026-10-01T08:00:00.000Z',
  looks,
  done: {
    cause: 'tensioner_bearing',
    sure: 0.7,
    at: new Date(Date.UTC(2026, 9, 1) + id * 60_000).toISOString(),
    right: true,
    family: 'product',
    minutes: 10,
    best: 8,
    ...o,
  },
});

describe('how sure and how right', () => {
  it('scores a coin 0.25, the sure and right 0, the sure and wrong 1', () => {
    const coin = Array.from({ length: 8 }, (_, i) => done(i, { sure: 0.5, right: i % 2 === 0 }));
    expect(calibration(coin).brier).toBeCloseTo(0.25, 12);
    expect(calibration([done(1, { sure: 1 })]).brier).toBe(0);
    expect(calibration([done(1, { sure: 1, right: false })]).brier).toBe(1);
    expect(calibration([])).toEqual({ n: 0, right: 0, brier: 0, bands: [], overTime: [] });
  });

  it('holds each band between what chance allows, and what is right on average in it', () => {
    const runs = Array.from({ length: 20 }, (_, i) => done(i, { sure: 0.85, right: i < 17 }));
    const [band] = calibration(runs).bands;
    expect(band).toEqual(jasmine.objectContaining({ from: 0.8, to: 0.9, n: 20, right: 17 }));
    // Clopper and Pearson for 17 of 20, published tables: 0.621 to 0.968
    expect(must(band).low).toBeCloseTo(0.6211, 3);
    expect(must(band).high).toBeCloseTo(0.9679, 3);
    expect(calibration(runs).overTime.length).toBe(20);
  });
});

describe('what comes next', () => {
  const families = ['product', 'fitting', 'engine side'];
  const seq = (marks: readonly [family: string, right: boolean][]) =>
    spacing(
      marks.map(([family, right], i) => done(i, { family, right })),
      families,
    );

  it('begins with what was never met, and brings back what was wrong after one return, what was right after twice as many each time', () => {
    expect(seq([]).map((s) => s.due)).toEqual([0, 0, 0]);
    const after = (k: number) =>
      must(
        seq(Array.from({ length: k }, () => ['product', true] as [string, boolean])).find(
          (s) => s.family === 'product',
        ),
      );
    expect([1, 2, 3, 4, 9].map((k) => after(k).due)).toEqual([2, 4, 8, 16, 16]);
    const wrong = seq([
      ['product', true],
      ['product', true],
      ['product', false],
      ['fitting', true],
      ['engine side', true],
    ]);
    expect(must(wrong[0])).toEqual(
      jasmine.objectContaining({ family: 'product', box: 0, due: DUE_AFTER[0] - 2 }),
    );
  });

  it('names the week by ISO 8601, also where the year changes', () => {
    expect(['2026-12-01', '2021-01-03', '2024-12-30', '2026-01-01', '2027-01-03'].map(weekOf)).toEqual([
      202649, 202053, 202501, 202601, 202653,
    ]);
  });
});

describe('two judges', () => {
  const table = (cells: readonly [string, string, number][]) =>
    cells.flatMap(([a, b, k]) => Array.from({ length: k }, () => [a, b] as const));

  it('agree beyond chance as Cohen says, with an error that the delta method gives as well', () => {
    const cells: [string, string, number][] = [
      ['x', 'x', 20],
      ['x', 'y', 5],
      ['y', 'x', 10],
      ['y', 'y', 15],
    ];
    const k = must(kappaOf(table(cells)).kappa);
    expect(k.value).toBeCloseTo(0.4, 12);
    // second method: numeric gradient of kappa over the cells' shares
    const n = 50;
    const of = (p: readonly number[]) => {
      const [a = 0, b = 0, c = 0, d = 0] = p;
      const po = a + d;
      const pe = (a + b) * (a + c) + (c + d) * (b + d);
      return (po - pe) / (1 - pe);
    };
    const p = cells.map(([, , c]) => c / n);
    const g = p.map((_, i) => {
      const at = (h: number) => of(p.map((x, j) => (i === j ? x + h : x)));
      return (at(1e-6) - at(-1e-6)) / 2e-6;
    });
    const mean = g.reduce((s, x, i) => s + x * must(p[i]), 0);
    const se = Math.sqrt((g.reduce((s, x, i) => s + x * x * must(p[i]), 0) - mean ** 2) / n);
    expect((k.to - k.from) / 2).toBeCloseTo(1.959964 * se, 5);
    expect(
      must(
        kappaOf(
          table([
            ['x', 'x', 3],
            ['y', 'y', 2],
          ]),
        ).kappa,
      ).value,
    ).toBe(1);
    expect(kappaOf(table([['x', 'x', 3]])).kappa).toBeUndefined();
  });

  it('are told where their ways parted first, on returns that both decided', () => {
    const look = (key: string) => ({ key, minutes: 1 });
    const mine = [done(1, {}, [look('belt.teeth'), look('belt.back')]), done(2)];
    const theirs = [done(1, { cause: 'no_fault' }, [look('belt.teeth'), look('pump.turns')]), done(3)];
    const a = agreement(mine, theirs);
    expect(a.n).toBe(1);
    expect(a.apart).toEqual([
      {
        id: 'practice-mixed-1',
        one: 'tensioner_bearing',
        other: 'no_fault',
        parted: { at: 2, one: 'belt.back', other: 'pump.turns' },
      },
    ]);
  });
});

describe('a file of returns', () => {
  const registry = registryWith(OBSERVABLES, []);
  const read = (text: string) => readPracticeFile(text, { registry, causes: CAUSES });

  it('reads what was written, and refuses all of it where one thing is unknown, with its place', () => {
    const run = done(1, {}, [{ key: 'belt.teeth', minutes: 1 }]);
    const text = writePracticeFile({ by: 'Bram', returns: [run.case], runs: [run] });
    const back = read(text);
    expect(back.ok && back.value).toEqual(
      jasmine.objectContaining({ by: 'Bram', runs: [run], returns: [run.case] }),
    );
    const other = (from: string, to: string) => read(text.replace(from, to));
    expect(read('{')).toEqual({ ok: false, error: { code: 'no_json' } });
    expect(read('[]')).toEqual({ ok: false, error: { code: 'no_practice_file' } });
    expect(other('"formatVersion": 1', '"formatVersion": 2')).toEqual({
      ok: false,
      error: { code: 'newer_version', version: 2 },
    });
    expect(other('"cause": "tensioner_bearing"', '"cause": "gnomes"')).toEqual({
      ok: false,
      error: { code: 'unknown_cause', at: 'returns.0', cause: 'gnomes' },
    });
    expect(other('"practice-mixed-1"', '"demo-2038"')).toEqual(
      jasmine.objectContaining({
        ok: false,
        error: jasmine.objectContaining({ code: 'wrong', at: 'returns.0.id' }),
      }),
    );
    const strange = { ...run.case, there: [{ key: 'gnome.hat', value: 'red', how: 'seen' as const }] };
    expect(read(writePracticeFile({ by: 'B', returns: [strange], runs: [] }))).toEqual({
      ok: false,
      error: { code: 'unknown_observable', at: 'returns.0', key: 'gnome.hat' },
    });
  });
});

describe('a return made from a settled case', () => {
  it('keeps what was looked at and loses every word, name, day and number of the case', () => {
    const registry = registryFor(worldOf(catalogueOf(demoPack())));
    let made = 0;
    const byCase = new Map<string, ReturnType<typeof demoScenario>['facts'][number][]>();
    for (const f of demoScenario().facts) byCase.set(f.case, [...(byCase.get(f.case) ?? []), f]);
    for (const [, facts] of byCase) {
      const state = reduce(facts);
      const own = ownReturn(state, registry);
      const settled = facts.some((f) => f.key === 'report.issue');
      if (!settled) expect(own.ok).toBeFalse();
      if (!own.ok) continue;
      made++;
      const text = JSON.stringify(own.value);
      for (const f of facts) {
        const type = registry.get(f.key)?.type.kind;
        if (typeof f.value === 'string' && (type === 'text' || type === 'date') && f.value.length > 8)
          expect(text.includes(f.value)).withContext(`${f.key} ${f.value}`).toBeFalse();
        if (f.note !== undefined) expect(text.includes(f.note)).toBeFalse();
        expect(text.includes(f.at)).toBeFalse();
      }
      expect(own.value.shows.length).toBeGreaterThan(0);
    }
    expect(made).toBeGreaterThan(0);
  });
});
