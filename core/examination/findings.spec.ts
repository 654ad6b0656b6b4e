import type { Fact } from '@core/facts/fact';
import { stateOf } from '@core/facts/facts.fixture';
import { reduce } from '@core/facts/state';
import { registryOf } from '@core/facts/observable';
import { OBSERVABLES } from '@core/facts/registry';
import type { ExaminationContext } from './context';
import { DERIVED } from './derived';
import { findingsOf } from './findings';

const ctx = (more: Partial<ExaminationContext>): ExaminationContext => ({
  state: stateOf([]),
  registry: registryOf(OBSERVABLES),
  applies: () => true,
  drive: { tensioners: [], elongations: [], extensions: [] },
  usage: {},
  balances: [],
  leaks: [],
  limits: [],
  oilKm: 15_000,
  repeats: [],
  partNumbers: [],
  numbers: new Set(),
  sheetFaults: [],
  ...more,
});
const of = (name: string, more: Partial<ExaminationContext>) =>
  findingsOf([name], ctx(more)).map(({ value, facts, about }) => [value, facts, about ?? '']);
const guide = (about: string, verdict: string, fact: string) =>
  ({
    about,
    verdict,
    facts: [fact],
    chances: { complete: 0.3, missing: 0.7 },
  }) as unknown as ExaminationContext['balances'][number];

describe('findings', () => {
  it('of a guide: missing as soon as mass or outline says so, complete when what can tell says so, else by how likely each is', () => {
    const balances = [
      guide('', 'complete', 'a'),
      guide('', 'missing', 'b'),
      guide('guide-2', 'complete', 'c'),
      guide('guide-2', 'cannot_tell', 'd'),
      guide('guide-3', 'cannot_tell', 'e'),
    ];
    expect(of('guide.material', { balances })).toEqual([
      ['missing', ['b'], ''],
      ['complete', ['c'], 'guide-2'],
      [{ grades: { complete: 0.3, missing: 0.7 } }, ['e'], 'guide-3'],
    ]);
    expect(of('guide.material', { balances: [] })).toEqual([]);
  });

  it('of a run: past the interval by how likely distance is, surely where time is', () => {
    const interval = { km: 100_000, months: 60 };
    const run = (km?: number, u = 100, months?: number) =>
      of('interval.run', {
        interval,
        usage: {
          ...(km === undefined ? {} : { distance: { km, u, facts: ['k'] } }),
          ...(months === undefined ? {} : { time: { months, facts: ['t'] } }),
        },
      });
    const past = (km: number, u = 100) => {
      const [value] = run(km, u)[0]!;
      if (typeof value === 'string') return value === 'past' ? 1 : 0;
      return (value as { grades: Record<string, number> }).grades['past']!;
    };
    // the normal distribution from tables, to a hundredth
    for (const [z, p] of [
      [0, 0.5],
      [1, 0.841],
      [-1, 0.159],
      [4, 1],
      [-4, 0],
    ] as const)
      expect(past(100_000 + 100 * z))
        .withContext(`${z}`)
        .toBeCloseTo(p, 2);
    expect(run(50_000, 100, 61)).toEqual([['past', ['k', 't'], '']]);
    expect(run(50_000, 100, 60)).toEqual([['within', ['k', 't'], '']]);
    expect(run(100_100, 100, 61)).toEqual([['past', ['k', 't'], '']]);
    expect(run(undefined, 0, undefined)).toEqual([]);
    expect(of('interval.run', { usage: { time: { months: 90, facts: ['t'] } } })).toEqual([]);
  });

  it('of a distance: what it may be however near nought, from where it began where that is told, else what it is at most', () => {
    expect(of('distance.run', { usage: { distance: { km: 2001, u: 1000, facts: ['k'] } } })[0]![0]).toEqual({
      x: 2001,
      u: 1000,
    });
    expect(of('distance.run', { usage: { distance: { km: 0, u: 1000, facts: ['k'] } } })[0]![0]).toEqual({
      x: 0,
      u: 1000,
    });
    expect(of('distance.run', { usage: { distance: { km: 0, u: 0, facts: ['k'] } } })[0]![0]).toEqual({
      from: 0,
      to: 1,
    });
    const at = (key: string, value: number, u: number, k: number): Fact => ({
      id: `n${k}`,
      case: 'c',
      key,
      value,
      u,
      how: 'reported',
      by: 'T',
      at: `2026-01-01T00:00:0${k}.000Z`,
    });
    const began = reduce([at('kit.fitted_odometer', 50_000, 3, 1), at('noise.began_at', 51_000, 4, 2)]);
    expect(
      of('distance.run', { state: began, usage: { distance: { km: 9000, u: 5, facts: ['k'] } } })[0]![0],
    ).toEqual({ x: 1000, u: 5 });
    expect(of('distance.run', { usage: { atMost: { km: { most: 900, facts: ['m'] } } } })).toEqual([
      [{ from: 0, to: 900 }, ['m'], ''],
    ]);
  });

  it('of heads, links, leaks, faults and captures: by how likely each is, and nothing where nothing was read', () => {
    const near = (mm: number) =>
      of('heads.nearer', { state: stateOf([['bank.nearer', mm]]) }).map(([v]) => v);
    const u = (OBSERVABLES.find((o) => o.key === 'bank.nearer')!.type as { u?: number }).u ?? 0;
    // Bayes by hand: an error of the reading against anything up to a millimetre
    expect([near(20 * u), near(-u)]).toEqual([['nearer'], ['as_drawn']]);
    const both = near(2 * u)[0] as unknown as { grades: Record<string, number> };
    expect(both.grades['as_drawn']! / both.grades['nearer']!).toBeCloseTo(0.05399 / u / 0.97725, 3);
    expect(of('heads.nearer', {})).toEqual([]);
    const leak = (chances: object | undefined) =>
      of('leak.down', {
        leaks: [{ about: 'tensioner', facts: ['l'], chances }] as unknown as ExaminationContext['leaks'],
      });
    expect(leak({ above: 1 })).toEqual([['above', ['l'], 'tensioner']]);
    expect(leak({ above: 0.4, within: 0.6 })[0]![0]).toEqual({ grades: { above: 0.4, within: 0.6 } });
    expect(leak(undefined)).toEqual([]);
    expect(
      of('sheet.fault', {
        sheetFaults: [
          { code: 'A', facts: ['1'] },
          { code: 'B', facts: ['2'] },
          { code: 'A', facts: ['3', '1'] },
        ],
      }),
    ).toEqual([
      ['A', ['1', '3'], ''],
      ['B', ['2'], ''],
    ]);
    const shift = (chances: Partial<Record<'in_tolerance' | 'whole' | 'fraction', number>>) =>
      of('trace.shift', { trace: { facts: ['c'], chances } }).map(([v]) => v);
    expect([shift({ in_tolerance: 1 }), shift({ whole: 1 }), shift({ whole: 0.5, fraction: 0.5 })]).toEqual([
      ['within'],
      ['whole'],
      [{ grades: { whole: 0.5, fraction: 0.5 } }],
    ] as never);
    expect(of('trace.shift', { trace: { facts: [] } })).toEqual([]);
  });

  it('come from no derived rule of an empty bench', () => {
    for (const [name, rule] of Object.entries(DERIVED))
      expect(rule(ctx({})))
        .withContext(name)
        .toEqual([]);
  });

  it('at places count each grade once, on all the facts that show it', () => {
    const placed = OBSERVABLES.find((o) => o.place === 'tooth' && o.type.kind === 'choice')!;
    const facts = [1, 2, 3].map((from, i) => ({
      id: `p${from}`,
      case: 'c',
      key: placed.key,
      place: { on: 'tooth' as const, from },
      value: i < 2 ? 'torn' : 'cracked',
      how: 'seen' as const,
      by: 'T',
      at: '2026-11-01T08:00:00.000Z',
      seen: from,
    }));
    const got = findingsOf([placed.key], ctx({ state: reduce(facts) }));
    expect(got.map((f) => [f.value, f.facts])).toEqual([
      ['torn', ['p1', 'p2']],
      ['cracked', ['p3']],
    ]);
  });
});
