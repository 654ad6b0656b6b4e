import { type Carrier, plungerTip } from '@core/drive/carrier';
import { placesAlong } from '@core/drive/along';
import { bodyRadius } from '@core/drive/clearance';
import type { Layout, Wheel } from '@core/drive/layout';
import type { Circle, Path, Point } from '@core/drive/path';
import type { Phase } from '@core/drive/phase';
import { type StrandKind, strandKinds } from '@core/drive/strands';
import { turnedBy } from '@core/drive/turned';
import { beltPath, boxOf, fixed, shoeShape } from './drive-shapes';

/** What a scene is made from: a solved drive, turned. */
export type SceneState = {
  layout: Layout;
  circles: readonly Circle[];
  path: Path;
  phases?: readonly Phase[];
};
export type SceneWheel = {
  id: string;
  name: string;
  x: number;
  y: number;
  r: number;
  rim: number;
  /** Outline of the teeth about the centre, unturned; empty on smooth wheels. */
  teeth: string;
  /** Degrees to turn it by as drawn, clockwise on the screen. */
  turnDeg: number;
  /** Timing mark on the wheel, and where it should point, screen degrees. */
  markDeg?: number;
  indexDeg?: number;
  shoe?: string;
  /** Where a shoe's name stands: behind the middle of its surface. */
  label?: Point;
};
export type SceneStrand = { d: string; kind: StrandKind };
export type SceneCarrier = { d: string; pivot: Point; plunger?: string };
export type Scene = {
  box: { x: number; y: number; width: number; height: number };
  belt: string;
  beltWidth: number;
  strands: SceneStrand[];
  teeth: string;
  painted: { x: number; y: number; deg: number }[];
  wheels: SceneWheel[];
  carriers: SceneCarrier[];
};

const n2 = fixed;
const DEG = 180 / Math.PI;

/** A drive to scale in millimetres, y downwards, with the driving wheel turned by so many degrees from its mark. */
export function driveScene(state: SceneState, driverDeg: number): Scene {
  const { layout, circles, path } = state;
  const turned = turnedBy(layout, circles, driverDeg);
  const offset = new Map((state.phases ?? []).map((p) => [p.wheel, p.wheelDeg]));
  const wheels = layout.wheels.map((w, i) =>
    sceneWheel(layout, w, circles[i]!, turned.wheelDeg[i]!, offset.get(i)),
  );
  const kinds = strandKinds(layout);
  const strands = path.spans.map((s, i) => ({
    d: `M${n2(s.a.x)} ${n2(-s.a.y)}L${n2(s.b.x)} ${n2(-s.b.y)}`,
    kind: kinds[i]!,
  }));
  const step = path.lengthMm / layout.count;
  const places = placesAlong(circles, path, layout.count, turned.pitches * step);
  const inside = layout.runs === 'ccw' ? 1 : -1;
  const teeth = places
    .map((p) => {
      const [nx, ny] = [-Math.sin(p.angle) * inside, Math.cos(p.angle) * inside];
      const t = layout.toothMm;
      return `M${n2(p.x)} ${n2(-p.y)}L${n2(p.x + nx * t)} ${n2(-(p.y + ny * t))}`;
    })
    .join('');
  return {
    box: boxOf(layout, circles),
    belt: beltPath({ circles, path }),
    beltWidth: Math.max(1.2, layout.backMm),
    strands,
    teeth,
    painted: paintedMarks(state, turned.pitches),
    wheels,
    carriers: layout.wheels.flatMap((w, i) => (w.carrier ? [sceneCarrier(w, w.carrier, circles[i]!)] : [])),
  };
}

function sceneWheel(
  layout: Layout,
  w: Wheel,
  c: Circle,
  turnedDeg: number,
  offsetDeg: number | undefined,
): SceneWheel {
  const r = w.teeth === undefined ? (w.outsideMm ?? c.r) : c.r - layout.toothMm / 2;
  const out: SceneWheel = {
    id: w.id,
    name: w.name,
    x: c.x,
    y: -c.y,
    r,
    rim: w.rimMm > 0 ? bodyRadius(layout, c, layout.wheels.indexOf(w)) : 0,
    teeth: w.teeth === undefined ? '' : toothOutline(w.teeth, c.r, layout.toothMm),
    turnDeg: -(turnedDeg + c.turn * (offsetDeg ?? 0)),
  };
  if (w.markDeg !== undefined) {
    out.markDeg = -(w.markDeg + turnedDeg + c.turn * (offsetDeg ?? 0));
    out.indexDeg = -w.markDeg;
  }
  const shoe = shoeShape(c, r);
  if (shoe) {
    out.shoe = shoe.d;
    out.label = shoe.label;
  }
  return out;
}

/** Spaces as deep as the belt's teeth, seen from the wheel: a plain trapezium a tooth, for scale, not for making. */
function toothOutline(z: number, r: number, depth: number): string {
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
      parts.push(`${parts.length === 0 ? 'M' : 'L'}${n2(rad * Math.cos(a))} ${n2(-rad * Math.sin(a))}`);
  }
  return `${parts.join('')}Z`;
}

/** Paint on the belt where the marks stood when it was laid on, run on with the belt. */
function paintedMarks({ layout, circles, path, phases }: SceneState, pitches: number): Scene['painted'] {
  const step = path.lengthMm / layout.count;
  const zero = layout.wheels[0]!;
  if (zero.markDeg === undefined) return [];
  const first = circles[0]!;
  const into = path.spans.at(-1)!.angle - (first.turn * Math.PI) / 2;
  const ahead = first.turn * (zero.markDeg / DEG - into);
  const crankMm = (first.lay ?? first.r) * (((ahead % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI));
  const at = [0, ...(phases ?? []).map((p) => (p.route === 'tight' ? -p.seat.between : p.seat.between))];
  return at.map((teeth) => {
    const [p] = placesAlong(circles, path, 1, crankMm + (teeth + pitches) * step);
    return { x: p!.x, y: -p!.y, deg: -p!.angle * DEG };
  });
}

function sceneCarrier(w: Wheel, carrier: Carrier, c: Circle): SceneCarrier {
  const { pivot } = carrier;
  const flipped = { x: pivot.x, y: -pivot.y };
  if (carrier.kind === 'arm' && carrier.plunger) {
    const { base } = carrier.plunger;
    const at = Math.atan2(c.y - pivot.y, c.x - pivot.x) * DEG;
    const tip = plungerTip(carrier, carrier.plunger, at);
    return {
      d: `M${n2(pivot.x)} ${n2(-pivot.y)}L${n2(tip.x)} ${n2(-tip.y)}`,
      pivot: flipped,
      plunger: `M${n2(base.x)} ${n2(-base.y)}L${n2(tip.x)} ${n2(-tip.y)}`,
    };
  }
  const angle = Math.atan2(c.y - pivot.y, c.x - pivot.x);
  const reach = carrier.kind === 'eccentric' ? (w.outsideMm ?? 20) * 0.85 : carrier.arm;
  return {
    d: `M${n2(pivot.x)} ${n2(-pivot.y)}L${n2(pivot.x + reach * Math.cos(angle))} ${n2(-(pivot.y + reach * Math.sin(angle)))}`,
    pivot: flipped,
  };
}
