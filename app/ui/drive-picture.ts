import { must, nth, num } from '@core/quantity/must';
import { plungerTip } from '@core/drive/carrier';
import { bodyRadius } from '@core/drive/clearance';
import type { Layout } from '@core/drive/layout';
import type { Setting } from '@core/drive/tensioner';
import type { Point } from '@core/drive/path';
import { driveScene } from './drive-scene';
import { type Label, labelPlaces, type Named } from './label-places';
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
    wrapDeg: number;
    /** Band of a shoe; then it is no circle. */
    shoe?: string;
  }[];
  /** Names with their wraps, by their middles, off strands, wheels and each other; and the height of their letters. */
  names: Label[];
  /** From a name that stands away from its wheel to it. */
  leaders: { a: Point; b: Point }[];
  textMm: number;
  carrier?: { pivot: Point; centre: Point; pointer: Point } | undefined;
  clearance?: { a: Point; b: Point; mm: number } | undefined;
  title: string;
};

const n1 = fixed;

/** Room in which it is usually shown, pixels: names have their usual size there. */
const SHOWN = { width: 340, height: 310 };
const TEXT_PX = 11;
/** Free margin, mm. */
const MARGIN = 14;

/** A drive that can be drawn: at a setting, or as it stands where nothing is set. */
type Drawn = Pick<Setting, 'circles' | 'path'> & Partial<Setting>;

/** Lays a setting out as shapes to scale, with names where they lie on nothing. */
export function drivePicture(layout: Layout, setting: Drawn, title: string): DrivePicture {
  const { circles, path } = setting;
  const room = boxOf(layout, circles, MARGIN);
  const unit = Math.max(room.width / SHOWN.width, room.height / SHOWN.height);
  const { named, obstacles } = driveScene({ layout, circles, path });
  const wrapDeg = (i: number) => (num(path.wraps, i) * 180) / Math.PI;
  const names = labelPlaces(
    named.map((n, i) => ({ ...n, name: `${n.name} ${Math.round(wrapDeg(i))}°` })),
    obstacles,
    unit,
  );
  const wheels = circles.map((c, i) => {
    const w = nth(layout.wheels, i);
    const r = w.teeth === undefined ? (w.outsideMm ?? c.r) : c.r - layout.toothMm / 2;
    const shoe = shoeShape(c, r);
    return {
      id: w.id,
      name: w.name,
      x: c.x,
      y: -c.y,
      r,
      rim: w.rimMm > 0 ? bodyRadius(layout, c, i) : 0,
      toothed: w.teeth !== undefined,
      wrapDeg: wrapDeg(i),
      ...(shoe ? { shoe: shoe.d } : {}),
    };
  });
  return {
    box: around(room, names),
    belt: beltPath(setting),
    beltWidth: layout.backMm + layout.toothMm,
    wheels,
    names,
    leaders: leadersOf(named, names, unit),
    textMm: TEXT_PX * unit,
    carrier: carrierShape(layout, setting),
    clearance: clearanceShape(layout, setting),
    title,
  };
}

/** A name further off than this many pixels is led to what it names. */
const LED_PX = 10;

function leadersOf(named: readonly Named[], names: readonly Label[], unit: number): DrivePicture['leaders'] {
  return names.flatMap((l) => {
    const n = must(named.find((x) => x.id === l.id));
    // the point of the name's room that is nearest to the wheel
    const b = { x: clamp(n.x, l.x, l.width / 2), y: clamp(n.y, l.y, l.height / 2) };
    const far = Math.hypot(b.x - n.x, b.y - n.y);
    if (far - n.r < LED_PX * unit) return [];
    return [{ a: { x: n.x + ((b.x - n.x) * n.r) / far, y: n.y + ((b.y - n.y) * n.r) / far }, b }];
  });
}
const clamp = (v: number, middle: number, half: number): number =>
  Math.max(middle - half, Math.min(middle + half, v));

/** The box grown for its names. */
function around(room: DrivePicture['box'], names: readonly Label[]): DrivePicture['box'] {
  const x = Math.min(room.x, ...names.map((l) => l.x - l.width / 2));
  const y = Math.min(room.y, ...names.map((l) => l.y - l.height / 2));
  const right = Math.max(room.x + room.width, ...names.map((l) => l.x + l.width / 2));
  const bottom = Math.max(room.y + room.height, ...names.map((l) => l.y + l.height / 2));
  return { x, y, width: right - x, height: bottom - y };
}

function carrierShape(layout: Layout, setting: Drawn): DrivePicture['carrier'] {
  const wheel = layout.wheels.find((w) => w.carrier && w.role === 'tensioner');
  const { carrierDeg, centre } = setting;
  if (!wheel?.carrier || carrierDeg === undefined || !centre) return undefined;
  const { pivot } = wheel.carrier;
  const { carrier } = wheel;
  const t = (carrierDeg * Math.PI) / 180;
  const reach = carrier.kind === 'eccentric' ? (wheel.outsideMm ?? 20) * 0.85 : carrier.arm;
  const pointer =
    carrier.kind === 'arm' && carrier.plunger
      ? plungerTip(carrier, carrier.plunger, carrierDeg)
      : { x: pivot.x + reach * Math.cos(t), y: pivot.y + reach * Math.sin(t) };
  return { pivot: flip(pivot), centre: flip(centre), pointer: flip(pointer) };
}

function clearanceShape(layout: Layout, setting: Drawn): DrivePicture['clearance'] {
  const c = setting.clearance;
  if (c?.between.kind !== 'wheels') return undefined;
  const [i, j] = c.between.wheels;
  const [p, q] = [nth(setting.circles, i), nth(setting.circles, j)];
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
      (w.shoe
        ? `<path d="${w.shoe}" fill="none" stroke="#6b7675" stroke-width="${SHOE_MM}"/>`
        : `<circle cx="${n1(w.x)}" cy="${n1(w.y)}" r="${n1(w.r)}" fill="#f4f1ea" stroke="#1e2a2b" stroke-width="1.2"/>`) +
      (w.rim
        ? `<circle cx="${n1(w.x)}" cy="${n1(w.y)}" r="${n1(w.rim)}" fill="none" stroke="#1e2a2b" stroke-width="0.8" stroke-dasharray="3 2"/>`
        : ''),
  );
  const leaders = p.leaders.map(
    ({ a, b }) =>
      `<line x1="${n1(a.x)}" y1="${n1(a.y)}" x2="${n1(b.x)}" y2="${n1(b.y)}" stroke="#6b7675" stroke-width="${n1(p.textMm / 14)}"/>`,
  );
  const names = p.names.map(
    (l) =>
      `<text x="${n1(l.x)}" y="${n1(l.y + p.textMm * 0.35)}" font-size="${n1(p.textMm)}" text-anchor="middle" fill="#1e2a2b">${esc(l.name)}</text>`,
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
    `<path d="${p.belt}" fill="none" stroke="#1e2a2b" stroke-width="2.2"/>${carrier}${gap}${leaders.join('')}${names.join('')}</svg>`
  );
}
