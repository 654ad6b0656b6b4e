import { nth } from '@core/quantity/must';
import type { Carrier } from './carrier';
import type { Layout } from './layout';
import { type Circle, circlesOf, spanAngle, spanLength, wrapAngle } from './path';
import type { Bracket } from './roots';

type Laid = Circle & { lay: number };
const TAU = 2 * Math.PI;

/**
 * Path length as a function of the carrier angle. Only the tensioner and its two neighbours move, so the rest of the
 * path is summed once. NaN where a tangent is missing.
 */
export function lengthByAngle(layout: Layout, index: number, carrier: Carrier): (t: number) => number {
  const { base, p, q, before, after } = around(layout, index);
  const n = base.length;
  const loose = { ...nth(base, index) };
  if (n === 2) {
    return (t) => {
      move(loose, carrier, t);
      const out = spanAngle(loose, after);
      const back = spanAngle(after, loose);
      return (
        2 * spanLength(loose, after) +
        loose.lay * signedWrap(loose, back, out) +
        after.lay * signedWrap(after, out, back)
      );
    };
  }
  let fixed = 0;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    if (i !== index && j !== index) fixed += spanLength(nth(base, i), nth(base, j));
    if (i !== index && i !== p && i !== q) {
      const inAngle = spanAngle(nth(base, (i + n - 1) % n), nth(base, i));
      fixed += nth(base, i).lay * signedWrap(nth(base, i), inAngle, spanAngle(nth(base, i), nth(base, j)));
    }
  }
  const intoBefore = spanAngle(nth(base, (p + n - 1) % n), before);
  const outOfAfter = spanAngle(after, nth(base, (q + 1) % n));
  return (t) => {
    move(loose, carrier, t);
    const a = spanAngle(before, loose);
    const b = spanAngle(loose, after);
    const wBefore = signedWrap(before, intoBefore, a);
    const wLoose = signedWrap(loose, a, b);
    const wAfter = signedWrap(after, b, outOfAfter);
    return (
      fixed +
      spanLength(before, loose) +
      spanLength(loose, after) +
      before.lay * wBefore +
      loose.lay * wLoose +
      after.lay * wAfter
    );
  };
}

function around(layout: Layout, index: number) {
  const base: Laid[] = circlesOf(layout).map((c) => ({ ...c, lay: c.lay ?? c.r }));
  const n = base.length;
  const p = (index + n - 1) % n;
  const q = (index + 1) % n;
  return { base, p, q, before: nth(base, p), after: nth(base, q) };
}

/**
 * Carrier angles, radians, at which both neighbours have a tangent to the carried wheel, within `range`. Closed form: the
 * distance to a neighbour is √(a + b·cos(t − φ)) and must not fall below the difference of the signed radii.
 * A full turn comes out in one piece where nothing ends it, else in pieces that may run past its end.
 */
export function tangentRanges(layout: Layout, index: number, carrier: Carrier, range: Bracket): Bracket[] {
  const { base, before, after } = around(layout, index);
  const loose = nth(base, index);
  let pieces: Bracket[] = [range];
  for (const other of new Set([before, after])) {
    const [dx, dy] = [carrier.pivot.x - other.x, carrier.pivot.y - other.y];
    const reach = Math.hypot(dx, dy);
    const need = (loose.turn * loose.r - other.turn * other.r) ** 2;
    const c = (need - reach ** 2 - carrier.arm ** 2) / (2 * carrier.arm * reach);
    if (c <= -1) continue;
    if (c > 1 || Number.isNaN(c)) return [];
    const half = Math.acos(c);
    const middle = Math.atan2(dy, dx);
    const whole = range.to - range.from >= TAU - 1e-9;
    pieces = pieces.flatMap((piece) => cutBy(piece, middle - half, middle + half, whole && piece === range));
  }
  return pieces;
}

/** The parts of a piece that lie within [from, to] or a turn of it; of a whole turn, that arc itself. */
function cutBy(piece: Bracket, from: number, to: number, whole: boolean): Bracket[] {
  if (whole) return [{ from, to }];
  const out: Bracket[] = [];
  for (let k = Math.floor((piece.from - to) / TAU); k <= Math.ceil((piece.to - from) / TAU); k++) {
    const part = { from: Math.max(piece.from, from + k * TAU), to: Math.min(piece.to, to + k * TAU) };
    if (part.to > part.from) out.push(part);
  }
  return out;
}

function move(circle: Circle, carrier: Pick<Carrier, 'pivot' | 'arm'>, t: number): void {
  circle.x = carrier.pivot.x + carrier.arm * Math.cos(t);
  circle.y = carrier.pivot.y + carrier.arm * Math.sin(t);
}

/** Where an arc of contact is cut: a little below zero, so that length has no jump where a wheel lets go of the belt. */
const CUT = Math.PI / 4;

/** Arc of contact in [−π/4, 7π/4). A negative one is refused by the full path check. */
function signedWrap(circle: Circle, angleIn: number, angleOut: number): number {
  return wrapAngle(circle.turn * (angleOut - angleIn) + CUT) - CUT;
}
