import { must, nth, num } from '@core/quantity/must';

const PHI = (Math.sqrt(5) - 1) / 2;
export type Sample = { t: number; v: number };
export type Bracket = { from: number; to: number };

/** Values this close to the target at a highest or lowest point count as a touch. */
const TOUCH = 1e-9;
const HALVED = 8;

/**
 * A function along an interval, as points in running order: samples at equal steps, the ends of stretches where it is not
 * defined, and every highest and lowest place between samples, so that two crossings closer together than a step have a
 * point between them. Only points where it is defined are given.
 * @param closed the interval is one full turn: its end is its beginning, and an extremum may lie over the seam
 */
export function profile(f: (t: number) => number, range: Bracket, steps: number, closed = false): Sample[] {
  const width = (range.to - range.from) / steps;
  const raw: Sample[] = [];
  const put = (t: number) => raw.push({ t, v: f(t) });
  put(range.from);
  // An end may be where a tangent ends: the function is steep there, so the first and last steps are halved over and over.
  if (!closed) for (let k = HALVED; k > 0; k--) put(range.from + width / 2 ** k);
  for (let k = 1; k < steps; k++) put(range.from + width * k);
  if (!closed) for (let k = 1; k <= HALVED; k++) put(range.to - width / 2 ** k);
  put(range.to);
  const points: Sample[] = [];
  for (let k = 0; k < raw.length; k++) {
    const [a, b] = [nth(raw, k), raw[k + 1]];
    if (!Number.isNaN(a.v)) points.push(a);
    if (b && Number.isNaN(a.v) !== Number.isNaN(b.v)) points.push(...towardsEnd(f, a, b));
  }
  return withExtrema(f, points, width, closed);
}

/** Points ever nearer to where f ends between a and b, one of which it does not have; in running order. */
function towardsEnd(f: (t: number) => number, a: Sample, b: Sample): Sample[] {
  const rising = Number.isNaN(a.v);
  let [inside, outside] = rising ? [b.t, a.t] : [a.t, b.t];
  const out: Sample[] = [];
  // Far beyond what a double can part: the last point stands at the end itself.
  for (let n = 0; n < 50; n++) {
    const t = (inside + outside) / 2;
    const v = f(t);
    if (Number.isNaN(v)) outside = t;
    else {
      inside = t;
      out.push({ t, v });
    }
  }
  return rising ? out.reverse() : out;
}

/** Adds the top or bottom between neighbours of each sample that stands above or below both. */
function withExtrema(f: (t: number) => number, points: Sample[], width: number, closed: boolean): Sample[] {
  if (points.length === 0) return [];
  const out: Sample[] = [];
  const turn = closed ? must(points.at(-1)).t - nth(points, 0).t : 0;
  const far = Math.abs(width) * 1.5;
  for (let k = 0; k < points.length; k++) {
    const here = nth(points, k);
    let [before, after] = [points[k - 1], points[k + 1]];
    if (closed && k === 0) before = shifted(must(points.at(-2)), -turn);
    if (closed && k === points.length - 1) after = shifted(nth(points, 1), turn);
    // A stretch without values parts the neighbours.
    const near = (p: Sample | undefined) => p !== undefined && Math.abs(p.t - here.t) < far;
    const up = near(before) && near(after) && here.v >= must(before).v && here.v >= must(after).v;
    const down = near(before) && near(after) && here.v <= must(before).v && here.v <= must(after).v;
    if (!up && !down) {
      out.push(here);
      continue;
    }
    const top = golden(f, must(before).t, must(after).t, up ? 1 : -1);
    const better = !Number.isNaN(top.v) && (up ? top.v > here.v : top.v < here.v);
    if (!better) out.push(here);
    else if ((top.t - here.t) * width < 0) out.push(top, here);
    else out.push(here, top);
  }
  // Over the seam an extremum is found from both sides; the one outside the turn is the same place.
  return closed ? out.filter((p) => p.t >= nth(points, 0).t && p.t <= must(points.at(-1)).t) : out;
}

const shifted = (p: Sample, by: number): Sample => ({ t: p.t + by, v: p.v });

/** Golden section between a and b for the largest (sign 1) or smallest (−1) value of a function with one extremum there. */
export function golden(f: (t: number) => number, a: number, b: number, sign: 1 | -1): Sample {
  let c = b - PHI * (b - a);
  let d = a + PHI * (b - a);
  let fc = sign * f(c);
  let fd = sign * f(d);
  for (let n = 0; n < 36; n++) {
    if (Number.isNaN(fd) || fc > fd) {
      b = d;
      [d, fd] = [c, fc];
      c = b - PHI * (b - a);
      fc = sign * f(c);
    } else {
      a = c;
      [c, fc] = [d, fd];
      d = a + PHI * (b - a);
      fd = sign * f(d);
    }
  }
  const t = (a + b) / 2;
  return { t, v: f(t) };
}

/** The point with the largest (sign 1) or smallest (−1) value; undefined when there is none. */
export function extreme(points: readonly Sample[], sign: 1 | -1): Sample | undefined {
  let best: Sample | undefined;
  for (const p of points) if (best === undefined || sign * p.v > sign * best.v) best = p;
  return best;
}

/**
 * Where f passes or touches `target` along points of its {@link profile}, in their order. A jump of f is no crossing.
 */
export function crossings(f: (t: number) => number, target: number, points: readonly Sample[]): number[] {
  const zeros: number[] = [];
  const g = (t: number) => f(t) - target;
  for (let i = 0; i < points.length; i++) {
    const a = nth(points, i);
    const b = points[i + 1];
    const ga = a.v - target;
    if (Math.abs(ga) < TOUCH) zeros.push(a.t);
    else if (b && Math.abs(b.v - target) >= TOUCH && ga * (b.v - target) < 0)
      zeros.push(zeroBetween(g, a.t, ga, b.t, b.v - target));
  }
  return zeros.filter((t, i) => Math.abs(g(t)) < 1e-6 && (i === 0 || Math.abs(t - num(zeros, i - 1)) > 1e-9));
}

/** Zero of f between a and b with f(a)·f(b) < 0: regula falsi, Illinois variant (Dowell & Jarratt 1971). */
export function zeroBetween(f: (t: number) => number, a: number, fa: number, b: number, fb: number): number {
  let side = 0;
  for (let n = 0; n < 80 && Math.abs(b - a) > 1e-13; n++) {
    const m = (fa * b - fb * a) / (fa - fb);
    const fm = f(m);
    if (Math.abs(fm) < 1e-11) return m;
    if (fm * fb > 0) {
      b = m;
      fb = fm;
      if (side === -1) fa /= 2;
      side = -1;
    } else {
      a = m;
      fa = fm;
      if (side === 1) fb /= 2;
      side = 1;
    }
  }
  return (a + b) / 2;
}
