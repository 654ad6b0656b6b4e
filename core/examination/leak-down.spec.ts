import { normalFrom, randomFrom } from '@core/quantity/random';
import { student975 } from '@core/quantity/student';
import { fitAt, type LeakPoint, leakDown, leakVerdict } from './leak-down';

const series = (f: (t: number) => number, sd: number, seed = 1, n = 120, step = 0.5): LeakPoint[] => {
  const random = randomFrom(seed);
  return Array.from({ length: n }, (_, i) => ({ t: i * step, x: f(i * step) + sd * normalFrom(random) }));
};

/** A second method: Gauss-Newton from a start, normal equations solved by elimination, derivatives by differences. */
function gaussNewton(
  f: (p: readonly number[], t: number) => number,
  start: readonly number[],
  points: readonly LeakPoint[],
): { p: number[]; covariance: number[][] } {
  let p = [...start];
  const jacobian = () =>
    points.map(({ t }) =>
      p.map((v, k) => {
        const h = Math.max(1e-6, Math.abs(v) * 1e-6);
        const [up, down] = [p.with(k, v + h), p.with(k, v - h)];
        return (f(up, t) - f(down, t)) / (2 * h);
      }),
    );
  const normal = (j: number[][]) =>
    p.map((_, a) => p.map((__, b) => j.reduce((s, r) => s + r[a]! * r[b]!, 0)));
  for (let round = 0; round < 60; round++) {
    const j = jacobian();
    const r = points.map(({ t, x }) => x - f(p, t));
    const step = eliminate(
      normal(j),
      p.map((_, a) => j.reduce((s, row, i) => s + row[a]! * r[i]!, 0)),
    );
    p = p.map((v, k) => v + step[k]!);
  }
  const rss = points.reduce((s, { t, x }) => s + (x - f(p, t)) ** 2, 0);
  const n = normal(jacobian());
  const inverse = p.map((_, k) =>
    eliminate(
      n,
      p.map((__, i) => (i === k ? 1 : 0)),
    ),
  );
  return { p, covariance: inverse.map((row) => row.map((v) => (v * rss) / (points.length - p.length))) };
}
function eliminate(a: readonly (readonly number[])[], b: readonly number[]): number[] {
  const m = a.map((row, i) => [...row, b[i]!]);
  for (let c = 0; c < m.length; c++) {
    const best = m.slice(c).reduce((k, row, i) => (Math.abs(row[c]!) > Math.abs(m[k]![c]!) ? c + i : k), c);
    [m[c], m[best]] = [m[best]!, m[c]!];
    for (let r = 0; r < m.length; r++) {
      if (r === c) continue;
      const q = m[r]![c]! / m[c]![c]!;
      m[r] = m[r]!.map((v, k) => v - q * m[c]![k]!);
    }
  }
  return m.map((row, i) => row[m.length]! / row[i]!);
}
const TAKE_UP = 2;
const used = (points: LeakPoint[]) =>
  points.filter((p) => p.t >= TAKE_UP).map((p) => ({ ...p, t: p.t - TAKE_UP }));
const fitOf = (points: LeakPoint[], model: string) => {
  const r = leakDown(points, TAKE_UP);
  if (!r.ok) throw new Error(r.error.code);
  return r.value.fits.find((f) => f.model === model)!;
};

describe('leak-down', () => {
  it('Student’s t at 97.5 % is as printed (Abramowitz & Stegun, table 26.10)', () => {
    for (const [nu, t] of [
      [1, 12.7062],
      [2, 4.30265],
      [5, 2.57058],
      [10, 2.22814],
      [30, 2.04227],
      [120, 1.97993],
    ] as const)
      expect(Math.abs(student975(nu) / t - 1))
        .withContext(`${nu}`)
        .toBeLessThan(nu < 5 ? 1e-4 : 1e-3);
    expect(Math.abs(student975(10) - 2.22814)).toBeLessThan(1e-4);
  });

  it('a line agrees with the closed form to 1e-4 of the rate, its interval to 1 % of its width', () => {
    for (const seed of [1, 2, 3, 4, 5]) {
      const points = series((t) => 8 - 0.021 * t, 0.01, seed);
      const fit = fitOf(points, 'line');
      const u = used(points);
      const [mt, mx] = [u.reduce((s, p) => s + p.t, 0) / u.length, u.reduce((s, p) => s + p.x, 0) / u.length];
      const sxx = u.reduce((s, p) => s + (p.t - mt) ** 2, 0);
      const slope = u.reduce((s, p) => s + (p.t - mt) * (p.x - mx), 0) / sxx;
      const rss = u.reduce((s, p) => s + (p.x - mx - slope * (p.t - mt)) ** 2, 0);
      expect(Math.abs(fit.rate / -slope - 1)).toBeLessThan(1e-4);
      const half = student975(u.length - 2) * Math.sqrt(rss / (u.length - 2) / sxx);
      expect(Math.abs(fit.halfWidth / half - 1)).toBeLessThan(0.01);
    }
  });

  it('exponential and air spring agree with a second solver to 1e-3 of the rate, intervals to 1 %', () => {
    for (const seed of [11, 12, 13, 14]) {
      const dying = series((t) => 5 + 3 * Math.exp(-t / 18), 0.01, seed);
      const fit = fitOf(dying, 'exponential');
      const other = gaussNewton(([c, a, tau], t) => c! + a! * Math.exp(-t / tau!), [5, 2.6, 17], used(dying));
      const [, a, tau] = other.p as [number, number, number];
      expect(Math.abs(fit.rate / (a / tau) - 1)).toBeLessThan(1e-3);
      const g = [0, 1 / tau, -a / tau ** 2];
      const variance = g.reduce(
        (s, v, i) => s + g.reduce((q, w, k) => q + v * w * other.covariance[i]![k]!, 0),
        0,
      );
      const half = student975(used(dying).length - 3) * Math.sqrt(variance);
      expect(Math.abs(fit.halfWidth / half - 1)).toBeLessThan(0.01);

      const cushion = series((t) => 8 - 0.012 * t + 0.9 * Math.exp(-t / 4), 0.008, seed);
      const air = fitOf(cushion, 'air_spring');
      const second = gaussNewton(
        ([c, r, b, k], t) => c! - r! * t + b! * Math.exp(-t / k!),
        [8, 0.012, 0.5, 4.2],
        used(cushion),
      );
      expect(Math.abs(air.rate / second.p[1]! - 1)).toBeLessThan(1e-3);
      const halfAir = student975(used(cushion).length - 4) * Math.sqrt(second.covariance[1]![1]!);
      expect(Math.abs(air.halfWidth / halfAir - 1)).toBeLessThan(0.01);
    }
  });

  it('chooses by the evidence: the plain one unless another is clearly likelier', () => {
    const chosen = (f: (t: number) => number, seed: number) => {
      const r = leakDown(series(f, 0.01, seed), TAKE_UP);
      return r.ok ? r.value.chosen.model : r.error.code;
    };
    const of = (f: (t: number) => number) => Array.from({ length: 20 }, (_, i) => chosen(f, 100 + i));
    const share = (list: string[], model: string) => list.filter((m) => m === model).length / list.length;
    expect(
      share(
        of((t) => 8 - 0.02 * t),
        'line',
      ),
    ).toBeGreaterThanOrEqual(0.9);
    expect(
      share(
        of((t) => 5 + 3 * Math.exp(-t / 18)),
        'exponential',
      ),
    ).toBeGreaterThanOrEqual(0.9);
    expect(
      share(
        of((t) => 8 - 0.012 * t + 0.9 * Math.exp(-t / 4)),
        'air_spring',
      ),
    ).toBeGreaterThanOrEqual(0.9);
  });

  it('the 95 % interval of the chosen rate covers the truth in 90 to 99 % of 300 seeded repeats', () => {
    let covered = 0;
    for (let k = 0; k < 300; k++) {
      const r = leakDown(
        series((t) => 8 - 0.015 * t, 0.02, 1000 + k),
        TAKE_UP,
      );
      if (r.ok && Math.abs(r.value.chosen.rate - 0.015) <= r.value.chosen.halfWidth) covered++;
    }
    expect(covered / 300).toBeGreaterThanOrEqual(0.9);
    expect(covered / 300).toBeLessThanOrEqual(0.99);
  });

  it('leaves the take-up out, minds no gap and no order, and says what is too little', () => {
    const whole = series((t) => 8 - 0.02 * t, 0, 1);
    const taken = whole.map((p) => (p.t < TAKE_UP ? { ...p, x: p.x + 3 } : p));
    expect(fitOf(taken, 'line').rate).toBeCloseTo(0.02, 9);
    for (const p of whole.slice(20)) expect(fitAt(fitOf(taken, 'line'), p.t)).toBeCloseTo(p.x, 9);
    const cushion = series((t) => 8 - 0.012 * t + 0.9 * Math.exp(-t / 4), 0);
    for (const p of cushion.slice(20)) expect(fitAt(fitOf(cushion, 'air_spring'), p.t)).toBeCloseTo(p.x, 6);
    const gappy = taken.filter((_, i) => i % 7 !== 3 && (i < 40 || i > 70)).reverse();
    expect(fitOf(gappy, 'line').rate).toBeCloseTo(0.02, 9);
    const few = leakDown(whole.slice(0, 9), TAKE_UP);
    expect(few.ok ? '' : few.error.code).toBe('too_few');
    const still = leakDown(
      whole.map((p) => ({ ...p, t: 0 })),
      0,
    );
    expect(still.ok ? '' : still.error.code).toBe('no_time');
    expect(leakDown([], 0).ok).toBeFalse();
  });

  it('is judged with its interval: within, above, or cannot tell', () => {
    expect(leakVerdict({ rate: 0.01, halfWidth: 0.002 }, 0.02)).toBe('within');
    expect(leakVerdict({ rate: 0.03, halfWidth: 0.002 }, 0.02)).toBe('above');
    expect(leakVerdict({ rate: 0.019, halfWidth: 0.002 }, 0.02)).toBe('cannot_tell');
  });
});
