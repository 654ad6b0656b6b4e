import { num } from './must';

const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];

/** ln Γ(x) for x > 0 (Lanczos, g = 7, nine terms), relative error below 1e-13. */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const y = x - 1;
  let sum = num(LANCZOS, 0);
  for (let i = 1; i < LANCZOS.length; i++) sum += num(LANCZOS, i) / (y + i);
  const t = y + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (y + 0.5) * Math.log(t) - t + Math.log(sum);
}

const TINY = 1e-300;
const ENOUGH = 1e-16;
const MOST = 10_000;

/**
 * Regularised incomplete gamma functions of a > 0 at x ≥ 0: `lower` P(a, x) and `upper` Q(a, x) = 1 − P, each to full relative
 * accuracy where it is small: the series below a + 1, Lentz's continued fraction above (Abramowitz & Stegun 6.5.29, 6.5.31).
 */
export function gammaParts(a: number, x: number): { lower: number; upper: number } {
  if (x <= 0) return { lower: 0, upper: 1 };
  if (x === Infinity) return { lower: 1, upper: 0 };
  const front = Math.exp(a * Math.log(x) - x - logGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < MOST && term > ENOUGH * sum; n++) {
      term *= x / (a + n);
      sum += term;
    }
    const lower = front * sum;
    return { lower, upper: 1 - lower };
  }
  let b = x + 1 - a;
  let c = 1 / TINY;
  let d = 1 / b;
  let h = d;
  for (let i = 1; i < MOST; i++) {
    const an = -i * (i - a);
    b += 2;
    d = 1 / safe(an * d + b);
    c = safe(b + an / c);
    h *= d * c;
    if (Math.abs(d * c - 1) < ENOUGH) break;
  }
  const upper = front * h;
  return { lower: 1 - upper, upper };
}
const safe = (v: number): number => (Math.abs(v) < TINY ? TINY : v);

/** Regularised incomplete beta function I_x(a, b), a, b > 0 (continued fraction, Abramowitz & Stegun 26.5.8). */
export function betaPart(a: number, b: number, x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x));
  return x < (a + 1) / (a + b + 2)
    ? (front * fraction(a, b, x)) / a
    : 1 - (front * fraction(b, a, 1 - x)) / b;
}

function fraction(a: number, b: number, x: number): number {
  let c = 1;
  let d = 1 / safe(1 - ((a + b) * x) / (a + 1));
  let h = d;
  for (let m = 1; m < MOST; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / safe(1 + even * d);
    c = safe(1 + even / c);
    h *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / safe(1 + odd * d);
    c = safe(1 + odd / c);
    h *= d * c;
    if (Math.abs(d * c - 1) < ENOUGH) break;
  }
  return h;
}

/** x at which an increasing function of x is q, by halving in [low, high] to full accuracy. */
function atHeight(f: (x: number) => number, q: number, low: number, high: number): number {
  let [a, b] = [low, high];
  for (let k = 0; k < 200; k++) {
    const mid = (a + b) / 2;
    if (mid === a || mid === b) break;
    if (f(mid) < q) a = mid;
    else b = mid;
  }
  return (a + b) / 2;
}

/** Quantile of the gamma distribution of shape a and scale 1. */
export function gammaQuantile(a: number, q: number): number {
  if (q <= 0) return 0;
  let high = a + 10 * Math.sqrt(a) + 10;
  const { lower, upper } = { lower: q, upper: 1 - q };
  while (gammaParts(a, high).upper > upper) high *= 2;
  // The smaller tail is the one that is known well.
  return lower < 0.5
    ? atHeight((x) => gammaParts(a, x).lower, lower, 0, high)
    : atHeight((x) => -gammaParts(a, x).upper, -upper, 0, high);
}

/** Quantile of the beta distribution. */
export const betaQuantile = (a: number, b: number, q: number): number =>
  atHeight((x) => betaPart(a, b, x), q, 0, 1);

/** Quantile of χ² with one degree of freedom at 95 %. */
export const CHI2_95 = 3.841458820694124;
