import { betaQuantile } from '@core/quantity/incomplete';
import type { LifeRow } from './weibull-likelihood';

/** A failure on probability paper: its time, its share failed, and how far that share is known. */
export type PlottedFailure = { time: number; share: number; from: number; to: number };

/** Failures of one moment stand for one point; an interval is plotted at its middle. */
function moments(rows: readonly LifeRow[]): { time: number; failed: number; running: number }[] {
  const at = new Map<number, { time: number; failed: number; running: number }>();
  for (const r of rows) {
    const n = r.n ?? 1;
    const fails = r.to < Infinity;
    const time = fails ? (r.from + r.to) / 2 : r.from;
    const m = at.get(time) ?? { time, failed: 0, running: 0 };
    if (fails) m.failed += n;
    else m.running += n;
    at.set(time, m);
  }
  return [...at.values()].sort((a, b) => a.time - b.time);
}

/**
 * Share failed at each failure's moment by Kaplan and Meier (1958), halfway up its step, so that the last can be plotted; its
 * bounds by Greenwood's variance, in ln(−ln S). Units that stop running at a moment outlive the failures of it.
 */
export function kaplanMeier(rows: readonly LifeRow[]): PlottedFailure[] {
  let left = rows.reduce((s, r) => s + (r.n ?? 1), 0);
  let [alive, variance] = [1, 0];
  const out: PlottedFailure[] = [];
  for (const m of moments(rows)) {
    if (m.failed > 0) {
      const before = alive;
      alive *= 1 - m.failed / left;
      if (left > m.failed) variance += m.failed / (left * (left - m.failed));
      const middle = (before + alive) / 2;
      const spread = alive > 0 && alive < 1 ? (1.96 * Math.sqrt(variance)) / Math.abs(Math.log(alive)) : 0;
      const bound = (by: number) => 1 - middle ** Math.exp(by);
      out.push({ time: m.time, share: 1 - middle, from: bound(-spread), to: bound(spread) });
    }
    left -= m.failed + m.running;
  }
  return out;
}

/**
 * Share failed by median ranks: each failure's adjusted rank among all (Johnson 1964), at the median of its beta distribution,
 * with the quantiles of 2.5 and 97.5 % as bounds.
 */
export function medianRanks(rows: readonly LifeRow[]): PlottedFailure[] {
  const n = rows.reduce((s, r) => s + (r.n ?? 1), 0);
  let [rank, left] = [0, n];
  const out: PlottedFailure[] = [];
  for (const m of moments(rows)) {
    for (let k = 0; k < m.failed; k++) rank += (n + 1 - rank) / (1 + left - k);
    if (m.failed > 0) {
      const at = (q: number) => betaQuantile(rank, n + 1 - rank, q);
      out.push({ time: m.time, share: at(0.5), from: at(0.025), to: at(0.975) });
    }
    left -= m.failed + m.running;
  }
  return out;
}
