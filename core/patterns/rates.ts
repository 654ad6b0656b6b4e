import { betaPart, betaQuantile, gammaParts, gammaQuantile } from '@core/quantity/incomplete';

export type Interval = { from: number; to: number };

/**
 * Exact interval for the mean of a Poisson count (Garwood 1936): the means at which so many or more, and so few or fewer, have
 * half of 1 − level each.
 */
export function garwood(count: number, level = 0.95): Interval {
  const half = (1 - level) / 2;
  return {
    from: count === 0 ? 0 : gammaQuantile(count, half),
    to: gammaQuantile(count + 1, 1 - half),
  };
}

/** Exact interval for a share, k of n (Clopper & Pearson 1934). */
export function clopperPearson(k: number, n: number, level = 0.95): Interval {
  const half = (1 - level) / 2;
  return {
    from: k === 0 ? 0 : betaQuantile(k, n - k + 1, half),
    to: k === n ? 1 : betaQuantile(k + 1, n - k, 1 - half),
  };
}

/** Chance of k or more where the mean is known: the tail of the Poisson distribution. */
export const atLeast = (k: number, mean: number): number => (k <= 0 ? 1 : gammaParts(k, mean).lower);

/** Chance of k or more of n with share p: the tail of the binomial distribution. */
export const atLeastOf = (k: number, n: number, p: number): number =>
  k <= 0 ? 1 : k > n ? 0 : betaPart(k, n - k + 1, p);

/** Returns of something and how much of it was out there: units, unit-months, whatever both sides count alike. */
export type Counted = { returns: number; exposure: number };
export type ComparedRates = {
  /** One-sided: chance of as many or more on the first side if both had one rate. */
  p: number;
  /** Rate of the first by that of the second, with its exact interval; Infinity where the second has no return. */
  ratio: number;
  interval: Interval;
};

/**
 * One rate against another, exactly: given their sum, the returns of the first are binomial with its share of the exposure
 * (Przyborowski & Wilenski 1940). The interval of the ratio follows from Clopper and Pearson's for that share.
 */
export function compareRates(one: Counted, other: Counted, level = 0.95): ComparedRates {
  const n = one.returns + other.returns;
  const share = one.exposure / (one.exposure + other.exposure);
  const toRatio = (q: number) => (q >= 1 ? Infinity : ((q / (1 - q)) * other.exposure) / one.exposure);
  const { from, to } = n === 0 ? { from: 0, to: 1 } : clopperPearson(one.returns, n, level);
  return {
    p: atLeastOf(one.returns, n, share),
    ratio: n === 0 ? NaN : toRatio(one.returns / n),
    interval: { from: toRatio(from), to: toRatio(to) },
  };
}

/**
 * Which of many tests are alarms when at most a share q of all alarms may be false (Benjamini & Hochberg 1995). Where nothing is
 * there at all, the chance of any alarm is at most q.
 * @param tests how many were made; those that are not given had a chance of one
 * @returns for each, the smallest q at which it is an alarm
 */
export function falseDiscovery(ps: readonly number[], tests = ps.length): number[] {
  const order = [...ps.keys()].sort((a, b) => (ps[b] ?? 1) - (ps[a] ?? 1));
  const out = new Array<number>(ps.length).fill(1);
  let least = 1;
  order.forEach((i, k) => {
    least = Math.min(least, ((ps[i] ?? 1) * tests) / (ps.length - k));
    out[i] = least;
  });
  return out;
}
