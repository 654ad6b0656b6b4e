import { livesOf } from './expected';
import { PATTERN_LIMITS } from './limits';
import type { Population } from './population';
import type { Interval } from './rates';
import { fitWeibull, type WeibullFit } from './weibull';

/** Returns still to come of a lot, by the life of its kit or, where it fails by a life of its own, of itself. */
export type ToCome = {
  months: number;
  running: number;
  returns: number;
  interval: Interval;
  /** Mean cost of what came back so far times that, minor units; none where nothing cost anything yet. */
  cost: number | undefined;
  /** Whose life it is computed by. */
  by: 'lot' | 'kit';
};

/**
 * Returns to be expected of what still runs within so many months: for each unit the chance to fail by then, having lived so
 * long. The interval (95 %) holds what the life is unsure by (delta method) and what chance brings (Poisson), normal in the
 * logarithm.
 */
export function returnsToCome(p: Population, kit: string, lot: string, months: number): ToCome | undefined {
  const mine = p.lots.filter((l) => l.kit === kit && l.lot === lot);
  const own = livesOf(mine, p);
  const failed = own.reduce((s, r) => s + (r.to < Infinity ? (r.n ?? 1) : 0), 0);
  const whole = livesOf(
    p.lots.filter((l) => l.kit === kit),
    p,
  );
  const [first, second] = failed >= PATTERN_LIMITS.ownFailures ? [own, whole] : [whole, own];
  let fit = fitWeibull(first);
  let by: ToCome['by'] = failed >= PATTERN_LIMITS.ownFailures ? 'lot' : 'kit';
  if (!fit.ok) {
    fit = fitWeibull(second);
    by = by === 'lot' ? 'kit' : 'lot';
  }
  if (!fit.ok) return undefined;
  const running = own.filter((r) => r.to === Infinity).map((r) => ({ age: r.from, n: r.n ?? 1 }));
  const returns = expectedOf(running, fit.value, months);
  const costs = mine.flatMap((l) => l.returns.map((r) => r.cost)).filter((c) => c > 0);
  const mean = costs.reduce((s, c) => s + c, 0) / costs.length;
  return {
    months,
    running: running.reduce((s, r) => s + r.n, 0),
    returns,
    interval: bounds(running, fit.value, months, returns),
    cost: costs.length > 0 ? mean * returns : undefined,
    by,
  };
}

function expectedOf(
  running: readonly { age: number; n: number }[],
  { scale, shape }: Pick<WeibullFit, 'scale' | 'shape'>,
  months: number,
): number {
  const hazard = (t: number) => (t / scale) ** shape;
  return running.reduce((s, r) => s - r.n * Math.expm1(hazard(r.age) - hazard(r.age + months)), 0);
}

const Z95 = 1.959963984540054;
const SMALL = 1e-4;
function bounds(
  running: readonly { age: number; n: number }[],
  fit: WeibullFit,
  months: number,
  returns: number,
): Interval {
  if (returns <= 0) return { from: 0, to: 0 };
  const at = (u: number, b: number) =>
    Math.log(expectedOf(running, { scale: fit.scale * Math.exp(u), shape: fit.shape * Math.exp(b) }, months));
  const du = (at(SMALL, 0) - at(-SMALL, 0)) / (2 * SMALL);
  const db = (at(0, SMALL) - at(0, -SMALL)) / (2 * SMALL);
  const { uu, ub, bb } = fit.cov;
  const spread = Z95 * Math.sqrt(du * du * uu + 2 * du * db * ub + db * db * bb + 1 / returns);
  return { from: returns * Math.exp(-spread), to: returns * Math.exp(spread) };
}
