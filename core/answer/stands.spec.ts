import * as fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import { catalogueOf } from '@core/catalogue/find-records';
import { featureKey } from '@core/catalogue/feature-observables';
import { leakDown, leakVerdict } from '@core/examination/leak-down';
import type { Fact, FactValue } from '@core/facts/fact';
import { optionsOf } from '@core/facts/observable';
import { reduce } from '@core/facts/state';
import { answersFor, failedOf, settled } from './answers';
import { Answering, node, orElse } from './node';
import { registryFor, worldOf } from './world';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const registry = registryFor(world);
let n = 0;
const fact = (key: string, value: FactValue, how: Fact['how'] = 'measured', about?: string): Fact => ({
  id: `s${++n}`,
  case: 'stands',
  key,
  value,
  how,
  ...(about === undefined ? {} : { about }),
  by: 'T',
  at: new Date(Date.UTC(2026, 0, 1) + n * 1000).toISOString(),
});
const base = (): Fact[] => [
  fact('engine.code', 'QU13-STOA'),
  fact(featureKey('plunger-cap'), 'screw', 'seen'),
];
const SERIES = 'tensioner.leak_series';
const seriesOf = (xs: readonly number[], step = 0.5): number[] => xs.flatMap((x, i) => [i * step, x]);
const line = (f: (i: number) => number, count = 40) => Array.from({ length: count }, (_, i) => f(i));

/** Series as they come from a bench, and as no bench should send them. */
const KINDS: readonly [string, readonly number[]][] = [
  ['constant', line(() => 7)],
  ['zero', line(() => 0)],
  ['two levels', line((i) => (i < 20 ? 7 : 6))],
  ['one step at the end', line((i) => (i < 39 ? 7 : 6))],
  ['counting down', line((i) => 7 - 0.01 * i)],
  ['counting up', line((i) => 0.05 * i)],
  ['drop-outs', line((i) => (i % 7 === 3 ? 0 : 7 - 0.01 * i))],
  ['alternating', line((i) => (i % 2 ? 7 : 6.99))],
  ['huge', line((i) => 1e14 + i)],
  ['tiny', line((i) => 7 + 1e-13 * i)],
  ['one reading', [7]],
  ['none', []],
];

describe('nothing that an answer throws', () => {
  it('sets a case aside: every kind of series is answered or refused', () => {
    for (const [name, xs] of KINDS)
      for (const step of [0.5, 0, 1e-9, 1e9]) {
        const facts = [...base(), fact(SERIES, seriesOf(xs, step))];
        const a = answersFor(world, reduce(facts));
        expect(() => settled(a))
          .withContext(`${name} ${step}`)
          .not.toThrow();
        expect(failedOf(a)).withContext(`${name} ${step}`).toEqual([]);
        for (const l of a.leaks) expect(l.error !== undefined || l.verdict !== undefined).toBeTrue();
      }
  });

  it('reaches the rest: one that throws leaves its own place empty and is told, all others stand', () => {
    const good = node({}, () => 1);
    const bad = orElse(
      node({ good }, (): number[] => {
        throw new Error('singular');
      }),
      () => [],
    );
    const both = node({ good, bad }, ({ good, bad }) => good + bad.length);
    const answering = new Answering(world, reduce([]));
    expect(answering.ask(both)).toBe(1);
    expect(answering.failures.map((f) => f.why)).toEqual(['singular']);
    const open = node({}, (): number => {
      throw new Error('at the root');
    });
    expect(() => answering.ask(open)).toThrowError('at the root');
  });

  it('comes of any value of any observable, however far out', () => {
    const observables = [...registry.values()];
    const value = (o: (typeof observables)[number]) => {
      const t = o.type;
      if (t.kind === 'number' || t.kind === 'count')
        return fc.constantFrom<FactValue>(0, -1e15, 1e15, t.min, t.max, 1e-300);
      if (t.kind === 'choice')
        return fc.constantFrom<FactValue>(
          ...optionsOf(o).map((x) => x.key),
          'unknown',
          'skipped',
          'nonsense',
        );
      if (t.kind === 'date')
        return fc.constantFrom<FactValue>('2026-02-29', '0001-01-01', '9999-12-31', 'unknown', '');
      return fc.oneof(
        fc.constantFrom<FactValue>('', 'unknown', 'Infinity', '9'.repeat(200)),
        fc.array(fc.double({ min: -1e15, max: 1e15, noNaN: true }), { maxLength: 40 }),
        fc.array(fc.string({ maxLength: 20 }), { maxLength: 6 }),
      );
    };
    let looked = 0;
    fc.assert(
      fc.property(
        fc.array(
          fc
            .nat(observables.length - 1)
            .chain((i) => value(observables[i]!).map((v) => ({ o: observables[i]!, v }))),
          { minLength: 1, maxLength: 12 },
        ),
        (list) => {
          const facts = [...base(), ...list.map(({ o, v }) => fact(o.key, v, 'seen'))];
          const a = answersFor(world, reduce(facts));
          expect(() => settled(a)).not.toThrow();
          expect(failedOf(a)).toEqual([]);
          looked += list.length;
        },
      ),
      { numRuns: 120 },
    );
    console.log(`answers stand: ${looked} values filed`);
  });
});

describe('a plunger that leaks', () => {
  const points = (xs: readonly number[]) => xs.map((x, i) => ({ t: i * 0.5, x }));
  it('is never within, whichever way the dial counts', () => {
    for (const sign of [1, -1]) {
      const r = leakDown(points(line((i) => 7 + sign * 0.05 * i + 0.001 * Math.sin(i))), 2);
      if (!r.ok) return fail(r.error.code);
      expect(leakVerdict(r.value.chosen, 0.02)).toBe('above');
      expect(r.value.chosen.rate).toBeCloseTo(0.1, 3);
      expect(r.value.countsUp).toBe(sign > 0);
    }
    expect(leakVerdict({ rate: -0.1, halfWidth: 0.001 }, 0.02)).toBe('above');
  });

  it('stands still where its readings do, and is refused where they jump', () => {
    const still = leakDown(points(line(() => 7)), 2);
    expect(still.ok && still.value.chosen.model).toBe('line');
    expect(still.ok && still.value.chosen.rate).toBeCloseTo(0, 12);
    const jump = leakDown(points(line((i) => (i < 25 ? 7 : 6))), 2);
    expect(jump.ok ? 'ok' : jump.error).toEqual({ code: 'jump', mm: 1, at: 12.5 });
    const bad = leakDown([...points(line(() => 7)), { t: NaN, x: 7 }], 2);
    expect(bad.ok ? 'ok' : bad.error.code).toBe('not_finite');
  });
});
