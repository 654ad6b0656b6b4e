import { inverse as invert, Matrix, solve } from 'ml-matrix';
import { num } from '@core/quantity/must';

/** Residuals of a set of unknowns, each over its standard uncertainty; none where the unknowns make no sense. */
export type Residuals = (x: readonly number[]) => number[] | undefined;
/** Unknowns at which the squares are least, with what is left of the observations and their slopes there. */
type LeastSquares = { x: number[]; residuals: number[]; jacobian: Matrix };
export type Adjusted = { x: number[]; residuals: number[]; covariance: Matrix };

const ROUNDS = 200;

/**
 * Weighted least squares: damped Gauss–Newton (Levenberg 1944, Marquardt 1963), derivatives by central differences. None where the
 * unknowns make no sense at the start or where it ends; unknowns that nothing holds stay about where they began.
 * @param steps by which each unknown is changed to see what it does
 */
export function leastSquares(
  start: readonly number[],
  steps: readonly number[],
  residuals: Residuals,
): LeastSquares | undefined {
  let x = [...start];
  let now = residuals(x);
  let j = now && jacobianAt(x, steps, residuals);
  if (!now || !j) return undefined;
  let cost = square(now);
  let damping = 1e-3;
  for (let round = 0; round < ROUNDS && damping <= 1e12; round++) {
    const normal = j.transpose().mmul(j);
    for (let i = 0; i < x.length; i++) normal.set(i, i, normal.get(i, i) * (1 + damping) + 1e-12);
    const step = solved(normal, j.transpose().mmul(Matrix.columnVector(now.map((r) => -r))));
    const next = step && x.map((v, i) => v + num(step, i));
    const then = next && residuals(next);
    const slope = then && square(then) <= cost ? jacobianAt(next, steps, residuals) : undefined;
    if (!next || !then || !slope) {
      damping *= 6;
      continue;
    }
    const gained = cost - square(then);
    [x, now, j, cost] = [next, then, slope, square(then)];
    damping = Math.max(1e-12, damping / 8);
    if (gained < 1e-12 * (1e-6 + cost)) break;
  }
  return { x, residuals: now, jacobian: j };
}

/** The same with the covariance of the unknowns, from the normal equations (JCGM 102, 6.2.1.3). None where they are not held by what was observed. */
export function adjust(
  start: readonly number[],
  steps: readonly number[],
  residuals: Residuals,
): Adjusted | undefined {
  const found = leastSquares(start, steps, residuals);
  const covariance = found && inverted(found.jacobian.transpose().mmul(found.jacobian));
  return covariance && { x: found.x, residuals: found.residuals, covariance };
}

/** Standard uncertainty of what is computed from the unknowns: its slope carried through their covariance; none where it cannot be computed. */
export function uncertaintyOf(
  { x, covariance }: Adjusted,
  steps: readonly number[],
  value: (x: readonly number[]) => number | undefined,
): number | undefined {
  const slope: number[] = [];
  for (let i = 0; i < x.length; i++) {
    const h = num(steps, i);
    const [up, down] = [value(x.with(i, num(x, i) + h)), value(x.with(i, num(x, i) - h))];
    if (up === undefined || down === undefined) return undefined;
    slope.push((up - down) / (2 * h));
  }
  const g = Matrix.columnVector(slope);
  return Math.sqrt(Math.max(0, g.transpose().mmul(covariance).mmul(g).get(0, 0)));
}

const square = (r: readonly number[]) => r.reduce((s, v) => s + v * v, 0);

function jacobianAt(
  x: readonly number[],
  steps: readonly number[],
  residuals: Residuals,
): Matrix | undefined {
  const columns: number[][] = [];
  for (let i = 0; i < x.length; i++) {
    const h = num(steps, i);
    const [up, down] = [residuals(x.with(i, num(x, i) + h)), residuals(x.with(i, num(x, i) - h))];
    if (!up || !down) return undefined;
    columns.push(up.map((u, k) => (u - num(down, k)) / (2 * h)));
  }
  return new Matrix(columns).transpose();
}

function solved(a: Matrix, b: Matrix): number[] | undefined {
  try {
    const x = solve(a, b).to1DArray();
    return x.every(Number.isFinite) ? x : undefined;
  } catch {
    return undefined; // singular
  }
}

/** The inverse of normal equations, scaled so that unknowns of unlike size do not hide each other. */
function inverted(normal: Matrix): Matrix | undefined {
  const scale = Array.from({ length: normal.rows }, (_, i) => 1 / Math.sqrt(normal.get(i, i)));
  if (!scale.every(Number.isFinite)) return undefined;
  const even = normal.clone();
  for (let i = 0; i < normal.rows; i++)
    for (let k = 0; k < normal.columns; k++) even.set(i, k, normal.get(i, k) * num(scale, i) * num(scale, k));
  try {
    const inverse = invert(even);
    const sound = inverse.to1DArray().every((v) => Number.isFinite(v) && Math.abs(v) < 1e13);
    if (!sound) return undefined;
    for (let i = 0; i < normal.rows; i++)
      for (let k = 0; k < normal.columns; k++)
        inverse.set(i, k, inverse.get(i, k) * num(scale, i) * num(scale, k));
    return inverse;
  } catch {
    return undefined;
  }
}
