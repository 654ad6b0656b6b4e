import { nth, num } from '@core/quantity/must';
import { Matrix, SVD } from 'ml-matrix';
import { leastSquares } from './adjust';
import { type Result, err, ok } from '@core/quantity/result';
import type { Point } from './carrier';

/** A centre distance as measured between two wheels (by index), mm. */
export type Distance = { a: number; b: number; mm: number; u: number };
export type FittedCentres = {
  points: Point[];
  residuals: { index: number; mm: number; sigmas: number }[];
  /** When they do not agree: every distance without which the rest would. One: it is that one. Several: cannot tell. */
  disagree: number[];
  freedom: number;
};
export type CentresError =
  | { code: 'loose_wheels'; wheels: number[] }
  | { code: 'no_convergence' }
  | { code: 'impossible_distance'; index: number };

/** Above this many sigmas the set is inconsistent (JCGM 100: about 99.7 % within three). */
const LIMIT = 3;

/**
 * Centres from distances between them: weighted least squares, starting from the
 * rough positions given. The first centre stays put and the second keeps its direction, since distances know neither
 * place nor turn; the rough positions also choose between mirror images.
 */
export function fitCentres(
  rough: readonly Point[],
  distances: readonly Distance[],
): Result<FittedCentres, CentresError> {
  const bad = distances.findIndex((d) => !(d.mm > 0) || d.a === d.b);
  if (bad >= 0) return err({ code: 'impossible_distance', index: bad });
  const fit = solve(rough, distances);
  if (!fit.ok) return fit;
  const { points } = fit.value;
  const residuals = distances.map((d, index) => {
    const mm = d.mm - between(points, d);
    return { index, mm, sigmas: mm / d.u };
  });
  const freedom = distances.length - (2 * rough.length - 3);
  const worst = Math.max(0, ...residuals.map((r) => Math.abs(r.sigmas)));
  return ok({ points, residuals, freedom, disagree: worst > LIMIT ? suspects(rough, distances) : [] });
}

const between = (points: readonly Point[], d: Distance) =>
  Math.hypot(nth(points, d.a).x - nth(points, d.b).x, nth(points, d.a).y - nth(points, d.b).y);

/** Differences in χ² below this leave it open which of two distances is wrong (two sigmas). */
const OPEN = 4;

/** Leaves each distance out in turn; those without which the rest agree, and about as well as without any other. */
function suspects(rough: readonly Point[], distances: readonly Distance[]): number[] {
  const found = distances.flatMap((_, index) => {
    const rest = distances.filter((_d, i) => i !== index);
    const fit = solve(rough, rest);
    if (!fit.ok) return [];
    const sigmas = rest.map((d) => Math.abs(d.mm - between(fit.value.points, d)) / d.u);
    return Math.max(...sigmas) > LIMIT ? [] : [{ index, chi2: sigmas.reduce((s, x) => s + x * x, 0) }];
  });
  const best = Math.min(...found.map((f) => f.chi2));
  return found.filter((f) => f.chi2 <= best + OPEN).map((f) => f.index);
}

/** Step by which a coordinate is changed to see what it does, mm. */
const STEP_MM = 1e-4;

/** Free coordinates: all but the first centre, and but the second's distance across its direction. */
function solve(
  rough: readonly Point[],
  distances: readonly Distance[],
): Result<{ points: Point[] }, CentresError> {
  const [origin, second] = [nth(rough, 0), nth(rough, 1)];
  const along = Math.atan2(second.y - origin.y, second.x - origin.x);
  const unknowns = 2 * rough.length - 3;
  const build = (v: readonly number[]): Point[] => [
    origin,
    { x: origin.x + num(v, 0) * Math.cos(along), y: origin.y + num(v, 0) * Math.sin(along) },
    ...rough.slice(2).map((_, i) => ({ x: num(v, 1 + 2 * i), y: num(v, 2 + 2 * i) })),
  ];
  if (distances.length === 0) return err({ code: 'loose_wheels', wheels: rough.map((_, i) => i).slice(1) });
  const start = [
    Math.hypot(second.x - origin.x, second.y - origin.y),
    ...rough.slice(2).flatMap((p) => [p.x, p.y]),
  ];
  const found = leastSquares(
    start,
    start.map(() => STEP_MM),
    (v) => {
      const points = build(v);
      return distances.map((d) => (d.mm - between(points, d)) / d.u);
    },
  );
  if (!found?.x.every(Number.isFinite)) return err({ code: 'no_convergence' });
  const loose = looseWheels(found.jacobian, unknowns);
  return loose.length > 0 ? err({ code: 'loose_wheels', wheels: loose }) : ok({ points: build(found.x) });
}

/** Wheels that can move without changing any distance: those in the null space of the Jacobian. */
function looseWheels(jacobian: Matrix, unknowns: number): number[] {
  // Rows of zeros make it at least square, so that the null space is whole.
  const rows = Math.max(unknowns, jacobian.rows);
  const padded = Matrix.zeros(rows, unknowns);
  padded.setSubMatrix(jacobian, 0, 0);
  const svd = new SVD(padded);
  const values = svd.diagonal;
  // Slopes by differences are right to about 1e-8 of the steepest.
  const limit = 1e-6 * Math.max(1, ...values);
  const right = svd.rightSingularVectors;
  const loose = new Set<number>();
  for (let k = 0; k < unknowns; k++) {
    if ((values[k] ?? 0) > limit) continue;
    for (let u = 0; u < unknowns; u++) {
      if (Math.abs(right.get(u, k)) > 1e-4) loose.add(u === 0 ? 1 : Math.floor((u + 3) / 2));
    }
  }
  return [...loose].sort((a, b) => a - b);
}
