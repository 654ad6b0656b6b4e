import { CAUSES, causesFor } from './cause-data';
import { ownShares, type Settled } from './own-shares';

const BELT = ['automatic_eccentric', 'belt', 'eccentric', 'roller_tensioner', 'sprung'];
const cases = (decided: string, n: number, has: string[] | undefined = BELT): Settled[] =>
  Array.from({ length: n }, () => ({ decided, has }));
const of = (settled: Settled[], cause: string, weight = 4) =>
  ownShares(CAUSES, settled, weight).find((s) => s.cause === cause);

describe('shares by the house’s own cases', () => {
  it('are the mean of a gamma posterior, summed up numerically, 1e-6', () => {
    const weight = 4;
    const s = of([...cases('tensioner_bearing', 7), ...cases('set_hot', 5)], 'tensioner_bearing', weight)!;
    // prior density r^(w−1) e^(−wr), likelihood of `seen` at a mean of r·expected
    let [top, all] = [0, 0];
    const step = 0.0005;
    for (let r = step / 2; r < 60; r += step) {
      const p = r ** (weight - 1 + s.seen) * Math.exp(-r * (weight + s.expected));
      top += r * p;
      all += p;
    }
    expect(s.seen).toBe(7);
    expect(s.proposed / s.prior).toBeCloseTo(top / all, 6);
  });

  it('say nothing of no cases, lean to what ships while they are few, and to what was seen once they are many', () => {
    expect(ownShares(CAUSES, [], 4)).toEqual([]);
    const few = of(cases('set_hot', 1), 'set_hot')!;
    const many = of(cases('set_hot', 400), 'set_hot')!;
    expect(few.proposed / few.prior).toBeLessThan(1.3);
    expect(few.proposed).toBeGreaterThan(few.prior);
    expect(many.proposed / many.prior).toBeGreaterThan(
      0.9 * Math.min(many.seen / many.expected, 0.9 / many.prior),
    );
    // what is expected adds up to the cases
    const expected = ownShares(CAUSES, cases('set_hot', 400), 4).reduce((sum, s) => sum + s.expected, 0);
    expect(expected).toBeGreaterThan(395);
    expect(expected).toBeLessThan(400 + 1e-6);
  });

  it('count a case only for causes that its drive can have, and none that is no cause', () => {
    const chains = new Set(['chain', 'plunger', 'shoe']);
    const shares = ownShares(CAUSES, cases('chain_worn', 60, [...chains]), 4);
    const possible = new Set(causesFor(CAUSES, chains).causes.map((c) => c.key));
    for (const s of shares) expect(possible.has(s.cause)).withContext(s.cause).toBeTrue();
    expect(
      ownShares(CAUSES, [...cases('undecidable', 9), ...cases('none', 9), ...cases('chain_worn', 9)], 4),
    ).toEqual([]);
  });
});
