import { randomFrom } from '@core/quantity/random';
import { returnsByMonth, sharesByQuarter, watchOver } from './charts';
import { expectedByLot } from './expected';
import { inventPopulation, STORIES, THREE_YEARS } from './invented';
import { PATTERN_LIMITS } from './limits';
import { populationOf, type Return } from './population';

const TODAY = '2026-12-01';
const EACH = Math.ceil(THREE_YEARS.lots / THREE_YEARS.kits);

/** A Poisson count by counting arrivals: a way of its own. */
function drawn(mean: number, random: () => number): number {
  let [n, t] = [0, -Math.log(1 - random())];
  while (t < mean) [n, t] = [n + 1, t - Math.log(1 - random())];
  return n;
}

describe('control charts', () => {
  const x = inventPopulation(2, TODAY);
  const p = populationOf(x.sold, x.returns, TODAY);
  const bad = { kit: x.kits[STORIES.lot!.kit]!, lot: x.lots[STORIES.lot!.kit * EACH + STORIES.lot!.lot]! };

  it('a share is held by limits that a table of the binomial distribution has', () => {
    const some = (n: number, k: number): Return[] =>
      Array.from({ length: n }, (_, i) => ({
        id: String(i),
        tag: '',
        kit: 'K',
        lot: '',
        shop: 'S',
        fitted: '2026-02-11',
        failed: '',
        cause: '',
        faults: i < k ? [{ code: 'C', step: 's' }] : [],
        cost: 0,
      }));
    const of = (n: number, k: number, share: number) =>
      sharesByQuarter(some(n, k), (r) => r.faults.length > 0, share)[0]!;
    // n = 20, share 0.1: P(X >= 7) = 0.0024, P(X >= 8) = 0.0004; n = 20, share 0.5: P(X <= 3) = 0.0013, P(X <= 2) = 0.0002
    expect(of(20, 7, 0.1)).toEqual({
      from: '2026-01',
      n: 20,
      k: 7,
      expected: 2,
      low: 0,
      high: 7,
      out: undefined,
    });
    expect(of(20, 8, 0.1).out).toBe('above');
    expect(of(20, 3, 0.5).out).toBeUndefined();
    expect(of(20, 2, 0.5).out).toBe('below');
    expect(sharesByQuarter([{ ...some(1, 1)[0]!, fitted: '' }], () => true, 0.5)).toEqual([]);
  });

  it('months of a lot add up to what is expected of it by the others, and the bad one leaves its limits', () => {
    const months = returnsByMonth(p, bad.kit, bad.lot);
    const own = p.lots.filter((l) => l.kit === bad.kit);
    const at = own.findIndex((l) => l.lot === bad.lot);
    // by all lots, itself among them, it is expected more: its own returns made the life shorter
    const whole = expectedByLot(own, p)[at]!;
    const sum = months.reduce((s, m) => s + m.expected, 0);
    expect(sum).toBeLessThan(whole);
    expect(sum).toBeGreaterThan(0.9 * whole);
    expect(months.reduce((s, m) => s + m.k, 0)).toBe(own[at]!.returns.length);
    expect(months.some((m) => m.out === 'above')).toBeTrue();
    expect(returnsByMonth(p, bad.kit, 'none')).toEqual([]);
    const alone = populationOf(
      x.sold.filter((s) => s.lot === bad.lot),
      x.returns.filter((r) => r.lot === bad.lot),
      TODAY,
    );
    expect(returnsByMonth(alone, bad.kit, bad.lot)).toEqual([]);
  });

  it('a watch sees the bad lot, and is false in no more lots than it says', () => {
    expect(watchOver(returnsByMonth(p, bad.kit, bad.lot)).since).toBeDefined();
    const random = randomFrom(11);
    let [alarms, found] = [0, 0];
    const lots = 2000;
    for (let i = 0; i < lots; i++) {
      const spans = Array.from({ length: 36 }, (_, m) => ({ from: String(m), expected: 0.2 + 0.02 * m }));
      const at = (times: number) => spans.map((s) => ({ ...s, k: drawn(times * s.expected, random) }));
      if (watchOver(at(1)).since !== undefined) alarms++;
      if (watchOver(at(3)).since !== undefined) found++;
    }
    expect(alarms / lots).toBeLessThan(PATTERN_LIMITS.falseShare);
    expect(found / lots).toBeGreaterThan(0.99);
    // by hand: two came where half was expected, twice
    const two = watchOver([
      { from: 'a', k: 2, expected: 0.5 },
      { from: 'b', k: 0, expected: 3 },
      { from: 'c', k: 1, expected: 0.1 },
    ]);
    [2 * Math.log(2) - 0.5, 0, Math.log(2) - 0.1].forEach((s, i) => expect(two.sums[i]!).toBeCloseTo(s, 12));
  });
});
