import { plungerTip } from '@core/drive/carrier';
import { bodyRadius } from '@core/drive/clearance';
import type { Layout } from '@core/drive/layout';
import type { Setting } from '@core/drive/tensioner';
import type { Point } from '@core/drive/path';
import { beltPath, boxOf, fixed, flip, SHOE_MM, shoeShape } from './drive-shapes';

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
    /** Band of a shoe; then it is no circle. */
    shoe?: string;
  }[];
  carrier?: { pivot: Point; centre: Point; pointer: Point } | undefined;
  clearance?: { a: Point; b: Point; mm: number } | undefined;
  title: string;
};

const n1 = fixed;

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
      ...shoeLabel(c, r),
    };
  });
  const room = boxOf(layout, circles, 14);
  const labelRoom = 74;
  return {
    box: { ...room, x: room.x - labelRoom, width: room.width + 2 * labelRoom },
    belt: beltPath(setting),
    beltWidth: layout.backMm + layout.toothMm,
    wheels,
    carrier: carrierShape(layout, setting),
    clearance: clearanceShape(layout, setting),
    title,
  };
}

/** A shoe's band, with its name outside it. */
function shoeLabel(c: Setting['circles'][number], r: number) {
  const shoe = shoeShape(c, r);
  if (!shoe) return {};
  const left = shoe.label.x < 0;
  const label = { x: shoe.label.x + (left ? -8 : 8), y: shoe.label.y };
  return { shoe: shoe.d, label, anchor: left ? ('end' as const) : ('start' as const) };
}

function carrierShape(layout: Layout, setting: Setting): DrivePicture['carrier'] {
  const wheel = layout.wheels.find((w) => w.carrier && w.role === 'tensioner');
  if (!wheel?.carrier) return undefined;
  const { pivot } = wheel.carrier;
  const { carrier } = wheel;
  const t = (setting.carrierDeg * Math.PI) / 180;
  const reach = carrier.kind === 'eccentric' ? (wheel.outsideMm ?? 20) * 0.85 : carrier.arm;
  const pointer =
    carrier.kind === 'arm' && carrier.plunger
      ? plungerTip(carrier, carrier.plunger, setting.carrierDeg)
      : { x: pivot.x + reach * Math.cos(t), y: pivot.y + reach * Math.sin(t) };
  return { pivot: flip(pivot), centre: flip(setting.centre), pointer: flip(pointer) };
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
  // Names carry their wrap here, so they need more room than on the screen.
  const box = { ...p.box, x: p.box.x - 40, width: p.box.width + 80 };
  const esc = (s: string) => s.replace(/&/g, '&amp;').replace(/</g, '&lt;');
  const wheels = p.wheels.map(
    (w) =>
      (w.shoe
        ? `<path d="${w.shoe}" fill="none" stroke="#6b7675" stroke-width="${SHOE_MM}"/>`
        : `<circle cx="${n1(w.x)}" cy="${n1(w.y)}" r="${n1(w.r)}" fill="#f4f1ea" stroke="#1e2a2b" stroke-width="1.2"/>`) +
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
