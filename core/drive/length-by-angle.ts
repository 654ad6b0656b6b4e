import type { Carrier } from './carrier';
import type { Layout } from './layout';
import { type Circle, circlesOf, spanAngle, spanLength, wrapAngle } from './path';

/**
 * Path length as a function of the carrier angle. Only the tensioner and its two neighbours move, so the rest of the
 * path is summed once. NaN where a tangent is missing.
 */
export function lengthByAngle(layout: Layout, index: number, carrier: Carrier): (t: number) => number {
  const base = circlesOf(layout).map((c) => ({ ...c, lay: c.lay ?? c.r }));
  const n = base.length;
  const tens = base[index]!;
  const p = (index + n - 1) % n;
  const q = (index + 1) % n;
  const before = base[p]!;
  const after = base[q]!;
  const loose = { ...tens };
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
    if (i !== index && j !== index) fixed += spanLength(base[i]!, base[j]!);
    if (i !== index && i !== p && i !== q) {
      const inAngle = spanAngle(base[(i + n - 1) % n]!, base[i]!);
      fixed += base[i]!.lay * signedWrap(base[i]!, inAngle, spanAngle(base[i]!, base[j]!));
    }
  }
  const intoBefore = spanAngle(base[(p + n - 1) % n]!, before);
  const outOfAfter = spanAngle(after, base[(q + 1) % n]!);
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

function move(circle: Circle, carrier: Pick<Carrier, 'pivot' | 'arm'>, t: number): void {
  circle.x = carrier.pivot.x + carrier.arm * Math.cos(t);
  circle.y = carrier.pivot.y + carrier.arm * Math.sin(t);
}

/**
 * Arc of contact folded into [−π/2, 3π/2): it runs smoothly through zero when a wheel lets go of the belt, so that the
 * length has no jump there. Such an angle is then refused by the full path check.
 */
function signedWrap(circle: Circle, angleIn: number, angleOut: number): number {
  return wrapAngle(circle.turn * (angleOut - angleIn) + Math.PI / 2) - Math.PI / 2;
}
