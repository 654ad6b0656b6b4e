import { num } from '@core/quantity/must';
import type { Policy } from '@core/policy/policy';
import { halfOf } from '@core/quantity/judge';
import { student975 } from '@core/quantity/student';
import type { SpacingAnswer } from './spacing';

/** Damaged teeth of one wheel: all on one side of it, about this tooth, or spread around it. `p`: chance of as much on one side. */
export type SideAnswer =
  | Extract<SpacingAnswer, { verdict: 'too_few' }>
  | { verdict: 'one_side'; marks: number; tooth: number; p: number }
  | { verdict: 'around'; marks: number; p: number };

/**
 * Whether damaged teeth lie to one side of their wheel: the mean direction of their angles (Rayleigh's test; its chance by Greenwood and Durand 1955 as given in
 * Mardia & Jupp 2000, 6.3: exp(√(1 + 4n + 4(n² − R²)) − (1 + 2n)), within 0.025 from four marks on, and within 0.01 where it is below a tenth).
 * @param teeth damaged ones, from 1; @param count teeth of the wheel
 */
export function sideOf(
  teeth: readonly number[],
  count: number,
  { leastMarks: least, namedBelow }: Pick<Policy, 'leastMarks' | 'namedBelow'>,
): SideAnswer {
  const at = [...new Set(teeth)].filter((t) => t >= 1 && t <= count);
  const n = at.length;
  if (n < least) return { verdict: 'too_few', marks: n, least };
  const angle = (t: number) => (2 * Math.PI * (t - 1)) / count;
  const [x, y] = [sum(at.map((t) => Math.cos(angle(t)))), sum(at.map((t) => Math.sin(angle(t))))];
  const r2 = x * x + y * y;
  const p = Math.min(1, Math.exp(Math.sqrt(1 + 4 * n + 4 * (n * n - r2)) - (1 + 2 * n)));
  if (p >= namedBelow) return { verdict: 'around', marks: n, p };
  const middle = (Math.atan2(y, x) / (2 * Math.PI)) * count;
  return { verdict: 'one_side', marks: n, tooth: (((Math.round(middle) % count) + count) % count) + 1, p };
}

/** A depth read at a station of a guide, mm from its pivot. */
export type AtStation = { at: number; value: number; u: number };
/** How a depth changes along a guide, mm per 100 mm from the pivot, with its 95 % interval. */
export type AlongAnswer =
  | { verdict: 'too_few'; readings: number; least: number }
  | { verdict: 'to_end' | 'to_pivot' | 'even' | 'cannot_tell'; per100: number; low: number; high: number };

/** Readings that a slope with an interval takes at least. */
const LEAST_ALONG = 3;

/**
 * Whether readings along a guide grow towards its free end or its pivot: a weighted straight line (weights 1/u²), its slope with a 95 % interval from the readings' own uncertainty or
 * from how far they lie off the line, whichever is more. Even when the whole interval is less than what matters.
 * @param matters slope that matters, mm per 100 mm
 */
export function alongOf(readings: readonly AtStation[], matters: number): AlongAnswer {
  const n = readings.length;
  if (n < LEAST_ALONG || new Set(readings.map((r) => r.at)).size < LEAST_ALONG)
    return { verdict: 'too_few', readings: n, least: LEAST_ALONG };
  const w = readings.map((r) => 1 / (r.u * r.u));
  const all = sum(w);
  const mean = (of: (r: AtStation) => number) => sum(readings.map((r, i) => num(w, i) * of(r))) / all;
  const [x, y] = [mean((r) => r.at), mean((r) => r.value)];
  const sxx = sum(readings.map((r, i) => num(w, i) * (r.at - x) ** 2));
  const slope = sum(readings.map((r, i) => num(w, i) * (r.at - x) * (r.value - y))) / sxx;
  const off = sum(readings.map((r, i) => num(w, i) * (r.value - y - slope * (r.at - x)) ** 2));
  const own = halfOf(1 / Math.sqrt(sxx));
  const half = 100 * Math.max(own, student975(n - 2) * Math.sqrt(off / (n - 2) / sxx));
  const per100 = 100 * slope;
  const [low, high] = [per100 - half, per100 + half];
  const verdict =
    low > 0 ? 'to_end' : high < 0 ? 'to_pivot' : Math.max(-low, high) < matters ? 'even' : 'cannot_tell';
  return { verdict, per100, low, high };
}

const sum = (xs: readonly number[]): number => xs.reduce((a, b) => a + b, 0);
