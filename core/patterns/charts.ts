import { expectedByMonth } from './expected';
import { PATTERN_LIMITS } from './limits';
import { monthOf, type Population, type Return } from './population';
import { atLeast, atLeastOf } from './rates';

/** One stretch of time on a control chart. Limits are counts that chance passes once in 500 at most on both sides together. */
export type ChartSpan = {
  /** First month of it, as year and month. */
  from: string;
  /** Of so many, where that is known; so many were found, and so many were to be expected. */
  n?: number;
  k: number;
  expected: number;
  low: number;
  high: number;
  out: 'above' | 'below' | undefined;
};
const QUARTER = 3;

const textOf = (month: number): string =>
  `${Math.floor(month / 12)}-${String((month % 12) + 1).padStart(2, '0')}`;

/** Counts that chance passes with half of what it may on each side. @param tail chance of k or more */
function limits(tail: (k: number) => number, most: number): { low: number; high: number } {
  let [low, high] = [0, 0];
  while (low < most && 1 - tail(low + 1) <= PATTERN_LIMITS.outside / 2) low++;
  high = low;
  while (high < most && tail(high + 1) > PATTERN_LIMITS.outside / 2) high++;
  return { low, high };
}
const outside = (k: number, l: { low: number; high: number }): ChartSpan['out'] =>
  k > l.high ? 'above' : k < l.low ? 'below' : undefined;

/**
 * A share by quarters of the year (p-chart): of the returns that were fitted in a quarter, those that have it, with exact
 * binomial limits round the share to be expected. Returns without a day of fitting count by the day they failed; without either
 * they are left out.
 */
export function sharesByQuarter(
  returns: readonly Return[],
  has: (r: Return) => boolean,
  share: number,
): ChartSpan[] {
  const by = new Map<number, { n: number; k: number }>();
  for (const r of returns) {
    const day = r.fitted || r.failed;
    if (day === '') continue;
    const quarter = Math.floor(monthOf(day) / QUARTER);
    const q = by.get(quarter) ?? { n: 0, k: 0 };
    by.set(quarter, { n: q.n + 1, k: q.k + (has(r) ? 1 : 0) });
  }
  return [...by]
    .sort(([a], [b]) => a - b)
    .map(([quarter, { n, k }]) => {
      const within = limits((x) => atLeastOf(x, n, share), n);
      return {
        from: textOf(quarter * QUARTER),
        n,
        k,
        expected: n * share,
        ...within,
        out: outside(k, within),
      };
    });
}

/**
 * What came back of a lot month by month against what was to be expected of it (u-chart: units of different number and age), with
 * exact Poisson limits. Nothing for the only lot of its kit.
 */
export function returnsByMonth(p: Population, kit: string, lot: string): ChartSpan[] {
  const own = p.lots.find((l) => l.kit === kit && l.lot === lot);
  if (!own) return [];
  const came = new Map<number, number>();
  for (const r of own.returns)
    if (r.failed !== '') came.set(monthOf(r.failed), (came.get(monthOf(r.failed)) ?? 0) + 1);
  return expectedByMonth(own, p).map(({ month, expected }) => {
    const k = came.get(month) ?? 0;
    const within = limits((x) => atLeast(x, expected), Infinity);
    return { from: textOf(month), k, expected, ...within, out: outside(k, within) };
  });
}

/** A watch over a lot: how much speaks for a raised rate after each span, and from where on it is an alarm. */
export type Watch = { times: number; sums: number[]; limit: number; since: string | undefined };

/**
 * Sums what speaks for a rate that is so many times the usual one (CUSUM of Page 1954 with the Poisson likelihood ratio, Lucas
 * 1985), never under nothing. Each start has a likelihood ratio whose mean stays 1 while nothing changed, so that it passes e^h
 * with a chance of at most e^−h (Ville 1939); with h = ln(spans / share) an alarm is false in at most that share of lots.
 */
export function watchOver(spans: readonly Pick<ChartSpan, 'from' | 'k' | 'expected'>[]): Watch {
  const times = PATTERN_LIMITS.watchTimes;
  const limit = Math.log(Math.max(1, spans.length) / PATTERN_LIMITS.falseShare);
  let sum = 0;
  let since: string | undefined;
  const sums = spans.map(({ from, k, expected }) => {
    sum = Math.max(0, sum + k * Math.log(times) - (times - 1) * expected);
    if (sum > limit) since ??= from;
    return sum;
  });
  return { times, sums, limit, since };
}

/** A lot month by month, and the watch over it. */
export type LotMonths = { months: ChartSpan[]; watch: Watch };
