import { must, nth, num } from '@core/quantity/must';
import { LuDecomposition, Matrix, solve } from 'ml-matrix';
import { student975 } from '@core/quantity/student';
import { err, ok, type Result } from '@core/quantity/result';

/** One reading of a plunger under a constant load: seconds since the load came on, and where it stands, mm (less as it sinks). */
export type LeakPoint = { t: number; x: number };
/** How it sinks: evenly; ever slower toward rest; an air cushion first that gives way, then evenly. */
export type LeakModel = 'line' | 'exponential' | 'air_spring';

export type LeakFit = {
  model: LeakModel;
  /** Sinking rate after the first take-up, mm/s, positive when it sinks; of the exponential at the end of the take-up. */
  rate: number;
  /** Half-width of its 95 % interval, mm/s (Student's t). */
  halfWidth: number;
  /** Time constant of what dies away, s; none of a line. */
  tau?: number;
  /** Standard deviation of a reading about the fit, mm. */
  scatter: number;
  /** Akaike's information criterion, corrected for few readings: the least is chosen. */
  aicc: number;
  /** Terms of the fit, mm, mm/s and mm, from `start` seconds on: base + slope·s + amplitude·e^(−s/τ). */
  terms: { start: number; base: number; slope: number; amplitude: number };
};

/** Where a fit runs at a time, mm. */
export function fitAt({ terms, tau }: Pick<LeakFit, 'terms' | 'tau'>, t: number): number {
  const s = t - terms.start;
  return terms.base + terms.slope * s + (tau === undefined ? 0 : terms.amplitude * Math.exp(-s / tau));
}
export type LeakDown = {
  fits: LeakFit[];
  /** The fit that the evidence chooses. */
  chosen: LeakFit;
  /** The dial counted up while the plunger sank: a plunger under a load does not rise, so the sign is the dial's. */
  countsUp: boolean;
  /** Readings that it stands on, and those of the first take-up that it leaves out. */
  used: number;
  left: number;
};
export type LeakError =
  | { code: 'too_few'; used: number; least: number }
  | { code: 'no_time'; seconds: number }
  /** It stands in two places with a jump between them: the gauge was knocked, or the plunger gave way at once. */
  | { code: 'jump'; mm: number; at: number }
  | { code: 'not_finite' };

/** Fewer readings than this behind the take-up show no rate. */
const LEAST_READINGS = 8;
/** A model with more terms is chosen only when it is likelier by so much (Burnham & Anderson: 2 is hardly more). */
const BETTER = 4;

/**
 * Leak-down of a plunger under a constant load: fits of a line, an exponential and an air spring with creep to the readings behind the first
 * elastic take-up, each with the rate's interval, and the one that the corrected Akaike criterion chooses (Burnham & Anderson 2002, 2.4).
 * Least squares: linear terms are solved for each time constant (variable projection, Golub & Pereyra 1973), which is found by a
 * grid over its logarithm and golden section to 1e-9; covariance from the Jacobian of all terms. Handbook 7.3.
 * @param takeUpS seconds from the first reading that are left out
 */
export function leakDown(points: readonly LeakPoint[], takeUpS: number): Result<LeakDown, LeakError> {
  if (points.some((p) => !Number.isFinite(p.t) || !Number.isFinite(p.x))) return err({ code: 'not_finite' });
  const sorted = [...points].sort((a, b) => a.t - b.t);
  const start = (sorted[0]?.t ?? 0) + takeUpS;
  const used = sorted.filter((p) => p.t >= start);
  if (used.length < LEAST_READINGS) return err({ code: 'too_few', used: used.length, least: LEAST_READINGS });
  const span = must(used.at(-1)).t - nth(used, 0).t;
  if (!(span > 0)) return err({ code: 'no_time', seconds: span });
  const ys = used.map((p) => p.x);
  const jump = jumpIn(ys);
  if (jump) return err({ code: 'jump', mm: jump.mm, at: nth(used, jump.index).t - (sorted[0]?.t ?? 0) });
  const ts = used.map((p) => p.t - start);
  const fits = [
    line(ts, ys, start),
    exponential(ts, ys, span, start),
    airSpring(ts, ys, span, start),
  ].flatMap((f) => f ?? []);
  let chosen = fits[0];
  if (!chosen) return err({ code: 'not_finite' });
  for (const f of fits.slice(1)) if (f.aicc < chosen.aicc - BETTER) chosen = f;
  const countsUp = chosen.rate + chosen.halfWidth < 0;
  const sunk = (f: LeakFit): LeakFit => (countsUp ? { ...f, rate: -f.rate } : f);
  const at = fits.indexOf(chosen);
  const turned = fits.map(sunk);
  return ok({
    fits: turned,
    chosen: nth(turned, at),
    countsUp,
    used: used.length,
    left: sorted.length - used.length,
  });
}

/** A single step between neighbours that is most of all that moved, and far above the usual step: no leak does that. */
const JUMP_SHARE = 0.6;
const JUMP_TIMES = 12;
const LEAST_JUMP_MM = 0.02;
function jumpIn(ys: readonly number[]): { index: number; mm: number } | undefined {
  const steps = ys.slice(1).map((y, i) => Math.abs(y - num(ys, i)));
  const most = Math.max(...steps);
  const index = steps.indexOf(most) + 1;
  const usual = num(
    [...steps].sort((a, b) => a - b),
    Math.floor(steps.length / 2),
  );
  const low = Math.min(...ys);
  const range = Math.max(...ys) - low;
  if (most < LEAST_JUMP_MM || most < JUMP_SHARE * range || most < JUMP_TIMES * usual) return undefined;
  return { index, mm: most };
}

/**
 * Verdict on a rate against the most that is allowed, mm/s: within, above, or cannot tell while its interval straddles the
 * limit. Whichever way the dial counts, what moves faster than the limit is never within.
 */
export function leakVerdict(
  fit: Pick<LeakFit, 'rate' | 'halfWidth'>,
  limit: number,
): 'within' | 'above' | 'cannot_tell' {
  const rate = Math.abs(fit.rate);
  if (rate + fit.halfWidth <= limit) return 'within';
  return rate - fit.halfWidth > limit ? 'above' : 'cannot_tell';
}

/** Linear least squares: coefficients and sum of squared residuals. */
function linear(
  columns: readonly (readonly number[])[],
  ys: readonly number[],
): { c: number[]; rss: number } {
  const a = new Matrix(columns.map((k) => [...k])).transpose();
  const c = solve(a, Matrix.columnVector([...ys])).to1DArray();
  let rss = 0;
  for (let i = 0; i < ys.length; i++) {
    const fit = columns.reduce((sum, k, j) => sum + num(c, j) * num(k, i), 0);
    rss += (num(ys, i) - fit) ** 2;
  }
  return { c, rss };
}

/** Sum of squared residuals alone, by the normal equations: quick enough to be tried at every time constant. */
function rssOf(columns: readonly (readonly number[])[], ys: readonly number[]): number {
  const dot = (a: readonly number[], b: readonly number[]) => {
    let sum = 0;
    for (let i = 0; i < a.length; i++) sum += num(a, i) * num(b, i);
    return sum;
  };
  const m = columns.map((a) => [...columns.map((b) => dot(a, b)), dot(a, ys)]);
  const p = columns.length;
  for (let k = 0; k < p; k++)
    for (let r = 0; r < p; r++) {
      if (r === k) continue;
      const q = num(nth(m, r), k) / num(nth(m, k), k);
      const row = nth(m, r);
      for (let c = k; c <= p; c++) row[c] = num(row, c) - q * num(nth(m, k), c);
    }
  const terms = m.map((row, k) => num(row, p) / num(row, k));
  let rss = 0;
  for (let i = 0; i < ys.length; i++) {
    let off = num(ys, i);
    for (let k = 0; k < p; k++) off -= num(terms, k) * num(nth(columns, k), i);
    rss += off * off;
  }
  return Number.isFinite(rss) ? rss : Infinity;
}

/** Standard error of `g · parameters`, from the Jacobian: σ²·gᵀ(JᵀJ)⁻¹g with σ² = rss/(n − p); undefined where a term shows in nothing. */
function standardError(
  jacobian: readonly (readonly number[])[],
  g: readonly number[],
  rss: number,
): number | undefined {
  const [n, p] = [nth(jacobian, 0).length, jacobian.length];
  const j = new Matrix(jacobian.map((k) => [...k]));
  // Columns are scaled to one, so that a time constant in seconds and a rate in micrometres are solved alike.
  const scale = jacobian.map((k) => Math.hypot(...k) || 1);
  const scaled = j.clone();
  for (let r = 0; r < p; r++) for (let k = 0; k < n; k++) scaled.set(r, k, j.get(r, k) / num(scale, r));
  const gs = g.map((v, r) => v / num(scale, r));
  const lu = new LuDecomposition(scaled.mmul(scaled.transpose()));
  if (lu.isSingular()) return undefined;
  const w = lu.solve(Matrix.columnVector(gs)).to1DArray();
  const variance = (rss / (n - p)) * gs.reduce((sum, v, r) => sum + v * num(w, r), 0);
  return Math.sqrt(Math.max(0, variance));
}

const ones = (n: number): number[] => Array.from({ length: n }, () => 1);
/** A perfect fit has no scatter; so little counts instead, mm, lest its logarithm runs away. */
const LEAST_SCATTER_MM = 1e-9;
function aiccOf(rss: number, n: number, p: number): number {
  const k = p + 1;
  return (
    n * Math.log(Math.max(rss / n, LEAST_SCATTER_MM ** 2)) +
    2 * k +
    (2 * k * (k + 1)) / Math.max(1, n - k - 1)
  );
}

function fitOf(
  model: LeakModel,
  rate: number,
  se: number | undefined,
  rss: number,
  n: number,
  p: number,
  terms: LeakFit['terms'],
  tau?: number,
): LeakFit | undefined {
  // A term that shows in nothing makes no model of its own: a series that stands still is a line.
  if (se === undefined || ![rate, se, rss].every(Number.isFinite)) return undefined;
  return {
    model,
    rate,
    halfWidth: student975(n - p) * se,
    scatter: Math.sqrt(rss / (n - p)),
    aicc: aiccOf(rss, n, p),
    terms,
    ...(tau === undefined ? {} : { tau }),
  };
}

function line(ts: readonly number[], ys: readonly number[], start: number): LeakFit | undefined {
  const columns = [ones(ts.length), ts];
  const { c, rss } = linear(columns, ys);
  const se = standardError(columns, [0, 1], rss);
  return fitOf('line', -num(c, 1), se, rss, ts.length, 2, {
    start,
    base: num(c, 0),
    slope: num(c, 1),
    amplitude: 0,
  });
}

/** x = c + A·e^(−t/τ); rate at the end of the take-up A/τ. */
function exponential(
  ts: readonly number[],
  ys: readonly number[],
  span: number,
  start: number,
): LeakFit | undefined {
  const n = ts.length;
  if (n < LEAST_READINGS) return undefined;
  const decay = (tau: number) => ts.map((t) => Math.exp(-t / tau));
  const tau = bestTau((k) => rssOf([ones(n), decay(k)], ys), span);
  if (tau === undefined) return undefined;
  const e = decay(tau);
  const { c, rss } = linear([ones(n), e], ys);
  const [, a] = c as [number, number];
  const jacobian = [ones(n), e, e.map((v, i) => (a * v * num(ts, i)) / (tau * tau))];
  const se = standardError(jacobian, [0, 1 / tau, -a / (tau * tau)], rss);
  const terms = { start, base: num(c, 0), slope: 0, amplitude: a };
  return fitOf('exponential', a / tau, se, rss, n, 3, terms, tau);
}

/** x = c − r·t + A·e^(−t/τ): an air cushion that is pressed together while the plunger creeps at the rate r. */
function airSpring(
  ts: readonly number[],
  ys: readonly number[],
  span: number,
  start: number,
): LeakFit | undefined {
  const n = ts.length;
  if (n < LEAST_READINGS + 2) return undefined;
  const decay = (tau: number) => ts.map((t) => Math.exp(-t / tau));
  // What takes longer than a third of the time looked at cannot be told from the creep.
  const tau = bestTau((k) => rssOf([ones(n), ts, decay(k)], ys), span / 3);
  if (tau === undefined) return undefined;
  const e = decay(tau);
  const { c, rss } = linear([ones(n), ts, e], ys);
  const [base, slope, a] = c as [number, number, number];
  const jacobian = [ones(n), ts, e, e.map((v, i) => (a * v * num(ts, i)) / (tau * tau))];
  const se = standardError(jacobian, [0, 1, 0, 0], rss);
  const terms = { start, base, slope, amplitude: a };
  return fitOf('air_spring', -slope, se, rss, n, 4, terms, tau);
}

const GRID = 40;
const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** The time constant of least squares between a hundredth of `most` and three times it; none where it runs into an end. */
function bestTau(rss: (tau: number) => number, most: number): number | undefined {
  const [low, high] = [Math.log(most / 100), Math.log(most * 3)];
  const logs = Array.from({ length: GRID + 1 }, (_, i) => low + ((high - low) * i) / GRID);
  const values = logs.map((l) => rss(Math.exp(l)));
  const best = values.indexOf(Math.min(...values));
  if (best === 0 || best === GRID) return undefined;
  let [a, b] = [num(logs, best - 1), num(logs, best + 1)];
  let [x, y] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [fx, fy] = [rss(Math.exp(x)), rss(Math.exp(y))];
  while (b - a > 1e-9) {
    if (fx < fy) {
      [b, y, fy] = [y, x, fx];
      x = b - GOLDEN * (b - a);
      fx = rss(Math.exp(x));
    } else {
      [a, x, fx] = [x, y, fy];
      y = a + GOLDEN * (b - a);
      fy = rss(Math.exp(y));
    }
  }
  return Math.exp((a + b) / 2);
}
