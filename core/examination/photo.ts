import { nth, num } from '@core/quantity/must';
import { Matrix, solve } from 'ml-matrix';
import { err, ok, type Result } from '@core/quantity/result';
import type { Measured } from '@core/facts/read';

/** A point of a picture, pixels from its upper left corner, or of a plane, mm. */
export type PicturePoint = { x: number; y: number };

/**
 * What gives a picture its scale, in the plane of what is measured: two marks of a ruler so far apart, or the four corners of a rectangle in
 * order, the first side being its width. Lengths mm; `u` their standard uncertainty.
 */
export type PhotoScale =
  | { kind: 'ruler'; points: readonly [PicturePoint, PicturePoint]; mm: number; u: number }
  | {
      kind: 'rectangle';
      corners: readonly [PicturePoint, PicturePoint, PicturePoint, PicturePoint];
      width: number;
      height: number;
      u: number;
    };

/** A length between two spots, an angle at the second of three, an area within three or more. */
export type PhotoMeasure = { what: 'length' | 'angle' | 'area'; spots: readonly PicturePoint[] };

export type PhotoError =
  | { code: 'too_few_spots'; wanted: number }
  | { code: 'no_scale' }
  /** Three corners lie in a line, or the corners do not go around. */
  | { code: 'flat_rectangle' }
  | { code: 'behind' };

const WANTED = { length: 2, angle: 3, area: 3 } as const;

/** Projective map of the plane: a 3 by 3 matrix by rows, positive weights being in front of the camera. */
export type Projective = readonly number[];

/**
 * The map that takes four corners of a picture to those of a rectangle (direct linear transformation; Hartley & Zisserman 2004, 4.1):
 * eight equations in eight unknowns.
 */
export function rectify(
  corners: readonly PicturePoint[],
  width: number,
  height: number,
): Projective | undefined {
  const to = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ] as const;
  const rows = corners.flatMap(({ x, y }, i) => {
    const [u, v] = nth(to, i);
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y],
      [0, 0, 0, x, y, 1, -v * x, -v * y],
    ];
  });
  const right = to.flatMap(([u, v]) => [u, v]);
  const h = solve(new Matrix(rows), Matrix.columnVector(right), true).to1DArray();
  if (!h.every((v) => Number.isFinite(v))) return undefined;
  // The first pixel may lie beyond the horizon; the rectangle never does.
  const { x, y } = nth(corners, 0);
  const front = Math.sign(num(h, 6) * x + num(h, 7) * y + 1);
  return [...h, 1].map((v) => v * front);
}

/** Where a point of the picture lies in the plane, mm; none beyond the horizon. */
export function project(h: Projective, { x, y }: PicturePoint): PicturePoint | undefined {
  const w = num(h, 6) * x + num(h, 7) * y + num(h, 8);
  if (!(w > 1e-9)) return undefined;
  return {
    x: (num(h, 0) * x + num(h, 1) * y + num(h, 2)) / w,
    y: (num(h, 3) * x + num(h, 4) * y + num(h, 5)) / w,
  };
}

/** True when four corners go around without a bend inward: the picture of a rectangle seen from in front. */
export function goesAround(corners: readonly PicturePoint[]): boolean {
  const turns = corners.map((a, i) => {
    const [b, c] = [nth(corners, (i + 1) % 4), nth(corners, (i + 2) % 4)];
    return (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);
  });
  const size = Math.max(...turns.map(Math.abs));
  return turns.every((t) => t > size * 1e-3) || turns.every((t) => t < -size * 1e-3);
}

type Plane = (s: PicturePoint) => PicturePoint | undefined;
function planeOf(
  scale: PhotoScale,
  points: readonly PicturePoint[],
  lengths: readonly number[],
): Plane | undefined {
  if (scale.kind === 'ruler') {
    const [a, b] = points as [PicturePoint, PicturePoint];
    const px = Math.hypot(b.x - a.x, b.y - a.y);
    const k = num(lengths, 0) / px;
    return px > 0 ? (s) => ({ x: s.x * k, y: s.y * k }) : undefined;
  }
  const h = rectify(points, num(lengths, 0), num(lengths, 1));
  return h && ((s) => project(h, s));
}

function valueIn(what: PhotoMeasure['what'], s: readonly PicturePoint[]): number {
  if (what === 'length') return Math.hypot(nth(s, 1).x - nth(s, 0).x, nth(s, 1).y - nth(s, 0).y);
  if (what === 'angle') {
    const [a, o, b] = s as [PicturePoint, PicturePoint, PicturePoint];
    const turn = Math.atan2(b.y - o.y, b.x - o.x) - Math.atan2(a.y - o.y, a.x - o.x);
    return Math.abs((((turn * 180) / Math.PI + 540) % 360) - 180);
  }
  return Math.abs(s.reduce((sum, p, i) => sum + cross(p, nth(s, (i + 1) % s.length)), 0)) / 2;
}
const cross = (a: PicturePoint, b: PicturePoint): number => a.x * b.y - b.x * a.y;

/** Step of the differences by which uncertainty is carried, pixels and share of a length. */
const STEP = 0.01;

/**
 * Measures on a picture: mm, degrees or mm², with the standard uncertainty from picking every spot (the scale's too) and from the scale's own
 * lengths, carried by central differences (JCGM 100, 5.1.3). What does not lie in the plane of the scale is measured wrongly: nothing here
 * can know that.
 * @param pickPx standard uncertainty of one picked spot in x and in y, pixels
 */
export function measureOnPhoto(
  scale: PhotoScale,
  measure: PhotoMeasure,
  pickPx: number,
): Result<Measured, PhotoError> {
  const { what, spots } = measure;
  if (spots.length < WANTED[what]) return err({ code: 'too_few_spots', wanted: WANTED[what] });
  const marks = scale.kind === 'ruler' ? scale.points : scale.corners;
  const lengths = scale.kind === 'ruler' ? [scale.mm] : [scale.width, scale.height];
  if (lengths.some((l) => !(l > 0))) return err({ code: 'no_scale' });
  if (scale.kind === 'ruler' && !(Math.hypot(marks[1].x - marks[0].x, marks[1].y - marks[0].y) > 0))
    return err({ code: 'no_scale' });
  if (scale.kind === 'rectangle' && !goesAround(marks)) return err({ code: 'flat_rectangle' });
  const all = [...marks, ...spots].flatMap(({ x, y }) => [x, y]);
  const of = (coordinates: readonly number[], sides: readonly number[]): number | undefined => {
    const points = Array.from({ length: coordinates.length / 2 }, (_, i) => ({
      x: num(coordinates, 2 * i),
      y: num(coordinates, 2 * i + 1),
    }));
    const plane = planeOf(scale, points.slice(0, marks.length), sides);
    const flat = plane && points.slice(marks.length).map(plane);
    if (!flat || flat.some((p) => p === undefined)) return undefined;
    return valueIn(what, flat as PicturePoint[]);
  };
  const value = of(all, lengths);
  if (value === undefined) return err({ code: 'behind' });
  let variance = 0;
  const add = (up: number | undefined, down: number | undefined, step: number, u: number) => {
    if (up !== undefined && down !== undefined) variance += (((up - down) / (2 * step)) * u) ** 2;
  };
  all.forEach((v, i) => {
    add(of(all.with(i, v + STEP), lengths), of(all.with(i, v - STEP), lengths), STEP, pickPx);
  });
  lengths.forEach((l, i) => {
    const step = l * STEP;
    add(of(all, lengths.with(i, l + step)), of(all, lengths.with(i, l - step)), step, scale.u);
  });
  return ok({ value, u: Math.sqrt(variance) });
}
