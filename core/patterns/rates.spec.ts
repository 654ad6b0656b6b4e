import { randomFrom } from '@core/quantity/random';
import { atLeast, atLeastOf, clopperPearson, compareRates, falseDiscovery, garwood } from './rates';
import { shrink, ratioSpread } from './shrink';

const factorial = (n: number): number => (n < 2 ? 1 : n * factorial(n - 1));
const choose = (n: number, k: number) => factorial(n) / factorial(k) / factorial(n - k);

describe('exact intervals and tests', () => {
  it('agree with published tables of the Poisson mean to the places printed', () => {
    const table = [
      [0, 0, 3.689],
      [1, 0.025, 5.572],
      [2, 0.242, 7.225],
      [3, 0.619, 8.767],
      [5, 1.623, 11.668],
      [10, 4.795, 18.39],
      [20, 12.217, 30.888],
      [50, 37.111, 65.919],
    ] as const;
    for (const [k, from, to] of table) {
      const g = garwood(k);
      expect(Math.abs(g.from - from))
        .withContext(`${k} from ${g.from}`)
        .toBeLessThan(6e-4);
      expect(Math.abs(g.to - to))
        .withContext(`${k} to ${g.to}`)
        .toBeLessThan(6e-4);
    }
  });

  it('agree with published tables of the binomial share to the places printed', () => {
    const table = [
      [0, 10, 0, 0.3085],
      [1, 10, 0.0025, 0.445],
      [5, 10, 0.1871, 0.8129],
      [3, 20, 0.0321, 0.3789],
      [10, 10, 0.6915, 1],
    ] as const;
    for (const [k, n, from, to] of table) {
      const c = clopperPearson(k, n);
      expect(Math.abs(c.from - from))
        .withContext(`${k}/${n} ${c.from}`)
        .toBeLessThan(6e-5);
      expect(Math.abs(c.to - to))
        .withContext(`${k}/${n} ${c.to}`)
        .toBeLessThan(6e-5);
    }
  });

  it('have tails that are the sums of their terms, at large and at vanishing chances', () => {
    for (const [k, mean] of [
      [1, 0.2],
      [4, 2.5],
      [12, 3],
      [30, 4],
    ] as const) {
      let sum = 0;
      for (let i = k; i < k + 60; i++) sum += Math.exp(-mean + i * Math.log(mean) - logFactorial(i));
      expect(atLeast(k, mean) / sum)
        .withContext(`${k} ${mean}`)
        .toBeCloseTo(1, 9);
    }
    for (const [k, n, p] of [
      [3, 12, 0.1],
      [11, 12, 0.02],
      [6, 15, 0.5],
    ] as const) {
      let sum = 0;
      for (let i = k; i <= n; i++) sum += choose(n, i) * p ** i * (1 - p) ** (n - i);
      expect(atLeastOf(k, n, p) / sum)
        .withContext(`${k} ${n} ${p}`)
        .toBeCloseTo(1, 9);
    }
  });

  it('compare two rates so that the interval of their ratio leaves out one exactly when the test says so', () => {
    const random = randomFrom(5);
    for (let i = 0; i < 400; i++) {
      const one = { returns: Math.floor(random() * 14), exposure: 50 + 500 * random() };
      const other = { returns: Math.floor(random() * 60), exposure: 500 + 5000 * random() };
      if (one.returns + other.returns === 0) continue;
      const c = compareRates(one, other);
      expect(c.interval.from > 1)
        .withContext(JSON.stringify([one, other, c]))
        .toBe(c.p < 0.025);
      if (other.returns > 0)
        expect(c.ratio).toBeCloseTo((one.returns / one.exposure) * (other.exposure / other.returns), 9);
    }
  });

  it('keep false alarms at their share: none of a thousand desks with nothing there alarms more often than it may', () => {
    const random = randomFrom(11);
    let alarms = 0;
    for (let desk = 0; desk < 1000; desk++) {
      const ps = Array.from({ length: 200 }, () => random());
      if (falseDiscovery(ps).some((q) => q <= 0.05)) alarms++;
    }
    // 5 % of 1,000 and three standard errors of that
    expect(alarms).toBeLessThanOrEqual(71);
    expect(alarms).toBeGreaterThan(29);
    // the definition itself: the largest k with p(k) ≤ k q / n, and all below it
    const ps = [0.001, 0.2, 0.012, 0.04, 0.9, 0.013];
    const sorted = [...ps].sort((a, b) => a - b);
    const k = sorted.findLastIndex((p, i) => p <= ((i + 1) * 0.05) / ps.length);
    expect(falseDiscovery(ps).map((q) => q <= 0.05)).toEqual(ps.map((p) => p <= sorted[k]!));
  });
});

describe('small workshops', () => {
  it('lean on the mean of all, the more the less they did; large ones stand for themselves', () => {
    const random = randomFrom(3);
    const poisson = (mean: number) => {
      let [k, p] = [0, Math.exp(-mean)];
      let sum = p;
      const u = random();
      while (u > sum && k < 1000) {
        k++;
        p *= mean / k;
        sum += p;
      }
      return k;
    };
    // shape 4: ratios with a standard deviation of one half
    const ratios = Array.from({ length: 600 }, () =>
      [1, 2, 3, 4].reduce((s) => s - Math.log(1 - random()) / 4, 0),
    );
    const all = ratios.map((r, i) => ({
      expected: i % 3 === 0 ? 40 : 1,
      returns: poisson(r * (i % 3 === 0 ? 40 : 1)),
    }));
    const spread = ratioSpread(all);
    expect(spread.shape).toBeGreaterThan(3);
    expect(spread.shape).toBeLessThan(5.5);
    const [small, large] = [
      shrink({ returns: 4, expected: 1 }, spread),
      shrink({ returns: 160, expected: 40 }, spread),
    ];
    expect(small.ratio).toBeLessThan(2);
    expect(large.ratio).toBeGreaterThan(3.4);
    // by a second method: what truly was, of those with so many returns
    const alike = ratios.filter((_, i) => all[i]!.expected === 1 && all[i]!.returns === 3);
    const mean = alike.reduce((a, b) => a + b, 0) / alike.length;
    expect(Math.abs(shrink({ returns: 3, expected: 1 }, spread).ratio - mean)).toBeLessThan(0.25);
    // intervals hold what is true as often as they say
    const held = ratios.filter((r, i) => {
      const { interval } = shrink(all[i]!, spread);
      return r >= interval.from && r <= interval.to;
    }).length;
    expect(held / ratios.length).toBeGreaterThan(0.92);
    expect(held / ratios.length).toBeLessThan(0.98);
  });
});

const logFactorial = (n: number): number => {
  let sum = 0;
  for (let i = 2; i <= n; i++) sum += Math.log(i);
  return sum;
};
