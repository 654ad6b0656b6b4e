import type { NumberFound } from '@core/examination/finding';
import { normalDensity, normalQuantile } from '@core/quantity/normal';
import type { LifeTime } from './cause-data';

/** Log density of a Weibull life at x > 0. Standard form, shape k, scale λ. */
export function logWeibull(x: number, { shape, scale }: LifeTime): number {
  const z = x / scale;
  return Math.log(shape / scale) + (shape - 1) * Math.log(z) - z ** shape;
}

/** Share that runs further. */
export const survival = (x: number, { shape, scale }: LifeTime): number =>
  Math.exp(-((Math.max(0, x) / scale) ** shape));

const logOf = (x: number): number => Math.log(Math.max(x, Number.MIN_VALUE));

/** Distance by which a share has failed: the inverse of its distribution, λ·(−ln(1 − share))^(1/k). */
export const runBy = (share: number, { shape, scale }: LifeTime): number =>
  scale * (-Math.log1p(-share)) ** (1 / shape);

/** Slices of a run known within an uncertainty, and how many standard uncertainties either way they cover. */
const SLICES = { count: 80, reach: 5 };

/**
 * Log of a life's density at a run that is only known within a standard uncertainty: the density weighed with the normal
 * error of the run, over positive runs. Slices by the distribution function, F(x) = 1 − exp(−(x/λ)^k), so that a density
 * without bound at zero is no trouble.
 */
export function logLife({ x, u }: { x: number; u: number }, life: LifeTime): number {
  if (!(u > 0)) return logWeibull(x, life);
  const from = Math.max(0, x - SLICES.reach * u);
  const width = (x + SLICES.reach * u - from) / SLICES.count;
  let before = survival(from, life);
  let sum = 0;
  for (let k = 0; k < SLICES.count; k++) {
    const after = survival(from + (k + 1) * width, life);
    sum += (before - after) * normalDensity((from + (k + 0.5) * width - x) / u);
    before = after;
  }
  return logOf(sum / u);
}

type Run = NumberFound;
/** Log of how likely a distance run is under a life, km. */
export const logDistance = (v: Run, life: LifeTime): number =>
  'from' in v ? logOf(survival(v.from, life) - survival(v.to, life)) : logLife(v, life);

/** What a drive runs a month: points of equal share of a lognormal. */
const RATES = 15;
/**
 * Log of how likely a time run is under a life in distance: over what a drive may run a month, km. Where the distance is known too, the time says no more of the cause: it is
 * then left out.
 */
export function logTime(v: Run, life: LifeTime, yearly: { kmPerMonth: number; sd: number }): number {
  const [from, to] = 'from' in v ? [v.from, v.to] : [v.x - v.u, v.x + v.u];
  let sum = 0;
  for (let k = 0; k < RATES; k++) {
    const rate = yearly.kmPerMonth * Math.exp(yearly.sd * normalQuantile((k + 0.5) / RATES));
    sum += survival(from * rate, life) - survival(to * rate, life);
  }
  return logOf(sum / RATES);
}
