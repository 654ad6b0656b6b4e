import { nth, num } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import { carriedCentre, type Point } from './carrier';
import { type Layout, layRadius, pitchRadius } from './layout';

export type { Point };
/**
 * A wheel as the solver sees it. `turn` +1: the belt turns anticlockwise round it in running order. `lay`: length laid on
 * it per radian, r unless given. `arc`: a shoe, whose surface goes anticlockwise between these two angles, radians.
 */
export type Circle = Point & { r: number; turn: 1 | -1; lay?: number; arc?: readonly [number, number] };
export type BeltSpan = { from: number; to: number; a: Point; b: Point; lengthMm: number; angle: number };
export type Path = {
  lengthMm: number;
  spans: BeltSpan[];
  /** Arc of contact of each wheel, radians in [0, 2π). */
  wraps: number[];
};

export type PathError =
  | { code: 'too_few_wheels'; wheels: number[] }
  | { code: 'no_radius'; wheels: number[] }
  | { code: 'wheels_overlap'; wheels: number[]; byMm: number }
  | { code: 'no_tangent'; wheels: number[] }
  | { code: 'not_reached'; wheels: number[] }
  | { code: 'spans_cross'; wheels: number[] }
  | { code: 'span_cuts_wheel'; wheels: number[]; byMm: number }
  | { code: 'span_cuts_shoe'; wheels: number[] }
  | { code: 'off_shoe'; wheels: number[]; byDeg: number };

const TAU = 2 * Math.PI;
const EPS = 1e-9;
export const wrapAngle = (a: number): number => ((a % TAU) + TAU) % TAU;

/** Angle of the span that leaves i and meets j, or NaN where no tangent exists. Handbook formula, see docs/formulas.md. */
export function spanAngle(i: Circle, j: Circle): number {
  const dx = j.x - i.x;
  const dy = j.y - i.y;
  return Math.atan2(dy, dx) - Math.asin((j.turn * j.r - i.turn * i.r) / Math.sqrt(dx * dx + dy * dy));
}

/** Length of the span between two wheels, mm, or NaN where no tangent exists. */
export function spanLength(i: Circle, j: Circle): number {
  const dx = j.x - i.x;
  const dy = j.y - i.y;
  const k = i.turn * i.r - j.turn * j.r;
  return Math.sqrt(dx * dx + dy * dy - k * k);
}

const RAD = Math.PI / 180;

/** How far a shoe's surface goes, radians in (0, 2π]: 330° to 30° is the same surface as −30° to 30°. */
function arcWidth(arc: { fromDeg: number; toDeg: number }): number {
  const width = wrapAngle((arc.toDeg - arc.fromDeg) * RAD);
  return width < EPS && arc.toDeg !== arc.fromDeg ? TAU : width;
}

/** Wheels of a layout as circles; carried ones may be given at another carrier angle than the stored one. */
export function circlesOf(
  layout: Layout,
  at: readonly { wheel: number; carrierDeg: number }[] = [],
): Circle[] {
  const sense = layout.runs === 'ccw' ? 1 : -1;
  return layout.wheels.map((w, i) => {
    const moved = at.find((a) => a.wheel === i);
    const c = moved && w.carrier ? carriedCentre(w.carrier, moved.carrierDeg * RAD) : w;
    const circle: Circle = {
      x: c.x,
      y: c.y,
      r: pitchRadius(layout, w),
      turn: (w.side * sense) as 1 | -1,
      lay: layRadius(layout, w),
    };
    if (w.arc) {
      const by = moved && w.carrier ? moved.carrierDeg * RAD - storedAngle(w, w.carrier.pivot) : 0;
      const from = w.arc.fromDeg * RAD + by;
      circle.arc = [from, from + arcWidth(w.arc)];
    }
    return circle;
  });
}

/** Carrier angle at which a carried wheel is stored, radians. */
export const storedAngle = (wheel: Point, pivot: Point): number =>
  Math.atan2(wheel.y - pivot.y, wheel.x - pivot.x);

/** Arc of contact from the incoming to the outgoing span in the wheel's own sense, radians in [0, 2π). */
function wrapOf(circle: Circle, angleIn: number, angleOut: number): number {
  const w = wrapAngle(circle.turn * (angleOut - angleIn));
  return w > TAU - EPS ? 0 : w;
}

/**
 * Closed path round the circles in order: tangent spans, arcs of contact and length at the pitch line.
 * Refused, with the wheels named by index, when it cannot exist.
 * @param sense +1 when the belt goes round anticlockwise
 */
export function solvePath(circles: readonly Circle[], sense: 1 | -1): Result<Path, PathError> {
  const n = circles.length;
  if (n < 2) return err({ code: 'too_few_wheels', wheels: circles.map((_, i) => i) });
  const bare = circles.findIndex((c) => !(c.r > 0));
  if (bare >= 0) return err({ code: 'no_radius', wheels: [bare] });
  const clash = overlap(circles);
  if (clash) return err(clash);

  const spans: BeltSpan[] = [];
  for (const [i, c] of circles.entries()) {
    const j = (i + 1) % n;
    const d = nth(circles, j);
    const angle = spanAngle(c, d);
    if (Number.isNaN(angle)) return err({ code: 'no_tangent', wheels: [i, j] });
    spans.push({ from: i, to: j, a: touch(c, angle), b: touch(d, angle), lengthMm: spanLength(c, d), angle });
  }
  const wraps = circles.map((c, i) => wrapOf(c, nth(spans, (i + n - 1) % n).angle, nth(spans, i).angle));
  const turns = circles.reduce((sum, c, i) => sum + c.turn * num(wraps, i), 0);
  if (Math.abs(turns - sense * TAU) > 1e-6) {
    return err({ code: 'not_reached', wheels: [wraps.indexOf(Math.max(...wraps))] });
  }
  const fault =
    crossing(spans) ?? cut(circles, spans) ?? throughShoe(circles, spans) ?? offShoe(circles, spans);
  if (fault) return err(fault);
  const lengthMm =
    spans.reduce((s, x) => s + x.lengthMm, 0) +
    circles.reduce((s, c, i) => s + (c.lay ?? c.r) * num(wraps, i), 0);
  return ok({ lengthMm, spans, wraps });
}

/** Where a span of this direction touches the circle. */
function touch(c: Circle, angle: number): Point {
  return { x: c.x + c.turn * c.r * Math.sin(angle), y: c.y - c.turn * c.r * Math.cos(angle) };
}

function overlap(circles: readonly Circle[]): PathError | undefined {
  for (const [i, a] of circles.entries()) {
    for (let j = i + 1; j < circles.length; j++) {
      const b = nth(circles, j);
      // A shoe is no disc: its centre of curvature may lie far away.
      if (a.arc || b.arc) continue;
      const byMm = a.r + b.r - Math.hypot(a.x - b.x, a.y - b.y);
      // Pitch circles of two belt wheels on opposite sides may come as close as the belt between them; they still must not overlap.
      if (byMm > EPS) return { code: 'wheels_overlap', wheels: [i, j], byMm };
    }
  }
  return undefined;
}

function crossing(spans: readonly BeltSpan[]): PathError | undefined {
  for (const [i, s] of spans.entries()) {
    for (let j = i + 1; j < spans.length; j++) {
      const t = nth(spans, j);
      if (segmentsCross(s.a, s.b, t.a, t.b))
        return { code: 'spans_cross', wheels: [s.from, s.to, t.from, t.to] };
    }
  }
  return undefined;
}

function cut(circles: readonly Circle[], spans: readonly BeltSpan[]): PathError | undefined {
  for (const s of spans) {
    for (const [k, c] of circles.entries()) {
      if (k === s.from || k === s.to || c.arc) continue;
      const byMm = c.r - pointToSegment(c, s.a, s.b);
      if (byMm > EPS) return { code: 'span_cuts_wheel', wheels: [s.from, s.to, k], byMm };
    }
  }
  return undefined;
}

/** A strand that goes from one side of a shoe's surface to the other. */
function throughShoe(circles: readonly Circle[], spans: readonly BeltSpan[]): PathError | undefined {
  for (const s of spans) {
    for (const [k, c] of circles.entries()) {
      if (!c.arc || k === s.from || k === s.to) continue;
      if (crossesArc(s, c, c.arc)) return { code: 'span_cuts_shoe', wheels: [s.from, s.to, k] };
    }
  }
  return undefined;
}

function crossesArc(s: BeltSpan, c: Circle, [from, to]: readonly [number, number]): boolean {
  const [dx, dy, ex, ey] = [s.b.x - s.a.x, s.b.y - s.a.y, s.a.x - c.x, s.a.y - c.y];
  // |a + u·(b − a) − centre| = r, a quadratic in u
  const [qa, qb, qc] = [dx * dx + dy * dy, dx * ex + dy * ey, ex * ex + ey * ey - c.r * c.r];
  const root = qb * qb - qa * qc;
  if (!(root > EPS) || qa === 0) return false;
  return [-1, 1].some((sign) => {
    const u = (-qb + sign * Math.sqrt(root)) / qa;
    if (u <= EPS || u >= 1 - EPS) return false;
    return wrapAngle(Math.atan2(ey + u * dy, ex + u * dx) - from) <= to - from;
  });
}

/** A shoe guides only as far as its surface goes: where a strand would leave beyond its end it is refused. */
function offShoe(circles: readonly Circle[], spans: readonly BeltSpan[]): PathError | undefined {
  const n = circles.length;
  for (let i = 0; i < n; i++) {
    const c = nth(circles, i);
    if (!c.arc) continue;
    const [from, to] = c.arc;
    for (const angle of [nth(spans, (i + n - 1) % n).angle, nth(spans, i).angle]) {
      const past = wrapAngle(angle - (c.turn * Math.PI) / 2 - from);
      const width = to - from;
      if (past > width + EPS)
        return { code: 'off_shoe', wheels: [i], byDeg: Math.min(past - width, TAU - past) / RAD };
    }
  }
  return undefined;
}

function segmentsCross(a: Point, b: Point, c: Point, d: Point): boolean {
  const side = (p: Point, q: Point, r: Point) => (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x);
  const s1 = side(a, b, c);
  const s2 = side(a, b, d);
  const s3 = side(c, d, a);
  const s4 = side(c, d, b);
  return s1 * s2 < -EPS && s3 * s4 < -EPS;
}

/** Distance from a point to a segment, same unit as the coordinates. */
export function pointToSegment(p: Point, a: Point, b: Point): number {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const len = dx * dx + dy * dy;
  const t = len === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / len));
  const ex = p.x - a.x - t * dx;
  const ey = p.y - a.y - t * dy;
  // Math.hypot guards against overflow that millimetres never reach, at ten times the cost.
  return Math.sqrt(ex * ex + ey * ey);
}
