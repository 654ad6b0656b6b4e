import { type Layout, nominalLength, pitchRadius, senseOf } from '@core/drive/layout';
import type { Point } from '@core/drive/carrier';
import { fitCircle } from '@core/drive/fit-circle';
import { circlesOf, solvePath } from '@core/drive/path';
import { must, nth, num } from '@core/quantity/must';
import type { Adjusted } from '@core/drive/adjust';
import { project, type PicturePoint, type Projective } from './photo';
import type { DrivePhoto, PhotoDoubt } from './photo-sheet';

/** A wheel in the plane of the scale: its centre, and the radius of its rim where one was picked; mm. */
export type PlacedRim = Point & { r?: number };

type Given = {
  photo: DrivePhoto;
  /** From pixels to the plane, roughly. */
  start: Projective;
  rough: readonly PlacedRim[];
  pickPx: number;
  /** The drive as it is roughly: its circles and sense are taken, its places are not. */
  layout: Layout;
};

/**
 * A ruler says nothing of how the camera leaned. Held by hand and meant to be square it leans so much: the picture is drawn out one way by
 * this share, and one edge of it lies nearer by that.
 */
const LEANS = { drawnOut: 0.01, nearer: 0.05 };
/** Steps of the unknowns by which derivatives are taken: mm, and shares. */
const STEP = { mm: 1e-3, share: 1e-6 };

/** One observation: by how much it is off, its standard uncertainty, and what it was. */
type SeenOf = { is: 'spot'; wheel: number } | { is: 'distance'; at: number } | { is: 'other' };
type Seen = { off: number; u: number; of: SeenOf };
const OTHER: SeenOf = { is: 'other' };

/** The unknowns of a photographed drive, and everything that was observed of them. */
export function planeNet({ photo, start, rough, pickPx, layout }: Given) {
  const { toMap, lens, lensSteps, leaning } = lensOf(photo, start);
  const sides = photo.scale === 'rectangle' ? photo.sides : [];
  const atSides = lens.length;
  const atWheels: number[] = [];
  const unknowns = [...lens, ...sides];
  const steps = [...lensSteps, ...sides.map(() => STEP.mm)];
  for (const { x, y, r } of rough) {
    atWheels.push(unknowns.length);
    unknowns.push(x, y, ...(r === undefined ? [] : [r]));
    steps.push(STEP.mm, STEP.mm, ...(r === undefined ? [] : [STEP.mm]));
  }
  const mmPerPx = (s: PicturePoint): number => {
    const [p, q, r] = [s, { x: s.x + 1, y: s.y }, { x: s.x, y: s.y + 1 }].map((x) => project(start, x));
    // At the horizon a pixel is as long as one likes: what was pressed there holds nothing.
    if (!p || !q || !r) return Infinity;
    return Math.sqrt(Math.abs((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x)));
  };
  const uOf = (s: PicturePoint) => pickPx * mmPerPx(s);
  const marks = photo.marks.map((s) => ({ s, u: uOf(s) }));
  const spots = photo.wheels.map((w) => w.spots.map((s) => ({ s, u: uOf(s) })));
  const indexOf = new Map(photo.wheels.map((w, i) => [w.id, i]));
  const distances = photo.distances.flatMap((d, at) => {
    const [a, b] = [indexOf.get(d.a), indexOf.get(d.b)];
    return a === undefined || b === undefined || a === b ? [] : [{ a, b, mm: d.mm, u: d.u, at }];
  });
  const circles = circlesOf(layout);
  const read = (x: readonly number[]): { map: Projective; rims: PlacedRim[] } => ({
    map: toMap(x),
    rims: rough.map(({ r }, i) => {
      const k = num(atWheels, i);
      return { x: num(x, k), y: num(x, k + 1), ...(r === undefined ? {} : { r: num(x, k + 2) }) };
    }),
  });
  /** The plane lies as the layout does but for y, which runs downwards there unless its marks went round the other way. */
  const face = faceOf(rough, layout);
  const length = (x: readonly number[]): number | undefined => {
    const { rims } = read(x);
    const path = solvePath(
      circles.map(({ r, turn, lay }, i) => {
        const at = nth(rims, i);
        const grown = nth(photo.wheels, i).teeth === undefined ? (at.r ?? 0) - (nth(rough, i).r ?? 0) : 0;
        return { x: at.x, y: at.y * face, turn, r: r + grown, lay: (lay ?? r) + grown };
      }),
      senseOf(layout),
    );
    return path.ok ? path.value.lengthMm : undefined;
  };

  const observe = (x: readonly number[], beltU?: number): Seen[] | undefined => {
    const out: Seen[] = [];
    const put = (off: number, u: number, of: SeenOf = OTHER) => {
      out.push({ off, u, of });
    };
    const { map, rims } = read(x);
    const there = (s: PicturePoint) => project(map, s);
    if (photo.scale === 'rectangle') {
      const [w, h] = [num(x, atSides), num(x, atSides + 1)];
      const corners = [0, w, w, 0].map((cx, i) => ({ x: cx, y: i < 2 ? 0 : h }));
      for (const [i, { s, u }] of marks.entries()) {
        const p = there(s);
        if (!p) return undefined;
        put(p.x - nth(corners, i).x, u);
        put(p.y - nth(corners, i).y, u);
      }
      sides.forEach((side, i) => {
        put(num(x, atSides + i) - side, photo.sideU);
      });
    } else {
      const [p, q] = marks.map(({ s }) => there(s));
      if (!p || !q) return undefined;
      const u = Math.hypot(photo.sideU, nth(marks, 0).u, nth(marks, 1).u);
      put(Math.hypot(q.x - p.x, q.y - p.y) - num(photo.sides, 0), u);
      leaning.forEach(({ at, u: lean }) => {
        put(num(x, at), lean);
      });
    }
    for (const [wheel, list] of spots.entries()) {
      const c = nth(rims, wheel);
      for (const { s, u } of list) {
        const p = there(s);
        if (!p) return undefined;
        if (c.r === undefined) {
          put(p.x - c.x, u);
          put(p.y - c.y, u);
        } else put(Math.hypot(p.x - c.x, p.y - c.y) - c.r, u, { is: 'spot', wheel });
      }
      const { teeth, side } = nth(photo.wheels, wheel);
      if (c.r !== undefined && teeth !== undefined) {
        // What one sees of a toothed rim lies between the tips of the belt's teeth and its back.
        const middle = pitchRadius(layout, { teeth, side }) + (layout.backMm - layout.toothMm) / 2;
        put(c.r - middle, (layout.backMm + layout.toothMm) / Math.sqrt(12) + 0.1);
      }
    }
    for (const d of distances) {
      const [a, b] = [nth(rims, d.a), nth(rims, d.b)];
      put(Math.hypot(b.x - a.x, b.y - a.y) - d.mm, d.u, { is: 'distance', at: d.at });
    }
    if (beltU !== undefined) {
      const mm = length(x);
      if (mm === undefined) return undefined;
      put(mm - nominalLength(layout), beltU);
    }
    return out;
  };

  return {
    start: unknowns,
    steps,
    residuals: (x: readonly number[], beltU?: number) => observe(x, beltU)?.map((s) => s.off / s.u),
    read,
    length,
    /** Standard uncertainty of a wheel's distance from the driving wheel, mm. */
    fromDriver: ({ x, covariance }: Adjusted, i: number): number => {
      const [k, o] = [num(atWheels, i), num(atWheels, 0)];
      const [dx, dy] = [num(x, k) - num(x, o), num(x, k + 1) - num(x, o + 1)];
      const d = Math.hypot(dx, dy);
      if (d === 0) return 0;
      const g = [
        [k, dx / d],
        [k + 1, dy / d],
        [o, -dx / d],
        [o + 1, -dy / d],
      ] as const;
      let v = 0;
      for (const [a, ga] of g) for (const [b, gb] of g) v += ga * gb * covariance.get(a, b);
      return Math.sqrt(Math.max(0, v));
    },
    rimU: ({ covariance }: Adjusted, i: number): number => {
      const k = num(atWheels, i) + 2;
      return Math.sqrt(covariance.get(k, k));
    },
    rms: (x: readonly number[], i: number): number => {
      const { map, rims } = read(x);
      const c = nth(rims, i);
      const off = nth(spots, i).map(({ s }) => {
        const p = must(project(map, s));
        return (Math.hypot(p.x - c.x, p.y - c.y) - (c.r ?? 0)) ** 2;
      });
      return Math.sqrt(off.reduce((sum, v) => sum + v, 0) / off.length);
    },
    /** What is off by more than so many standard uncertainties, the worst first; of a rim once. */
    doubts: ({ x }: Adjusted, most: number): PhotoDoubt[] => {
      const off = (observe(x) ?? [])
        .filter((s) => Math.abs(s.off) > most * s.u)
        .sort((a, b) => Math.abs(b.off / b.u) - Math.abs(a.off / a.u));
      const rims = new Set<number>();
      return off.flatMap((s): PhotoDoubt[] => {
        if (s.of.is === 'distance') return [{ is: 'distance', at: s.of.at, mm: s.off }];
        if (s.of.is === 'other' || rims.has(s.of.wheel)) return [];
        rims.add(s.of.wheel);
        // In the plane of the scale alone: a wrong spot bends what all of them are adjusted to.
        const spot = oddOne(nth(spots, s.of.wheel).map((p) => must(project(start, p.s))));
        return [{ is: 'spot', wheel: s.of.wheel, mm: s.off, ...(spot === undefined ? {} : { spot }) }];
      });
    },
  };
}

/** The unknowns of the camera: where the picture's points lie in the plane, in coordinates of about one, and what is thought of them before. */
function lensOf(photo: DrivePhoto, start: Projective) {
  const all = [...photo.marks, ...photo.wheels.flatMap((w) => w.spots)];
  const middle = (list: readonly number[]) => (Math.min(...list) + Math.max(...list)) / 2;
  const [xs, ys] = [all.map((s) => s.x), all.map((s) => s.y)];
  const [mx, my] = [middle(xs), middle(ys)];
  const half = Math.max(Math.max(...xs) - mx, Math.max(...ys) - my, 1);
  /** A map of small coordinates, as one of pixels. */
  const ofPixels = (m: readonly number[]): Projective =>
    [0, 1, 2].flatMap((row) => {
      const [a, b, c] = [num(m, 3 * row) / half, num(m, 3 * row + 1) / half, num(m, 3 * row + 2)];
      return [a, b, c - a * mx - b * my];
    });
  const small = [0, 1, 2].flatMap((row) => {
    const [a, b, c] = [num(start, 3 * row), num(start, 3 * row + 1), num(start, 3 * row + 2)];
    return [a * half, b * half, a * mx + b * my + c];
  });
  const w = num(small, 8);
  if (photo.scale === 'rectangle')
    return {
      lens: small.slice(0, 8).map((v) => v / w),
      lensSteps: [...Array<number>(6).fill(STEP.mm), STEP.share, STEP.share],
      leaning: [],
      toMap: (x: readonly number[]): Projective => ofPixels([...x.slice(0, 8), 1]),
    };
  // Scale, two ways in which it is drawn out, and two in which an edge lies nearer: place and turn mean nothing here.
  const scale = num(small, 0) / w;
  return {
    lens: [scale, 0, 0, 0, 0],
    lensSteps: [STEP.mm, STEP.share, STEP.share, STEP.share, STEP.share],
    leaning: [
      { at: 1, u: LEANS.drawnOut },
      { at: 2, u: LEANS.drawnOut },
      { at: 3, u: LEANS.nearer },
      { at: 4, u: LEANS.nearer },
    ],
    toMap: (x: readonly number[]): Projective => {
      const [k, a, b, g, h] = [0, 1, 2, 3, 4].map((i) => num(x, i)) as [
        number,
        number,
        number,
        number,
        number,
      ];
      // The first point stays where it was, so that places from before still hold roughly.
      const [ox, oy] = [num(small, 2) / w, num(small, 5) / w];
      return ofPixels([
        k * (1 + a) + g * ox,
        k * b + h * ox,
        ox,
        k * b + g * oy,
        k * (1 - a) + h * oy,
        oy,
        g,
        h,
        1,
      ]);
    },
  };
}

/** The point without which the rest lie best on one circle; none where without any of them they would. */
function oddOne(points: readonly Point[]): number | undefined {
  if (points.length < 5) return undefined;
  const without = points.map((_, k) => {
    const c = fitCircle(points.filter((_p, i) => i !== k));
    return c.ok ? c.value.rmsMm : Infinity;
  });
  return without.indexOf(Math.min(...without));
}

/** −1 when the plane of the scale lies mirrored to the layout, as every picture with y downwards does. */
function faceOf(rims: readonly Point[], layout: Layout): 1 | -1 {
  let best = { size: -1, face: -1 as 1 | -1 };
  rims.forEach((a, i) => {
    rims.forEach((b, k) => {
      const [o, c] = [nth(rims, 0), nth(layout.wheels, 0)];
      const [p, q] = [nth(layout.wheels, i), nth(layout.wheels, k)];
      const there = (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);
      const here = (p.x - c.x) * (q.y - c.y) - (p.y - c.y) * (q.x - c.x);
      if (Math.abs(there) > best.size) best = { size: Math.abs(there), face: there * here > 0 ? 1 : -1 };
    });
  });
  return best.face;
}
