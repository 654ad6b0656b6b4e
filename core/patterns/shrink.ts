import { gammaQuantile, logGamma } from '@core/quantity/incomplete';
import type { Interval } from './rates';

/** Returns, and how many were to be expected at the rate of all. */
export type ReturnsAgainst = { returns: number; expected: number };
/** How rates differ: a gamma distribution of the ratio to what is expected. */
export type Spread = { shape: number; rate: number };
export type Shrunk = { ratio: number; interval: Interval };

/**
 * How much workshops differ among themselves, from their counts alone: the gamma distribution of their ratios that makes the
 * counts likeliest (negative binomial, mean one), found over its shape by golden section. Infinite shape: they do not differ.
 */
export function ratioSpread(all: readonly ReturnsAgainst[]): Spread {
  const used = all.filter((a) => a.expected > 0);
  const total = used.reduce((s, a) => ({ k: s.k + a.returns, e: s.e + a.expected }), { k: 0, e: 0 });
  const mean = total.e > 0 ? total.k / total.e : 1;
  const like = (logShape: number) => {
    const a = Math.exp(logShape);
    const b = a / Math.max(mean, 1e-12);
    return used.reduce((s, x) => s + logNegative(x, a, b), 0);
  };
  const [low, high] = [Math.log(1e-2), Math.log(1e6)];
  const best = golden(like, low, high);
  const shape = Math.exp(best);
  return { shape, rate: shape / Math.max(mean, 1e-12) };
}

/** ln of the chance of a count when the ratio is gamma distributed, without what does not depend on it. */
const logNegative = ({ returns: k, expected: e }: ReturnsAgainst, a: number, b: number): number =>
  logGamma(a + k) - logGamma(a) + a * Math.log(b / (b + e)) + k * Math.log(e / (b + e));

/** Where a function with one hill is highest. */
function golden(f: (x: number) => number, low: number, high: number): number {
  const g = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [low, high];
  let [c, d] = [b - g * (b - a), a + g * (b - a)];
  let [fc, fd] = [f(c), f(d)];
  while (b - a > 1e-7) {
    if (fc >= fd) {
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
}

/** The ratio of one with what is known of all beside it: small counts lean on the mean, large ones stand for themselves. */
export function shrink(x: ReturnsAgainst, s: Spread, level = 0.95): Shrunk {
  const [a, b] = [s.shape + x.returns, s.rate + x.expected];
  const half = (1 - level) / 2;
  return {
    ratio: a / b,
    interval: { from: gammaQuantile(a, half) / b, to: gammaQuantile(a, 1 - half) / b },
  };
}
