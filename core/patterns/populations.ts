import { PATTERN_LIMITS } from './limits';
import { failedBy } from './weibull-bounds';
import { fitWeibull, type WeibullFit } from './weibull';
import { logLikelihood, type LifeRow } from './weibull-likelihood';

/** One way of failing of several: a life with every other way as a suspension. */
export type LifeMode = { mode: string; fit: ReturnType<typeof fitWeibull> };

/** Competing modes: what fails by one has not failed by another before. */
export function competingModes(rows: readonly (LifeRow & { mode?: string })[]): LifeMode[] {
  const modes = [...new Set(rows.flatMap((r) => (r.to < Infinity ? [r.mode ?? ''] : [])))].sort();
  return modes.map((mode) => ({
    mode,
    fit: fitWeibull(
      rows.map((r) =>
        r.to < Infinity && (r.mode ?? '') !== mode ? { ...r, from: (r.from + r.to) / 2, to: Infinity } : r,
      ),
    ),
  }));
}

/** Two lives mixed: which share is of the first, the one that fails sooner. */
type Mixture = { share: number; early: WeibullFit; late: WeibullFit; logLikelihood: number };
export type Populations = {
  mixture: Mixture | undefined;
  /** By how much the mixture is better, by its Bayesian information (Schwarz 1978): above 10 is plain. */
  better: number;
};

const ROUNDS = 120;

/** Whether two populations are mixed: by expectation and maximisation from a split at the median failure. */
export function twoPopulations(rows: readonly LifeRow[], one: WeibullFit): Populations {
  if (one.failures < PATTERN_LIMITS.twoFrom.failures) return { mixture: undefined, better: 0 };
  const middle = [...rows.filter((r) => r.to < Infinity).map((r) => (r.from + r.to) / 2)].sort(
    (a, b) => a - b,
  );
  const median = middle[Math.floor(middle.length / 2)] ?? 0;
  let best: Mixture | undefined;
  for (const share of [0.05, 0.3]) {
    const got = mixed(rows, (r) => (r.to === Infinity ? share : (r.from + r.to) / 2 <= median ? 0.9 : 0.1));
    if (got && got.logLikelihood > (best?.logLikelihood ?? -Infinity)) best = got;
  }
  if (!best) return { mixture: undefined, better: 0 };
  // What parts the two is told by failures: suspensions add nothing to the size of the sample that they have.
  const better = 2 * (best.logLikelihood - one.logLikelihood) - 3 * Math.log(one.failures);
  return { mixture: best, better };
}

function mixed(rows: readonly LifeRow[], first: (r: LifeRow) => number): Mixture | undefined {
  let mine = rows.map(first);
  let before = -Infinity;
  let out: Mixture | undefined;
  for (let k = 0; k < ROUNDS; k++) {
    const part = (w: (g: number) => number, near?: WeibullFit) =>
      fitWeibull(
        rows.map((r, i) => ({ ...r, n: (r.n ?? 1) * w(mine[i] ?? 0) })),
        near,
      );
    const [early, late] = [part((g) => g, out?.early), part((g) => 1 - g, out?.late)];
    if (!early.ok || !late.ok) return out;
    const all = rows.reduce((s, r) => s + (r.n ?? 1), 0);
    const share = rows.reduce((s, r, i) => s + (r.n ?? 1) * (mine[i] ?? 0), 0) / all;
    let like = 0;
    mine = rows.map((r) => {
      const a = share * chance(r, early.value);
      const b = (1 - share) * chance(r, late.value);
      like += (r.n ?? 1) * Math.log(a + b);
      return a / (a + b);
    });
    if (!Number.isFinite(like)) return out;
    out = { share, early: early.value, late: late.value, logLikelihood: like };
    if (like - before < 1e-5) break;
    before = like;
  }
  return out;
}

/** Density of an exact row, chance of an interval or of having lived on. */
const chance = (r: LifeRow, fit: WeibullFit): number =>
  r.to < Infinity && r.from < r.to
    ? failedBy(fit, r.to) - failedBy(fit, r.from)
    : Math.exp(logLikelihood([{ from: r.from, to: r.to }], Math.log(fit.scale), Math.log(fit.shape)));
