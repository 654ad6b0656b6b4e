import { Matrix, solve } from 'ml-matrix';
import { nth, num } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import type { Point } from './carrier';

export type FittedCircle = Point & {
  r: number;
  /** How far the points lie off it, root of the mean square, mm. */
  rmsMm: number;
};
export type CircleError = { code: 'too_few_points' } | { code: 'in_a_line' };

/** Rounds of Gauss–Newton: from the algebraic start a handful is enough. */
const ROUNDS = 20;
/** Points whose circle is this many times as large as they are far apart lie in a line, as far as a hand can pick them. */
const FLAT = 200;

/**
 * Circle through three or more points: the algebraic one to start from (Kåsa 1976), then least squares of the distances from it by
 * Gauss–Newton.
 */
export function fitCircle(points: readonly Point[]): Result<FittedCircle, CircleError> {
  if (points.length < 3) return err({ code: 'too_few_points' });
  const [mx, my] = [mean(points.map((p) => p.x)), mean(points.map((p) => p.y))];
  const size = Math.max(...points.map((p) => Math.hypot(p.x - mx, p.y - my)));
  if (!(size > 0)) return err({ code: 'in_a_line' });
  // In units of their own size around their own middle, so that nothing depends on where they lie.
  const own = points.map((p) => ({ x: (p.x - mx) / size, y: (p.y - my) / size }));
  const start = leastSquares(
    own.map((p) => [2 * p.x, 2 * p.y, 1]),
    own.map((p) => p.x * p.x + p.y * p.y),
  );
  if (!start) return err({ code: 'in_a_line' });
  let [x, y] = [num(start, 0), num(start, 1)];
  let r = Math.sqrt(num(start, 2) + x * x + y * y);
  for (let round = 0; round < ROUNDS && r < FLAT; round++) {
    const away = own.map((p) => Math.hypot(p.x - x, p.y - y));
    const step = leastSquares(
      own.map((p, i) => [(x - p.x) / num(away, i), (y - p.y) / num(away, i), -1]),
      away.map((d) => r - d),
    );
    if (!step) break;
    x += num(step, 0);
    y += num(step, 1);
    r += num(step, 2);
    if (step.every((s) => Math.abs(s) < 1e-12)) break;
  }
  if (!(r < FLAT)) return err({ code: 'in_a_line' });
  const off = own.map((p) => (Math.hypot(p.x - x, p.y - y) - r) * size);
  return ok({
    x: mx + x * size,
    y: my + y * size,
    r: r * size,
    rmsMm: Math.sqrt(mean(off.map((o) => o * o))),
  });
}

const mean = (list: readonly number[]) => list.reduce((s, v) => s + v, 0) / list.length;

function leastSquares(rows: readonly number[][], right: readonly number[]): number[] | undefined {
  const a = new Matrix(rows.map((r) => [...r]));
  const t = a.transpose();
  try {
    const found = solve(t.mmul(a), t.mmul(Matrix.columnVector([...right]))).to1DArray();
    return found.every(Number.isFinite) ? found : undefined;
  } catch {
    return undefined; // singular: they lie in a line
  }
}

/**
 * The arc of a circle on which points lie, degrees anticlockwise from the first to the last of them: what is left of the full circle
 * without the widest gap between two of them.
 */
export function arcThrough(centre: Point, points: readonly Point[]): { fromDeg: number; toDeg: number } {
  const angles = points
    .map((p) => (Math.atan2(p.y - centre.y, p.x - centre.x) * 180) / Math.PI)
    .sort((a, b) => a - b);
  let widest = { at: 0, gap: -1 };
  angles.forEach((a, i) => {
    const next = i + 1 < angles.length ? nth(angles, i + 1) : nth(angles, 0) + 360;
    if (next - a > widest.gap) widest = { at: i, gap: next - a };
  });
  const fromDeg = nth(angles, (widest.at + 1) % angles.length);
  const toDeg = nth(angles, widest.at);
  return { fromDeg, toDeg: toDeg < fromDeg ? toDeg + 360 : toDeg };
}
