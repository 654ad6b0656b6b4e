import { type Result, err, ok } from '@core/quantity/result';
import { type Clearance, smallestClearance } from './clearance';
import { type Carrier, type Layout, nominalLength } from './layout';
import {
  type Circle,
  type Path,
  type PathError,
  type Point,
  circlesOf,
  solvePath,
  spanAngle,
  spanLength,
  wrapAngle,
} from './path';

/** One carrier angle at which the path is as long as the belt. */
export type Setting = {
  carrierDeg: number;
  /** Degrees from the start mark, positive in the carrier's proper sense, in (−180, 180]. */
  pointerDeg: number;
  centre: Point;
  circles: Circle[];
  path: Path;
  clearance: Clearance | undefined;
  /** Growth of the belt that the carrier can still follow before the path stops getting longer, mm. */
  reserveMm: number;
  /** Carrier sense that takes up slack here. */
  takeUp: 'cw' | 'ccw';
  inWindow: boolean;
};
export type ImpossibleSetting = { carrierDeg: number; pointerDeg: number; why: PathError };
export type Settings = {
  tensioner: number;
  targetMm: number;
  found: Setting[];
  impossible: ImpossibleSetting[];
  /** Path lengths that the carrier can reach, mm. */
  reach: { minMm: number; maxMm: number };
};
export type SettingsError =
  | { code: 'no_tensioner' }
  | { code: 'no_geometry'; why: PathError }
  | { code: 'belt_too_long' | 'belt_too_short'; byMm: number };

const TAU = 2 * Math.PI;
const RAD = Math.PI / 180;
const STEPS = 180;

/** Pointer reading for a carrier angle, degrees in (−180, 180]. */
export function pointerAt(carrier: Carrier, carrierDeg: number): number {
  const raw = (carrier.turn === 'ccw' ? 1 : -1) * (carrierDeg - carrier.startDeg);
  const folded = ((raw % 360) + 360) % 360;
  return folded > 180 ? folded - 360 : folded;
}

/** Carrier angle for a pointer reading, degrees. Inverse of {@link pointerAt} up to whole turns. */
export function carrierAt(carrier: Carrier, pointerDeg: number): number {
  return carrier.startDeg + (carrier.turn === 'ccw' ? 1 : -1) * pointerDeg;
}

/** Centre of the carried wheel at carrier angle t, radians. */
export function carriedCentre(carrier: Carrier, t: number): Point {
  return { x: carrier.pivot.x + carrier.arm * Math.cos(t), y: carrier.pivot.y + carrier.arm * Math.sin(t) };
}

/**
 * Path length as a function of the carrier angle. Only the tensioner and its two neighbours move, so the rest of the
 * path is summed once. NaN where a tangent is missing.
 */
export function lengthByAngle(layout: Layout, index: number, carrier: Carrier): (t: number) => number {
  const base = circlesOf(layout);
  const n = base.length;
  const tens = base[index]!;
  const p = (index + n - 1) % n;
  const q = (index + 1) % n;
  const before = base[p]!;
  const after = base[q]!;
  const loose = { ...tens };
  if (n === 2) {
    return (t) => {
      Object.assign(loose, carriedCentre(carrier, t));
      const out = spanAngle(loose, after);
      const back = spanAngle(after, loose);
      return (
        2 * spanLength(loose, after) +
        loose.r * signedWrap(loose, back, out) +
        after.r * signedWrap(after, out, back)
      );
    };
  }
  let fixed = 0;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    if (i !== index && j !== index) fixed += spanLength(base[i]!, base[j]!);
    if (i !== index && i !== p && i !== q) {
      const inAngle = spanAngle(base[(i + n - 1) % n]!, base[i]!);
      fixed += base[i]!.r * signedWrap(base[i]!, inAngle, spanAngle(base[i]!, base[j]!));
    }
  }
  const intoBefore = spanAngle(base[(p + n - 1) % n]!, before);
  const outOfAfter = spanAngle(after, base[(q + 1) % n]!);
  return (t) => {
    loose.x = carrier.pivot.x + carrier.arm * Math.cos(t);
    loose.y = carrier.pivot.y + carrier.arm * Math.sin(t);
    const a = spanAngle(before, loose);
    const b = spanAngle(loose, after);
    const wBefore = signedWrap(before, intoBefore, a);
    const wLoose = signedWrap(loose, a, b);
    const wAfter = signedWrap(after, b, outOfAfter);
    return (
      fixed +
      spanLength(before, loose) +
      spanLength(loose, after) +
      before.r * wBefore +
      loose.r * wLoose +
      after.r * wAfter
    );
  };
}

/**
 * All carrier angles at which the path has the length `count · pitch` (plus `growthMm`), each with what follows from
 * it. Commonly two: the intended one and the one reached by turning the wrong way. Angles at which the drive cannot
 * exist are listed as impossible and not offered. Dense scan over one turn, then regula falsi to 1e-11 mm.
 */
export function tensionerSettings(layout: Layout, growthMm = 0): Result<Settings, SettingsError> {
  const index = layout.wheels.findIndex((w) => w.carrier !== undefined);
  const carrier = layout.wheels[index]?.carrier;
  if (carrier === undefined) return err({ code: 'no_tensioner' });
  const targetMm = nominalLength(layout) + growthMm;
  const lengthAt = lengthByAngle(layout, index, carrier);
  const step = TAU / STEPS;
  const at = Array.from({ length: STEPS }, (_, k) => lengthAt(k * step));
  const top = extremum(lengthAt, at, step, 1);
  const bottom = extremum(lengthAt, at, step, -1);
  if (Number.isNaN(top.value)) {
    const tried = solvePath(circlesOf(layout), layout.runs === 'ccw' ? 1 : -1);
    return err({
      code: 'no_geometry',
      why: tried.ok ? { code: 'no_tangent', wheels: [index] } : tried.error,
    });
  }
  if (targetMm > top.value) return err({ code: 'belt_too_long', byMm: targetMm - top.value });
  if (targetMm < bottom.value) return err({ code: 'belt_too_short', byMm: bottom.value - targetMm });

  const found: Setting[] = [];
  const impossible: ImpossibleSetting[] = [];
  for (const t of roots(
    (x) => lengthAt(x) - targetMm,
    at.map((l) => l - targetMm),
    step,
    [top.t, bottom.t],
  )) {
    const carrierDeg = t / RAD;
    const pointerDeg = pointerAt(carrier, carrierDeg);
    const centre = carriedCentre(carrier, t);
    const circles = circlesOf(layout, { wheel: index, centre });
    const path = solvePath(circles, layout.runs === 'ccw' ? 1 : -1);
    if (!path.ok) {
      impossible.push({ carrierDeg, pointerDeg, why: path.error });
      continue;
    }
    found.push({
      carrierDeg,
      pointerDeg,
      centre,
      circles,
      path: path.value,
      clearance: smallestClearance(layout, circles, path.value),
      reserveMm: top.value - targetMm,
      takeUp: lengthAt(t + 1e-5) > lengthAt(t - 1e-5) ? 'ccw' : 'cw',
      inWindow: pointerDeg >= carrier.window.from && pointerDeg <= carrier.window.to,
    });
  }
  return ok({
    tensioner: index,
    targetMm,
    found,
    impossible,
    reach: { minMm: bottom.value, maxMm: top.value },
  });
}

/**
 * Arc of contact folded into [−π/2, 3π/2): it runs smoothly through zero when a wheel lets go of the belt, so that the
 * length has no jump there. Such an angle is then refused by the full path check.
 */
function signedWrap(circle: Circle, angleIn: number, angleOut: number): number {
  return wrapAngle(circle.turn * (angleOut - angleIn) + Math.PI / 2) - Math.PI / 2;
}

/** Largest (sign 1) or smallest (−1) length over a turn: best scan point, then golden section between its neighbours. */
function extremum(f: (t: number) => number, at: readonly number[], step: number, sign: 1 | -1) {
  let k = -1;
  for (const [i, v] of at.entries()) if (!Number.isNaN(v) && (k < 0 || sign * v > sign * at[k]!)) k = i;
  if (k < 0) return { t: NaN, value: NaN };
  const phi = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [(k - 1) * step, (k + 1) * step];
  for (let i = 0; i < 40; i++) {
    const c = b - phi * (b - a);
    const d = a + phi * (b - a);
    const [fc, fd] = [sign * f(c), sign * f(d)];
    if (Number.isNaN(fd) || fc > fd) b = d;
    else a = c;
  }
  const t = (a + b) / 2;
  const value = f(t);
  return Number.isNaN(value) || sign * value < sign * at[k]! ? { t: k * step, value: at[k]! } : { t, value };
}

/**
 * Zeros over one turn, ascending in [0, 2π). The scan is split at the extrema too, so that two zeros
 * that lie closer together than a scan step are both found.
 */
function roots(
  f: (t: number) => number,
  at: readonly number[],
  step: number,
  extra: readonly number[],
): number[] {
  const points = at.map((v, k) => ({ t: k * step, v }));
  for (const t of extra) points.push({ t: ((t % TAU) + TAU) % TAU, v: f(t) });
  points.sort((a, b) => a.t - b.t);
  const first = points[0]!;
  points.push({ t: first.t + TAU, v: first.v });
  const zeros: number[] = [];
  for (let i = 0; i + 1 < points.length; i++) {
    const { t: a, v: fa } = points[i]!;
    const { t: tb, v: fb } = points[i + 1]!;
    if (Math.abs(fa) < 1e-12) {
      zeros.push(a);
      continue;
    }
    if (!(fa * fb < 0)) continue;
    zeros.push(zeroBetween(f, a, fa, tb, fb));
  }
  // A jump from 2π to 0 in a wrap looks like a zero; a true zero is small.
  return zeros
    .filter((t, i) => Math.abs(f(t)) < 1e-6 && (i === 0 || t - zeros[i - 1]! > 1e-9))
    .map((t) => t % TAU);
}

/** Zero of f in [a, b] with f(a)·f(b) < 0: regula falsi, Illinois variant (Dowell & Jarratt 1971). */
function zeroBetween(f: (t: number) => number, a: number, fa: number, b: number, fb: number): number {
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
