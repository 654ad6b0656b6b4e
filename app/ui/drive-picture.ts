import { bodyRadius } from '@core/drive/clearance';
import type { Layout } from '@core/drive/layout';
import type { Setting } from '@core/drive/tensioner';
import type { Path, Point } from '@core/drive/path';

/** A drive as shapes in millimetres, y downwards as on paper. Painted by the screen and by the printed report alike. */
export type DrivePicture = {
  box: { x: number; y: number; width: number; height: number };
  belt: string;
  beltWidth: number;
  wheels: {
    id: string;
    name: string;
    x: number;
    y: number;
    r: number;
    rim: number;
    toothed: boolean;
    label: Point;
    anchor: 'start' | 'middle' | 'end';
    wrapDeg: number;
  }[];
  carrier?: { pivot: Point; centre: Point; pointer: Point } | undefined;
  clearance?: { a: Point; b: Point; mm: number } | undefined;
  title: string;
};

const flip = (p: Point): Point => ({ x: p.x, y: -p.y });
const n1 = (v: number) => v.toFixed(2);

/** Lays a setting out as shapes to scale. */
export function drivePicture(layout: Layout, setting: Setting, title: string): DrivePicture {
  const { circles, path } = setting;
  const wheels = circles.map((c, i) => {
    const w = layout.wheels[i]!;
    const r = w.teeth === undefined ? (w.outsideMm ?? c.r) : c.r - layout.toothMm / 2;
    const left = c.x < -40;
    const right = c.x > 40 || (w.role !== 'cam' && !left);
    const out = bodyRadius(layout, c, i) + 7;
    return {
      id: w.id,
      name: w.name,
      x: c.x,
      y: -c.y,
      r,
      rim: w.rimMm > 0 ? bodyRadius(layout, c, i) : 0,
      toothed: w.teeth !== undefined,
      label: left ? { x: c.x - out, y: -c.y } : right ? { x: c.x + out, y: -c.y } : { x: c.x, y: -c.y },
      anchor: left ? ('end' as const) : right ? ('start' as const) : ('middle' as const),
      wrapDeg: (path.wraps[i]! * 180) / Math.PI,
    };
  });
  const margin = 14;
  const xs = wheels.flatMap((w) => [w.x - w.r, w.x + w.r]);
  const ys = wheels.flatMap((w) => [w.y - w.r, w.y + w.r]);
  const labelRoom = 74;
  const x0 = Math.min(...xs) - margin - labelRoom;
  const x1 = Math.max(...xs) + margin + labelRoom;
  const y0 = Math.min(...ys) - margin;
  const y1 = Math.max(...ys) + margin;
  return {
    box: { x: x0, y: y0, width: x1 - x0, height: y1 - y0 },
    belt: beltPath(layout, setting),
    beltWidth: layout.backMm + layout.toothMm,
    wheels,
    carrier: carrierShape(layout, setting),
    clearance: clearanceShape(layout, setting),
    title,
  };
}

/** SVG path of the belt's pitch line: straight spans, then an arc round each wheel. */
export function beltPath(layout: Layout, setting: Pick<Setting, 'circles'> & { path: Path }): string {
  const { circles, path } = setting;
  const start = flip(path.spans[0]!.a);
  const parts = [`M${n1(start.x)} ${n1(start.y)}`];
  for (const s of path.spans) {
    const b = flip(s.b);
    const next = path.spans[s.to]!;
    const c = circles[s.to]!;
    const leave = flip(next.a);
    const wrap = path.wraps[s.to]!;
    // y is flipped, so an anticlockwise turn is drawn with sweep 0.
    parts.push(
      `L${n1(b.x)} ${n1(b.y)}`,
      `A${n1(c.r)} ${n1(c.r)} 0 ${wrap > Math.PI ? 1 : 0} ${c.turn === 1 ? 0 : 1} ${n1(leave.x)} ${n1(leave.y)}`,
    );
  }
  return `${parts.join('')}Z`;
}

function carrierShape(layout: Layout, setting: Setting): DrivePicture['carrier'] {
  const wheel = layout.wheels.find((w) => w.carrier);
  if (!wheel?.carrier) return undefined;
  const { pivot } = wheel.carrier;
  const t = (setting.carrierDeg * Math.PI) / 180;
  const reach = (wheel.outsideMm ?? 20) * 0.85;
  return {
    pivot: flip(pivot),
    centre: flip(setting.centre),
    pointer: flip({ x: pivot.x + reach * Math.cos(t), y: pivot.y + reach * Math.sin(t) }),
  };
}

function clearanceShape(layout: Layout, setting: Setting): DrivePicture['clearance'] {
  const c = setting.clearance;
  if (c?.between.kind !== 'wheels') return undefined;
  const [i, j] = c.between.wheels;
  const [p, q] = [setting.circles[i]!, setting.circles[j]!];
  const d = Math.hypot(q.x - p.x, q.y - p.y);
  const [u, v] = [(q.x - p.x) / d, (q.y - p.y) / d];
  const [ri, rj] = [bodyRadius(layout, p, i), bodyRadius(layout, q, j)];
  return {
    a: flip({ x: p.x + u * ri, y: p.y + v * ri }),
    b: flip({ x: q.x - u * rj, y: q.y - v * rj }),
    mm: c.mm,
  };
}

/** The picture as one SVG text with plain colours, for the printed report. */
export function pictureSvg(p: DrivePicture, widthPt: number): string {
  const { box } = p;
  const esc = (s: string) => s.replace(/&/g, '&amp;').replace(/</g, '&lt;');
  const wheels = p.wheels.map(
    (w) =>
      `<circle cx="${n1(w.x)}" cy="${n1(w.y)}" r="${n1(w.r)}" fill="#f4f1ea" stroke="#1e2a2b" stroke-width="1.2"/>` +
      (w.rim
        ? `<circle cx="${n1(w.x)}" cy="${n1(w.y)}" r="${n1(w.rim)}" fill="none" stroke="#1e2a2b" stroke-width="0.8" stroke-dasharray="3 2"/>`
        : '') +
      `<text x="${n1(w.label.x)}" y="${n1(w.label.y + 3)}" font-size="12" text-anchor="${w.anchor}" fill="#1e2a2b">${esc(w.name)} ${Math.round(w.wrapDeg)}°</text>`,
  );
  const carrier = p.carrier
    ? `<line x1="${n1(p.carrier.pivot.x)}" y1="${n1(p.carrier.pivot.y)}" x2="${n1(p.carrier.pointer.x)}" y2="${n1(p.carrier.pointer.y)}" stroke="#1f6f5f" stroke-width="2.4"/><circle cx="${n1(p.carrier.pivot.x)}" cy="${n1(p.carrier.pivot.y)}" r="2.6" fill="#1f6f5f"/>`
    : '';
  const gap = p.clearance
    ? `<line x1="${n1(p.clearance.a.x)}" y1="${n1(p.clearance.a.y)}" x2="${n1(p.clearance.b.x)}" y2="${n1(p.clearance.b.y)}" stroke="#8a5a00" stroke-width="3"/>`
    : '';
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPt}" height="${n1((widthPt * box.height) / box.width)}" viewBox="${n1(box.x)} ${n1(box.y)} ${n1(box.width)} ${n1(box.height)}">` +
    wheels.join('') +
    `<path d="${p.belt}" fill="none" stroke="#1e2a2b" stroke-width="2.2"/>${carrier}${gap}</svg>`
  );
}
