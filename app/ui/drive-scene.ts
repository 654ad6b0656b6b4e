import { must, nth, num } from '@core/quantity/must';
import { type Carrier, plungerTip } from '@core/drive/carrier';
import { placesAlong } from '@core/drive/along';
import { bodyRadius } from '@core/drive/clearance';
import type { Layout, Wheel } from '@core/drive/layout';
import type { Circle, Path, Point } from '@core/drive/path';
import type { CamPhase } from '@core/drive/phase';
import { type StrandKind, strandKinds } from '@core/drive/strands';
import { turnedBy } from '@core/drive/turned';
import { beltPath, boxOf, fixed, flip, SHOE_MM, shoeShape, toothOutline } from './drive-shapes';
import type { Named, Obstacles } from './label-places';

/** What a scene is made from: a solved drive, turned. */
export type SceneState = {
  layout: Layout;
  circles: readonly Circle[];
  path: Path;
  phases?: readonly CamPhase[];
};
type SceneWheel = {
  id: string;
  name: string;
  x: number;
  y: number;
  r: number;
  rim: number;
  /** Outline of the teeth about the centre, unturned; empty on smooth wheels. */
  teeth: string;
  /** Where its timing mark should point, screen degrees. */
  indexDeg?: number;
  shoe?: string;
};
/** What of a wheel turns: degrees to turn it by as drawn, clockwise on the screen, and where its mark points then. */
type Turn = { turnDeg: number; markDeg?: number };
/** What of a scene turns with the crank. */
export type TurnedScene = {
  wheels: readonly Turn[];
  teeth: string;
  painted: { x: number; y: number; deg: number }[];
};
type SceneStrand = { d: string; kind: StrandKind };
type SceneCarrier = { d: string; pivot: Point; plunger?: string; lines: [Point, Point][] };
export type DriveScene = {
  box: { x: number; y: number; width: number; height: number };
  belt: string;
  beltWidth: number;
  strands: SceneStrand[];
  wheels: SceneWheel[];
  carriers: SceneCarrier[];
  /** What a name must not lie on. */
  obstacles: Obstacles;
  /** What is to be named, and where. */
  named: Named[];
};

const n2 = fixed;
const DEG = 180 / Math.PI;
/** Short lines that a shoe's band is taken as. */
const BAND_STEPS = 12;

/** A drive to scale in millimetres, y downwards: all of it that stands still. */
export function driveScene(state: SceneState): DriveScene {
  const { layout, circles, path } = state;
  const kinds = strandKinds(layout);
  const strands = path.spans.map((s, i) => ({
    d: `M${n2(s.a.x)} ${n2(-s.a.y)}L${n2(s.b.x)} ${n2(-s.b.y)}`,
    kind: nth(kinds, i),
  }));
  const wheels = layout.wheels.map((w, i) => wheelScene(layout, w, nth(circles, i)));
  const carriers = layout.wheels.flatMap((w, i) =>
    w.carrier ? [sceneCarrier(w, w.carrier, nth(circles, i))] : [],
  );
  return {
    box: boxOf(layout, circles),
    belt: beltPath({ circles, path }),
    beltWidth: Math.max(1.2, layout.backMm),
    strands,
    wheels,
    carriers,
    obstacles: obstaclesOf(state, carriers),
    named: layout.wheels.map((w, i) => namedWheel(w, nth(circles, i), nth(wheels, i))),
  };
}

/** The rest of it, with the driving wheel turned by so many degrees from its mark. */
export function turnScene(state: SceneState, driverDeg: number): TurnedScene {
  const { layout, circles, path } = state;
  const turned = turnedBy(layout, circles, driverDeg);
  const offset = new Map((state.phases ?? []).map((p) => [p.wheel, p.wheelDeg]));
  const step = path.lengthMm / layout.count;
  const places = placesAlong(circles, path, layout.count, turned.pitches * step);
  const inside = layout.runs === 'ccw' ? 1 : -1;
  const t = layout.toothMm;
  const teeth = places
    .map((p) => {
      const [nx, ny] = [-Math.sin(p.angle) * inside, Math.cos(p.angle) * inside];
      return `M${n2(p.x)} ${n2(-p.y)}L${n2(p.x + nx * t)} ${n2(-(p.y + ny * t))}`;
    })
    .join('');
  const wheels = layout.wheels.map((w, i): Turn => {
    const by = num(turned.wheelDeg, i) + nth(circles, i).turn * (offset.get(i) ?? 0);
    return { turnDeg: -by, ...(w.markDeg === undefined ? {} : { markDeg: -(w.markDeg + by) }) };
  });
  return { wheels, teeth, painted: paintedMarks(state, turned.pitches) };
}

/** One wheel as it is drawn, unturned. */
export function wheelScene(layout: Layout, w: Wheel, c: Circle): SceneWheel {
  const r = w.teeth === undefined ? (w.outsideMm ?? c.r) : c.r - layout.toothMm / 2;
  const shoe = shoeShape(c, r);
  return {
    id: w.id,
    name: w.name,
    x: c.x,
    y: -c.y,
    r,
    rim: w.rimMm > 0 ? bodyRadius(layout, c, layout.wheels.indexOf(w)) : 0,
    teeth: w.teeth === undefined ? '' : toothOutline(w.teeth, c.r, layout.toothMm),
    ...(w.markDeg === undefined ? {} : { indexDeg: -w.markDeg }),
    ...(shoe ? { shoe: shoe.d } : {}),
  };
}

/** A wheel is named at its centre, a shoe at the middle of its band. */
function namedWheel(w: Wheel, c: Circle, scene: SceneWheel): Named {
  const shoe = shoeShape(c, scene.r);
  if (!shoe)
    return { id: w.id, name: w.name, x: c.x, y: -c.y, r: Math.max(scene.r, scene.rim), hollow: false };
  return { id: w.id, name: w.name, ...shoe.label, r: SHOE_MM, hollow: true };
}

/** Strands, bands of shoes and arms as lines; belt on wheels and the wheels themselves as discs. */
function obstaclesOf({ layout, circles, path }: SceneState, carriers: readonly SceneCarrier[]): Obstacles {
  const half = Math.max(layout.backMm, layout.toothMm) + 1;
  const lines = [
    ...path.spans.map((s) => ({ a: flip(s.a), b: flip(s.b), half })),
    ...circles.flatMap((c, i) => bandOf(c, nth(layout.wheels, i).outsideMm ?? c.r)),
    ...carriers.flatMap((k) => k.lines.map(([a, b]) => ({ a, b, half: 3 }))),
  ];
  const discs = circles.flatMap((c, i) =>
    c.arc ? [] : [{ x: c.x, y: -c.y, r: bodyRadius(layout, c, i) + layout.backMm }],
  );
  return { lines, discs };
}

/** The band of a shoe as short lines; none of a wheel. */
function bandOf(c: Circle, r: number): Obstacles['lines'] {
  if (!c.arc) return [];
  const [from, to] = c.arc;
  const on = (k: number) => {
    const t = from + ((to - from) * k) / BAND_STEPS;
    return { x: c.x + r * Math.cos(t), y: -(c.y + r * Math.sin(t)) };
  };
  return Array.from({ length: BAND_STEPS }, (_, k) => ({ a: on(k), b: on(k + 1), half: SHOE_MM }));
}

/** Paint on the belt where the marks stood when it was laid on, run on with the belt. */
function paintedMarks(
  { layout, circles, path, phases }: SceneState,
  pitches: number,
): TurnedScene['painted'] {
  const step = path.lengthMm / layout.count;
  const zero = nth(layout.wheels, 0);
  if (zero.markDeg === undefined) return [];
  const first = nth(circles, 0);
  const into = must(path.spans.at(-1)).angle - (first.turn * Math.PI) / 2;
  const ahead = first.turn * (zero.markDeg / DEG - into);
  const crankMm = (first.lay ?? first.r) * (((ahead % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI));
  const at = [0, ...(phases ?? []).map((p) => (p.route === 'tight' ? -p.seat.between : p.seat.between))];
  return at.map((teeth) => {
    const [p] = placesAlong(circles, path, 1, crankMm + (teeth + pitches) * step);
    return { x: must(p).x, y: -must(p).y, deg: -must(p).angle * DEG };
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
      lines: [
        [flipped, flip(tip)],
        [flip(base), flip(tip)],
      ],
      plunger: `M${n2(base.x)} ${n2(-base.y)}L${n2(tip.x)} ${n2(-tip.y)}`,
    };
  }
  const angle = Math.atan2(c.y - pivot.y, c.x - pivot.x);
  const reach = carrier.kind === 'eccentric' ? (w.outsideMm ?? 20) * 0.85 : carrier.arm;
  const end = { x: pivot.x + reach * Math.cos(angle), y: -(pivot.y + reach * Math.sin(angle)) };
  return {
    d: `M${n2(flipped.x)} ${n2(flipped.y)}L${n2(end.x)} ${n2(end.y)}`,
    pivot: flipped,
    lines: carrier.kind === 'eccentric' ? [] : [[flipped, end]],
  };
}
