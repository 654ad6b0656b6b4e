import { must, nth } from '@core/quantity/must';
import { type Layout, nominalLength, pitchRadius, senseOf, type Wheel } from '@core/drive/layout';
import { markPhases } from '@core/drive/phase';
import { circlesOf, solvePath } from '@core/drive/path';

const round = (v: number, digits = 4) => Math.round(v * 10 ** digits) / 10 ** digits;

/** Path length of a layout as drawn; throws where it cannot exist, since a demo drive must. */
function drawnLength(layout: Layout): number {
  const path = solvePath(circlesOf(layout), senseOf(layout));
  if (!path.ok)
    throw new Error(
      `${layout.id}: ${path.error.code} ${path.error.wheels.map((i) => layout.wheels[i]?.name).join(', ')} ${JSON.stringify(path.error)}`,
    );
  return path.value.lengthMm;
}

/** Varies one length of a sketch until the drawn path is as long as its belt or chain. */
export function closeLoop(make: (x: number) => Layout, low: number, high: number): Layout {
  const excess = (x: number) => {
    const layout = make(x);
    return drawnLength(layout) - nominalLength(layout);
  };
  let [a, b] = [low, high];
  const ea = excess(a);
  if (ea * excess(b) > 0)
    throw new Error(
      `${make(a).id}: ${ea.toFixed(1)} to ${excess(b).toFixed(1)} mm off between ${low} and ${high}`,
    );
  for (let i = 0; i < 80; i++) {
    const m = (a + b) / 2;
    if (ea * excess(m) <= 0) b = m;
    else a = m;
  }
  return rounded(make(a));
}

/** Coordinates to a tenth of a micrometre: readable data that still closes. Small ratios are left as they are. */
function rounded<T>(value: T): T {
  if (typeof value === 'number') return (Math.abs(value) < 0.01 ? value : round(value, 4)) as T;
  if (Array.isArray(value)) return value.map(rounded) as T;
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, rounded(v)])) as T;
}

/**
 * Gives driven wheels marks near the direction wanted, moved so that a new belt shows the offset wanted: a maker puts the
 * marks where they come out whole, or nearly.
 */
export function withMarks(
  layout: Layout,
  wanted: Record<string, { deg: number; offTeeth?: number }>,
): Layout {
  const marked = {
    ...layout,
    wheels: layout.wheels.map((w) => (wanted[w.id] ? { ...w, markDeg: must(wanted[w.id]).deg } : w)),
  };
  const circles = circlesOf(marked);
  const path = solvePath(circles, senseOf(marked));
  if (!path.ok) throw new Error(`${layout.id}: ${path.error.code}`);
  const phases = markPhases(marked, { circles, path: path.value });
  const wheels = marked.wheels.map((w, i) => {
    const p = phases.find((x) => x.wheel === i);
    if (!p) return w;
    const surplus = p.teeth - (wanted[w.id]?.offTeeth ?? 0);
    // A mark further on in running sense stands less advanced.
    return { ...w, markDeg: round(must(w.markDeg) + nth(circles, i).turn * surplus * (360 / must(w.teeth))) };
  });
  return { ...marked, wheels };
}

/** Turns a layout about the origin and moves it: banks of a V are drawn upright and then laid over. */
export function placed(layout: Layout, by: { deg: number; x: number; y: number }): Layout {
  const a = (by.deg * Math.PI) / 180;
  const move = (p: { x: number; y: number }) => ({
    x: by.x + p.x * Math.cos(a) - p.y * Math.sin(a),
    y: by.y + p.x * Math.sin(a) + p.y * Math.cos(a),
  });
  const turn = (w: Wheel): Wheel => {
    const out: Wheel = { ...w, ...move(w) };
    if (w.arc) out.arc = { fromDeg: w.arc.fromDeg + by.deg, toDeg: w.arc.toDeg + by.deg };
    if (w.markDeg !== undefined) out.markDeg = w.markDeg + by.deg;
    if (w.carrier) {
      out.carrier = { ...w.carrier, pivot: move(w.carrier.pivot), startDeg: w.carrier.startDeg + by.deg };
      if (out.carrier.kind === 'arm' && out.carrier.plunger) {
        const p = out.carrier.plunger;
        out.carrier.plunger = { ...p, base: move(p.base), axisDeg: p.axisDeg + by.deg };
      }
    }
    return out;
  };
  const banks = layout.banks?.map((b) => ({ ...b, dirDeg: b.dirDeg + by.deg }));
  return rounded({ ...layout, wheels: layout.wheels.map(turn), ...(banks ? { banks } : {}) });
}

type Circle = { x: number; y: number; r: number };

/** The straight strand on the left (side −1) or right (+1) of the way from a to b: its ends, direction and outward normal. */
function outerStrand(a: Circle, b: Circle, hand: 1 | -1) {
  const d = Math.hypot(b.x - a.x, b.y - a.y);
  const way = Math.atan2(b.y - a.y, b.x - a.x);
  // Outer tangent: the normal leans by asin((rb − ra)/d) away from square.
  const n = way - hand * (Math.PI / 2) - hand * Math.asin((b.r - a.r) / d);
  const [nx, ny] = [Math.cos(n), Math.sin(n)];
  const from = { x: a.x + a.r * nx, y: a.y + a.r * ny };
  const to = { x: b.x + b.r * nx, y: b.y + b.r * ny };
  return { from, to, nx, ny };
}

export type ShoeSketch = {
  layout: Pick<Layout, 'kind' | 'pitchMm' | 'backMm' | 'toothMm'>;
  a: Pick<Wheel, 'x' | 'y' | 'teeth' | 'outsideMm' | 'side'>;
  b: Pick<Wheel, 'x' | 'y' | 'teeth' | 'outsideMm' | 'side'>;
  /** On which side of the way from a to b the strand runs. */
  hand: 1 | -1;
  radiusMm: number;
  /** How far the shoe presses the strand out of its straight line. */
  pressMm: number;
};

/** A shoe that lies outside a strand and presses it inwards at its middle. */
export function shoeOutside(s: ShoeSketch) {
  const ca = { x: s.a.x, y: s.a.y, r: pitchRadius(s.layout, s.a) };
  const cb = { x: s.b.x, y: s.b.y, r: pitchRadius(s.layout, s.b) };
  const { from, to, nx, ny } = outerStrand(ca, cb, s.hand);
  const point = (f: number, out: number) => ({
    x: from.x + (to.x - from.x) * f + nx * out,
    y: from.y + (to.y - from.y) * f + ny * out,
  });
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  const pitch = s.radiusMm + s.layout.backMm;
  const centre = point(0.5, pitch - s.pressMm);
  // The surface faces the strand: opposite to the outward normal.
  const face = (Math.atan2(-ny, -nx) * 180) / Math.PI;
  const half = ((0.34 * length) / pitch) * (180 / Math.PI);
  return {
    shape: {
      ...centre,
      outsideMm: s.radiusMm,
      side: -1 as const,
      rimMm: 0,
      arc: { fromDeg: face - half, toDeg: face + half },
    },
    point,
    inwardDeg: face,
  };
}

export type PlungerSketch = {
  newMm: number;
  from: number;
  to: number;
  min: number;
  max: number;
  ratcheted: boolean;
  back?: 'pressed' | 'ratchet' | 'screwed' | 'never';
  /** It meets the arm's flat back instead of a foot fixed to it. */
  pad?: true;
};

/** An arm with such a shoe, hinged near a (fraction `hinge` along the strand), pushed near its other end by a plunger. */
export function shoeArm(s: ShoeSketch, plunger: PlungerSketch, hinge = 0.06, foot = 0.62) {
  const { shape, point, inwardDeg } = shoeOutside(s);
  const deg = (p: { x: number; y: number }, o: { x: number; y: number }) =>
    (Math.atan2(p.y - o.y, p.x - o.x) * 180) / Math.PI;
  const pivot = point(hinge, 14);
  const at = deg(shape, pivot);
  const footPoint = point(foot, 16);
  const radius = Math.hypot(footPoint.x - pivot.x, footPoint.y - pivot.y);
  const [ix, iy] = [Math.cos((inwardDeg * Math.PI) / 180), Math.sin((inwardDeg * Math.PI) / 180)];
  // Turning anticlockwise moves the foot along (−dy, dx).
  const ccwInward = -(footPoint.y - pivot.y) * ix + (footPoint.x - pivot.x) * iy > 0;
  const sign = ccwInward ? 1 : -1;
  const perDeg = (radius * Math.PI) / 180;
  return {
    ...shape,
    carrier: {
      kind: 'arm' as const,
      pivot,
      arm: Math.hypot(shape.x - pivot.x, shape.y - pivot.y),
      startDeg: at - (sign * (plunger.newMm - plunger.min + 1)) / perDeg,
      turn: ccwInward ? ('ccw' as const) : ('cw' as const),
      sweepDeg: (plunger.max - plunger.min + 6) / perDeg,
      window: {
        from: 0,
        nominal: (plunger.newMm - plunger.min + 1) / perDeg,
        to: (plunger.max - plunger.min) / perDeg,
      },
      plunger: {
        base: { x: footPoint.x - ix * plunger.newMm, y: footPoint.y - iy * plunger.newMm },
        axisDeg: inwardDeg,
        foot: plunger.pad
          ? {
              // The pad's plane through the foot point, square to the plunger as drawn.
              padMm: -((footPoint.x - pivot.x) * ix + (footPoint.y - pivot.y) * iy),
              offsetDeg: inwardDeg - at,
            }
          : { radius, offsetDeg: deg(footPoint, pivot) - at },
        window: { from: plunger.from, nominal: plunger.newMm, to: plunger.to },
        minMm: plunger.min,
        maxMm: plunger.max,
        ratcheted: plunger.ratcheted,
        ...(plunger.back ? { back: plunger.back } : {}),
      },
    },
  };
}
