import { err, ok, type Result } from '@core/quantity/result';
import { logLikelihood, slopes, type LifeRow } from './weibull-likelihood';

/** ln of the scale η and of the shape β. */
type LogPair = { u: number; b: number };
export type WeibullFit = {
  shape: number;
  scale: number;
  logLikelihood: number;
  /** Units that failed and that were still running, weighted by how many each row stands for. */
  failures: number;
  suspensions: number;
  /** Covariance of (ln η, ln β): inverse of the observed information. */
  cov: { uu: number; ub: number; bb: number };
};
/**
 * Why a set has no fit: no failure at all; times that are no times; or all failures at one moment that nothing outlived, where
 * the likelihood grows with the shape for ever.
 */
export type WeibullError = { code: 'no_failures' } | { code: 'bad_time'; row: number } | { code: 'all_tied' };

const STEPS = 200;
/** Steps of ln are held to this: the likelihood is only nearly a parabola. */
const REACH = 1.5;
const FLAT = 1e-9;

/**
 * Scale and shape of a Weibull life, by maximum likelihood; rows may be exact, within an interval, or still running.
 * @param near a fit of nearly the same rows, to begin from
 */
export function fitWeibull(
  rows: readonly LifeRow[],
  near?: Pick<WeibullFit, 'shape' | 'scale'>,
): Result<WeibullFit, WeibullError> {
  const wrong = refused(rows);
  if (wrong) return err(wrong);
  let at = near ? { u: Math.log(near.scale), b: Math.log(near.shape) } : start(rows);
  let value = logLikelihood(rows, at.u, at.b);
  for (let k = 0; k < STEPS; k++) {
    const s = slopes(rows, at.u, at.b);
    const step = ascent(s);
    let share = Math.min(1, REACH / Math.max(Math.abs(step.u), Math.abs(step.b), 1e-300));
    let next = { u: at.u + share * step.u, b: at.b + share * step.b };
    let reached = logLikelihood(rows, next.u, next.b);
    while (!(reached >= value) && share > 1e-12) {
      share /= 2;
      next = { u: at.u + share * step.u, b: at.b + share * step.b };
      reached = logLikelihood(rows, next.u, next.b);
    }
    if (!(reached >= value)) break;
    const moved = Math.max(Math.abs(next.u - at.u), Math.abs(next.b - at.b));
    [at, value] = [next, reached];
    if (moved < FLAT) break;
  }
  const s = slopes(rows, at.u, at.b);
  const det = s.uu * s.bb - s.ub * s.ub;
  if (!(s.uu < 0) || !(det > 0)) return err({ code: 'all_tied' });
  const n = (r: LifeRow) => r.n ?? 1;
  const failed = rows.filter((r) => r.to < Infinity);
  return ok({
    shape: Math.exp(at.b),
    scale: Math.exp(at.u),
    logLikelihood: value,
    failures: failed.reduce((t, r) => t + n(r), 0),
    suspensions: rows.reduce((t, r) => t + (r.to === Infinity ? n(r) : 0), 0),
    cov: { uu: -s.bb / det, ub: s.ub / det, bb: -s.uu / det },
  });
}

function refused(rows: readonly LifeRow[]): WeibullError | undefined {
  const bad = rows.findIndex(
    (r) => !(r.from >= 0) || !(r.to >= r.from) || r.to === 0 || !((r.n ?? 1) >= 0) || (r.n ?? 1) === Infinity,
  );
  if (bad >= 0) return { code: 'bad_time', row: bad };
  const there = rows.filter((r) => (r.n ?? 1) > 0);
  const failed = there.filter((r) => r.to < Infinity);
  if (failed.length === 0) return { code: 'no_failures' };
  // One moment that every failure may have happened at, and that nothing is known to have outlived.
  const first = ends(failed, 'to').low;
  const last = ends(failed, 'from').high;
  const outlived = there.some(
    (r) => r.to === Infinity && (r.from > first || (r.from === first && last < first)),
  );
  return last <= first && !outlived ? { code: 'all_tied' } : undefined;
}

function ends(rows: readonly LifeRow[], end: 'from' | 'to'): { low: number; high: number } {
  let [low, high] = [Infinity, -Infinity];
  for (const r of rows) [low, high] = [Math.min(low, r[end]), Math.max(high, r[end])];
  return { low, high };
}

/** An exponential life has a closed form: time run by failures. */
function start(rows: readonly LifeRow[]): LogPair {
  let [time, failures] = [0, 0];
  for (const r of rows) {
    const n = r.n ?? 1;
    const fails = r.to < Infinity;
    time += n * (fails ? (r.from + r.to) / 2 : r.from);
    if (fails) failures += n;
  }
  return { u: Math.log(time / failures), b: 0 };
}

/** Newton's step where the likelihood bends down, else up its slope. */
function ascent(s: ReturnType<typeof slopes>): LogPair {
  const det = s.uu * s.bb - s.ub * s.ub;
  if (s.uu < 0 && det > 0) return { u: (-s.bb * s.u + s.ub * s.b) / det, b: (s.ub * s.u - s.uu * s.b) / det };
  const bend = Math.max(Math.abs(s.uu), Math.abs(s.bb), Math.abs(s.ub), 1e-12);
  return { u: s.u / bend, b: s.b / bend };
}
