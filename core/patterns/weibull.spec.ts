import { randomFrom } from '@core/quantity/random';
import { kaplanMeier, medianRanks } from './plotted';
import { competingModes, twoPopulations } from './populations';
import { fitWeibull, type WeibullFit } from './weibull';
import { failedBy, lifeAt, likelihoodInterval, waldInterval } from './weibull-bounds';
import { logLikelihood, type LifeRow, slopes } from './weibull-likelihood';

/** Lives drawn from a Weibull, cut at a study's end, some known only by their month. */
function drawn(seed: number, n: number, shape: number, scale: number, cut: number, month = 0): LifeRow[] {
  const random = randomFrom(seed);
  return Array.from({ length: n }, () => {
    const t = scale * (-Math.log(1 - random())) ** (1 / shape);
    const end = cut * (0.4 + 0.6 * random());
    if (t > end) return { from: end, to: Infinity };
    const from = month > 0 ? Math.floor(t / month) * month : t;
    return { from, to: month > 0 ? from + month : t };
  });
}
const SETS = [
  [1, 12, 1.5, 1000, 5000, 0],
  [2, 20, 0.7, 800, 900, 0],
  [3, 40, 3.2, 60, 55, 0],
  [4, 80, 2, 1, 0.8, 0],
  [5, 150, 1, 90_000, 60_000, 0],
  [6, 300, 5, 120_000, 90_000, 0],
  [7, 200, 0.5, 10_000, 2000, 0],
  [8, 25, 1.8, 48, 60, 6],
  [9, 60, 1.2, 36, 24, 3],
  [10, 120, 2.6, 30, 24, 1],
  [11, 200, 0.9, 200, 36, 1],
  [12, 250, 1.4, 150, 36, 2],
  [13, 300, 3, 90, 60, 1],
  [14, 30, 8, 70_000, 69_000, 0],
  [15, 50, 1.1, 5e6, 3e6, 0],
  [16, 15, 2, 500, 350, 50],
  [17, 500, 2.2, 140, 60, 1],
  [18, 6, 1.3, 400, 600, 0],
] as const;

/** ln likelihood written once more, from survival alone. */
function likelihood(rows: readonly LifeRow[], eta: number, beta: number): number {
  const lived = (t: number) => Math.exp(-((t / eta) ** beta));
  return rows.reduce((sum, r) => {
    if (r.to === Infinity) return sum - (r.from / eta) ** beta;
    if (r.to > r.from) return sum + Math.log(lived(r.from) - lived(r.to));
    return sum + Math.log((beta / eta) * (r.from / eta) ** (beta - 1)) - (r.from / eta) ** beta;
  }, 0);
}
/** Its highest place by nested golden sections: slow, without a derivative. */
function highest(rows: readonly LifeRow[]): { eta: number; beta: number; value: number } {
  const g = (Math.sqrt(5) - 1) / 2;
  const golden = (f: (x: number) => number, low: number, high: number) => {
    let [a, b] = [low, high];
    let [c, d] = [b - g * (b - a), a + g * (b - a)];
    let [fc, fd] = [f(c), f(d)];
    for (let k = 0; k < 50; k++) {
      if (fc > fd) {
        [b, d, fd] = [d, c, fc];
        c = b - g * (b - a);
        fc = f(c);
      } else {
        [a, c, fc] = [c, d, fd];
        d = a + g * (b - a);
        fd = f(d);
      }
    }
    return (a + b) / 2;
  };
  const times = rows.map((r) => (r.to === Infinity ? r.from : r.to));
  const [low, high] = [Math.log(Math.min(...times) / 10), Math.log(Math.max(...times) * 1e4)];
  const scaleAt = (b: number) => golden((u) => likelihood(rows, Math.exp(u), Math.exp(b)), low, high);
  const b = golden((x) => likelihood(rows, Math.exp(scaleAt(x)), Math.exp(x)), Math.log(0.1), Math.log(30));
  const u = scaleAt(b);
  return { eta: Math.exp(u), beta: Math.exp(b), value: likelihood(rows, Math.exp(u), Math.exp(b)) };
}
const fitted = (rows: readonly LifeRow[]): WeibullFit => {
  const fit = fitWeibull(rows);
  if (!fit.ok) throw new Error(fit.error.code);
  return fit.value;
};

describe('a Weibull life by maximum likelihood', () => {
  it('agrees with a second method on eighteen sets, exact, suspended and within months', () => {
    for (const [seed, n, shape, scale, cut, month] of SETS) {
      const rows = drawn(seed, n, shape, scale, cut, month);
      const [fit, other] = [fitted(rows), highest(rows)];
      expect(Math.abs(fit.logLikelihood - other.value))
        .withContext(`set ${seed}`)
        .toBeLessThan(1e-6);
      expect(Math.abs(fit.shape / other.beta - 1))
        .withContext(`set ${seed} β`)
        .toBeLessThan(1e-5);
      expect(Math.abs(fit.scale / other.eta - 1))
        .withContext(`set ${seed} η`)
        .toBeLessThan(1e-5);
      // the top of a hill is flat, whatever its height
      const s = slopes(rows, Math.log(fit.scale), Math.log(fit.shape));
      expect(Math.max(Math.abs(s.u), Math.abs(s.b)))
        .withContext(`set ${seed} slope`)
        .toBeLessThan(1e-4);
    }
  });

  it('solves the textbook’s own equations where failures are exact, and counts rows by how many they stand for', () => {
    const rows = drawn(21, 60, 1.7, 500, 450);
    const fit = fitted(rows);
    const failed = rows.filter((r) => r.to < Infinity);
    const power = (f: (t: number) => number) => rows.reduce((s, r) => s + f(r.from), 0);
    const b = fit.shape;
    const mean = failed.reduce((s, r) => s + Math.log(r.from), 0) / failed.length;
    expect(power((t) => t ** b * Math.log(t)) / power((t) => t ** b) - 1 / b).toBeCloseTo(mean, 8);
    expect(fit.scale ** b).toBeCloseTo(power((t) => t ** b) / failed.length, 4);
    const twice = fitted([...rows, ...rows]);
    const weighed = fitted(rows.map((r) => ({ ...r, n: 2 })));
    expect(weighed.shape).toBeCloseTo(twice.shape, 9);
    expect(weighed.cov.bb).toBeCloseTo(fit.cov.bb / 2, 9);
  });

  it('has slopes that are the differences of its height', () => {
    const rows: LifeRow[] = [
      { from: 3, to: 3 },
      { from: 4, to: 9, n: 2 },
      { from: 0, to: 2 },
      { from: 7, to: Infinity, n: 5 },
    ];
    const [u, b, h] = [2.1, 0.4, 1e-4];
    const f = (x: number, y: number) => logLikelihood(rows, x, y);
    const s = slopes(rows, u, b);
    expect(s.u).toBeCloseTo((f(u + h, b) - f(u - h, b)) / (2 * h), 5);
    expect(s.b).toBeCloseTo((f(u, b + h) - f(u, b - h)) / (2 * h), 5);
    expect(s.uu).toBeCloseTo((f(u + h, b) - 2 * f(u, b) + f(u - h, b)) / (h * h), 3);
    expect(s.bb).toBeCloseTo((f(u, b + h) - 2 * f(u, b) + f(u, b - h)) / (h * h), 3);
    const cross = f(u + h, b + h) - f(u + h, b - h) - f(u - h, b + h) + f(u - h, b - h);
    expect(s.ub).toBeCloseTo(cross / (4 * h * h), 3);
  });

  it('refuses what has no fit, with its reason', () => {
    const code = (rows: LifeRow[]) => {
      const fit = fitWeibull(rows);
      return fit.ok ? 'fits' : fit.error.code;
    };
    expect(code([])).toBe('no_failures');
    expect(code([{ from: 10, to: Infinity, n: 500 }])).toBe('no_failures');
    expect(code([{ from: 10, to: 10, n: 7 }])).toBe('all_tied');
    expect(
      code([
        { from: 10, to: 10 },
        { from: 8, to: Infinity },
        { from: 10, to: Infinity },
      ]),
    ).toBe('all_tied');
    expect(
      code([
        { from: 10, to: 20 },
        { from: 15, to: 30 },
        { from: 12, to: Infinity },
      ]),
    ).toBe('all_tied');
    expect(
      code([
        { from: 10, to: 20 },
        { from: 15, to: 30 },
        { from: 25, to: Infinity },
      ]),
    ).toBe('fits');
    expect(
      code([
        { from: 10, to: 10 },
        { from: 11, to: Infinity },
      ]),
    ).toBe('fits');
    expect(
      code([
        { from: 10, to: 10 },
        { from: -1, to: Infinity },
      ]),
    ).toBe('bad_time');
    expect(
      code([
        { from: 10, to: 9 },
        { from: 20, to: Infinity },
      ]),
    ).toBe('bad_time');
    expect(code([{ from: NaN, to: NaN }])).toBe('bad_time');
  });

  it('says little of one failure far below its suspensions', () => {
    const rows = [
      { from: 2000, to: 2000 },
      { from: 60_000, to: Infinity, n: 400 },
    ];
    const fit = fitted(rows);
    const b10 = likelihoodInterval(rows, fit, { of: 'quantile', share: 0.1 });
    expect(b10.to / b10.from).toBeGreaterThan(1000);
  });

  it('gives intervals by the likelihood whose ends are as unlikely as they say, and Wald’s near them where much failed', () => {
    const rows = drawn(33, 2000, 2, 50, 60, 1);
    const fit = fitted(rows);
    for (const figure of [{ of: 'shape' }, { of: 'scale' }, { of: 'quantile', share: 0.1 }] as const) {
      const [w, l] = [waldInterval(fit, figure), likelihoodInterval(rows, fit, figure)];
      expect(Math.abs(w.from / l.from - 1))
        .withContext(figure.of)
        .toBeLessThan(0.03);
      expect(Math.abs(w.to / l.to - 1))
        .withContext(figure.of)
        .toBeLessThan(0.03);
    }
    const small = drawn(18, 6, 1.3, 400, 600);
    const few = fitted(small);
    for (const end of Object.values(likelihoodInterval(small, few, { of: 'shape' }))) {
      // by hand: the best scale for that shape in closed form
      const failed = small.filter((r) => r.to < Infinity).length;
      const eta = (small.reduce((s, r) => s + r.from ** end, 0) / failed) ** (1 / end);
      expect(few.logLikelihood - likelihood(small, eta, end)).toBeCloseTo(3.841458820694124 / 2, 6);
    }
    expect(failedBy(few, lifeAt(few, 0.1))).toBeCloseTo(0.1, 12);
  });
});

describe('failures on probability paper', () => {
  it('are placed by Kaplan and Meier as by hand, and by median ranks as in the printed table', () => {
    const rows = [1, 2, 3, 4].map((t) => ({ from: t, to: t === 3 ? Infinity : t }));
    // 1/4, then 1/3 of three quarters, then all that is left
    [0.125, 0.375, 0.75].forEach((x, i) => expect(kaplanMeier(rows)[i]!.share).toBeCloseTo(x, 12));
    const five = medianRanks([1, 2, 3, 4, 5].map((t) => ({ from: t, to: t })));
    [0.1294, 0.3138, 0.5, 0.6862, 0.8706].forEach((share, i) => expect(five[i]!.share).toBeCloseTo(share, 4));
    // a suspension pushes the ranks behind it on: (n + 1 − 1) / (1 + 3) beyond the first
    const [, second] = medianRanks([
      { from: 1, to: 1 },
      { from: 2, to: Infinity },
      { from: 3, to: 3 },
      { from: 4, to: 4 },
    ]);
    const [, plain] = medianRanks([1, 2, 3, 4].map((t) => ({ from: t, to: t })));
    expect(second!.share).toBeGreaterThan(plain!.share);
  });

  it('lie on the line of the life they were drawn from', () => {
    const rows = drawn(6, 300, 5, 120_000, 90_000);
    const fit = fitted(rows);
    for (const points of [kaplanMeier(rows), medianRanks(rows)])
      for (const p of points.slice(5))
        expect(Math.abs(p.share - failedBy(fit, p.time)))
          .withContext(`${p.time}`)
          .toBeLessThan(0.05);
  });
});

describe('several ways of failing', () => {
  it('are taken apart: each mode has the life it was drawn from, and their chances to live multiply', () => {
    const [a, b] = [drawn(31, 900, 0.8, 900, 1e9), drawn(32, 900, 4, 300, 1e9)];
    const rows = a.map((r, i) => {
      const other = b[i]!.from;
      const end = 260;
      if (Math.min(r.from, other) > end) return { from: end, to: Infinity };
      return r.from < other ? { ...r, mode: 'early' } : { from: other, to: other, mode: 'wear' };
    });
    const modes = competingModes(rows);
    expect(modes.map((m) => m.mode)).toEqual(['early', 'wear']);
    const [early, wear] = modes.map((m) => (m.fit.ok ? m.fit.value : undefined));
    expect(early!.shape).toBeCloseTo(0.8, 0);
    expect(wear!.shape).toBeCloseTo(4, 0);
    const alive = kaplanMeier(rows).at(-1)!;
    const both = (1 - failedBy(early!, alive.time)) * (1 - failedBy(wear!, alive.time));
    expect(Math.abs(1 - both - alive.share)).toBeLessThan(0.03);
  });

  it('show as two populations where two are mixed, and as one where they are not', () => {
    const mixed = [...drawn(41, 60, 3, 20, 1e9), ...drawn(42, 240, 3, 200, 260)];
    const two = twoPopulations(mixed, fitted(mixed));
    expect(two.better).toBeGreaterThan(10);
    expect(two.mixture!.share).toBeCloseTo(0.2, 1);
    expect(two.mixture!.early.scale).toBeLessThan(30);
    let plain = 0;
    for (let seed = 50; seed < 62; seed++) {
      const one = drawn(seed, 200, 1.6, 150, 260);
      if (twoPopulations(one, fitted(one)).better > 10) plain++;
    }
    expect(plain).toBeLessThanOrEqual(1);
  });
});
