import { nth, num } from '@core/quantity/must';
import type { Layout } from '@core/drive/layout';
import type { Circle, Path, Point } from '@core/drive/path';

/** Thickness of a shoe as drawn. */
export const SHOE_MM = 7;
export const fixed = (v: number): string => v.toFixed(2);
/** From the drive's y upwards to the sheet's y downwards. */
export const flip = (p: Point): Point => ({ x: p.x, y: -p.y });

/** SVG path of the belt's pitch line: straight spans, then an arc round each wheel. */
export function beltPath(setting: { circles: readonly Circle[]; path: Path }): string {
  const { circles, path } = setting;
  const start = flip(nth(path.spans, 0).a);
  const parts = [`M${fixed(start.x)} ${fixed(start.y)}`];
  for (const s of path.spans) {
    const b = flip(s.b);
    const next = nth(path.spans, s.to);
    const c = nth(circles, s.to);
    const leave = flip(next.a);
    const wrap = num(path.wraps, s.to);
    // y is flipped, so an anticlockwise turn is drawn with sweep 0.
    parts.push(
      `L${fixed(b.x)} ${fixed(b.y)}`,
      `A${fixed(c.r)} ${fixed(c.r)} 0 ${wrap > Math.PI ? 1 : 0} ${c.turn === 1 ? 0 : 1} ${fixed(leave.x)} ${fixed(leave.y)}`,
    );
  }
  return `${parts.join('')}Z`;
}

/** A shoe's band, drawn inside its surface so that the chain lies on it and not in it; and where its name stands. */
export function shoeShape(c: Circle, surfaceMm: number): { d: string; label: Point } | undefined {
  if (!c.arc) return undefined;
  const [a, b] = c.arc;
  const band = surfaceMm - SHOE_MM / 2;
  const on = (t: number, r: number) => ({ x: c.x + r * Math.cos(t), y: -(c.y + r * Math.sin(t)) });
  const at = (t: number) => `${fixed(on(t, band).x)} ${fixed(on(t, band).y)}`;
  return {
    d: `M${at(a)}A${fixed(band)} ${fixed(band)} 0 ${b - a > Math.PI ? 1 : 0} 0 ${at(b)}`,
    label: on((a + b) / 2, surfaceMm - 16),
  };
}

/** Room for all wheels and shoes, with a margin for names. */
export function boxOf(
  layout: Layout,
  circles: readonly Circle[],
  margin = 24,
): { x: number; y: number; width: number; height: number } {
  const xs: number[] = [];
  const ys: number[] = [];
  circles.forEach((c, i) => {
    const r = nth(layout.wheels, i).teeth === undefined ? (nth(layout.wheels, i).outsideMm ?? c.r) : c.r;
    const points: Point[] = c.arc
      ? [c.arc[0], (c.arc[0] + c.arc[1]) / 2, c.arc[1]].map((t) => ({
          x: c.x + r * Math.cos(t),
          y: c.y + r * Math.sin(t),
        }))
      : [
          { x: c.x - r, y: c.y - r },
          { x: c.x + r, y: c.y + r },
        ];
    for (const p of points) {
      xs.push(p.x);
      ys.push(-p.y);
    }
  });
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  return { x: x0 - margin, y: y0 - margin, width: x1 - x0 + 2 * margin, height: y1 - y0 + 2 * margin };
}

/**
 * Outline of a toothed wheel about its centre, tips at r: spaces as deep as the belt's teeth, a plain trapezium a tooth, for scale, not for
 * making.
 */
export function toothOutline(z: number, r: number, depth: number): string {
  const top = r - 0.1;
  const root = r - depth;
  const parts: string[] = [];
  for (let k = 0; k < z; k++) {
    const mid = ((k + 0.5) * 2 * Math.PI) / z;
    const half = Math.PI / z;
    const points: [number, number][] = [
      [root, mid - half * 0.62],
      [top, mid - half * 0.42],
      [top, mid + half * 0.42],
      [root, mid + half * 0.62],
    ];
    for (const [rad, a] of points)
      parts.push(`${parts.length === 0 ? 'M' : 'L'}${fixed(rad * Math.cos(a))} ${fixed(-rad * Math.sin(a))}`);
  }
  return `${parts.join('')}Z`;
}
