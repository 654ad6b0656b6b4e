import { nth, num } from '@core/quantity/must';
import type { Layout } from './layout';
import { type Circle, type Path, type BeltSpan, pointToSegment } from './path';

/** The closest approach of two things that do not belong together. */
export type Clearance = {
  mm: number;
  between:
    | { kind: 'strands'; spans: [number, number] }
    | { kind: 'strand_wheel'; span: number; wheel: number }
    | { kind: 'wheels'; wheels: [number, number] };
};

/**
 * Smallest clearance of a solved path, mm, negative where bodies would touch. Kept on the safe side: a strand is taken
 * as thick as the whole belt towards another strand, and as its thicker half towards a wheel; a wheel is taken to the
 * top of its rim. Shoes are left out: a chain lies on them by intent. Neighbours that touch by intent (a strand and its own wheels) do not count.
 */
export function smallestClearance(
  layout: Layout,
  circles: readonly Circle[],
  path: Path,
): Clearance | undefined {
  const half = Math.max(layout.backMm, layout.toothMm);
  const body = circles.map((c, i) => bodyRadius(layout, c, i));
  let best: Clearance | undefined;
  const offer = (c: Clearance) => {
    if (best === undefined || c.mm < best.mm) best = c;
  };
  const n = circles.length;
  for (const [i, s] of path.spans.entries()) {
    for (let j = i + 2; j < path.spans.length; j++) {
      if (i === 0 && j === n - 1) continue;
      const mm = segmentGap(s, nth(path.spans, j)) - layout.backMm - layout.toothMm;
      offer({ mm, between: { kind: 'strands', spans: [i, j] } });
    }
    for (const [k, c] of circles.entries()) {
      if (k === s.from || k === s.to || c.arc) continue;
      offer({
        mm: pointToSegment(c, s.a, s.b) - num(body, k) - half,
        between: { kind: 'strand_wheel', span: i, wheel: k },
      });
    }
  }
  for (const [i, a] of circles.entries()) {
    for (let j = i + 1; j < n; j++) {
      const b = nth(circles, j);
      if (a.arc || b.arc) continue;
      const mm = Math.hypot(a.x - b.x, a.y - b.y) - num(body, i) - num(body, j);
      offer({ mm, between: { kind: 'wheels', wheels: [i, j] } });
    }
  }
  return best;
}

/** Radius to the top of the rim: the surface that carries the belt plus the rim's height. */
export function bodyRadius(layout: Layout, circle: Pick<Circle, 'r'>, index: number): number {
  const wheel = nth(layout.wheels, index);
  const surface = wheel.teeth === undefined ? (wheel.outsideMm ?? circle.r) : circle.r;
  return surface + wheel.rimMm;
}

function segmentGap(s: BeltSpan, t: BeltSpan): number {
  return Math.min(
    pointToSegment(s.a, t.a, t.b),
    pointToSegment(s.b, t.a, t.b),
    pointToSegment(t.a, s.a, s.b),
    pointToSegment(t.b, s.a, s.b),
  );
}
