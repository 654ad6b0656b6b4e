import { must, nth, num } from '@core/quantity/must';
import type { Circle, Path, Point } from './path';

/** A point of the pitch line and the running direction there, radians. */
export type PitchPoint = Point & { angle: number };

/**
 * Places along the pitch line at `count` equal steps from `offsetMm`, in running order. One walk round the path, so that a
 * belt of many teeth costs no more than its wheels and teeth together.
 */
export function placesAlong(
  circles: readonly Circle[],
  path: Path,
  count: number,
  offsetMm: number,
): PitchPoint[] {
  const step = path.lengthMm / count;
  const from = ((offsetMm % step) + step) % step;
  const skipped = Math.round((offsetMm - from) / step);
  const out: PitchPoint[] = new Array<PitchPoint>(count);
  let k = 0;
  let at = 0;
  const put = (p: PitchPoint) => {
    out[(((k - skipped) % count) + count) % count] = p;
    k++;
  };
  for (let i = 0; i < circles.length && k < count; i++) {
    const c = nth(circles, i);
    const s = nth(path.spans, i);
    const into = nth(path.spans, (i + circles.length - 1) % circles.length);
    const lay = c.lay ?? c.r;
    const arc = lay * num(path.wraps, i);
    const start = into.angle - (c.turn * Math.PI) / 2;
    for (; k < count && from + k * step < at + arc; )
      put(onWheel(c, start + (c.turn * (from + k * step - at)) / lay));
    at += arc;
    const [ux, uy] = [Math.cos(s.angle), Math.sin(s.angle)];
    for (; k < count && from + k * step < at + s.lengthMm; ) {
      const d = from + k * step - at;
      put({ x: s.a.x + ux * d, y: s.a.y + uy * d, angle: s.angle });
    }
    at += s.lengthMm;
  }
  // Rounding may leave the last place just behind the end, which is the beginning.
  while (k < count) {
    const c = nth(circles, 0);
    put(onWheel(c, must(path.spans.at(-1)).angle - (c.turn * Math.PI) / 2));
  }
  return out;
}

function onWheel(c: Circle, a: number): PitchPoint {
  return { x: c.x + c.r * Math.cos(a), y: c.y + c.r * Math.sin(a), angle: a + (c.turn * Math.PI) / 2 };
}
