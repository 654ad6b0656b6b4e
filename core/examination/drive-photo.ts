import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { Point } from '@core/drive/carrier';
import { arcThrough, type CircleError, fitCircle, type FittedCircle } from '@core/drive/fit-circle';
import { type Layout, LayoutSchema, senseOf, type Wheel } from '@core/drive/layout';
import { type EccentricFault, onEccentric } from '@core/drive/on-eccentric';
import { circlesOf, type PathError, solvePath } from '@core/drive/path';
import { must, nth, num } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import { inverse } from './flatten';
import { goesAround, type PicturePoint, project, type Projective, rectify } from './photo';

const Spot = z.strictObject({ x: z.number(), y: z.number() });
const wheelShape = LayoutSchema.shape.wheels.element.shape;

/** A wheel as it is picked on a photograph of the drive, in the order in which the belt meets it. */
const PickedWheelSchema = z.strictObject({
  id: z.string().min(1).max(40),
  name: z.string().max(60),
  role: wheelShape.role,
  side: wheelShape.side,
  /** Toothed wheels: counted. A smooth one has its radius from its rim. */
  teeth: z.number().int().positive().max(1000).optional(),
  /** One spot is the centre of a toothed wheel; three or more lie on the rim. */
  spots: z.array(Spot).max(60),
  /** It has a surface only where the spots lie. */
  shoe: z.boolean().optional(),
  /** It sits on an eccentric and was photographed at its nominal mark. */
  eccentric: z
    .strictObject({
      pivot: Spot.optional(),
      turn: z.enum(['cw', 'ccw']),
      from: z.number(),
      nominal: z.number(),
      to: z.number(),
      end: z.number(),
      manual: z.boolean().optional(),
    })
    .optional(),
});
export type PickedWheel = z.infer<typeof PickedWheelSchema>;

/** A drive as it is drawn up from a photograph: what was counted and read off, and what was picked. Lengths mm, spots pixels. */
export const DrivePhotoSchema = z.strictObject({
  kind: z.enum(['belt', 'chain']),
  runs: z.enum(['cw', 'ccw']),
  pitchMm: z.number().positive().max(100).optional(),
  count: z.number().int().positive().max(5000).optional(),
  backMm: z.number().nonnegative().max(100),
  toothMm: z.number().nonnegative().max(100),
  scale: z.enum(['ruler', 'rectangle']),
  /** Length between a ruler's marks, or width and height of the rectangle; their standard uncertainty. */
  sides: z.array(z.number().positive()).max(2),
  sideU: z.number().positive(),
  marks: z.array(Spot).max(4),
  wheels: z.array(PickedWheelSchema).max(60),
});
export type DrivePhoto = z.infer<typeof DrivePhotoSchema>;

export type DrivePhotoFault =
  | { code: 'no_scale' }
  | { code: 'flat_rectangle' }
  | { code: 'no_pitch' }
  | { code: 'no_count' }
  | { code: 'too_few_wheels' }
  /** Nothing of it is picked. */
  | { code: 'not_picked'; wheel: number }
  /** It has neither teeth nor a rim. */
  | { code: 'no_size'; wheel: number }
  | { code: 'no_rim'; wheel: number; why: CircleError }
  | { code: 'no_pivot'; wheel: number }
  | { code: 'carrier'; wheel: number; why: EccentricFault }
  | { code: 'behind'; wheel: number };

/** A wheel as it was measured: its centre from the driving wheel's, y up, its rim, and how well the spots lie on one circle. Mm. */
export type MeasuredWheel = Point & { u: number; rimMm?: number; rimU?: number; rmsMm?: number };
export type MeasuredDrive = {
  layout: Layout;
  wheels: MeasuredWheel[];
  /** Standard uncertainty of the path's length, carried through scale, spots and path; none where no belt can run so. */
  lengthU?: number;
  pathError?: PathError;
  /** From the drive's plane, mm, y up, back to the picture. */
  seen: (p: Point) => PicturePoint;
};

/** Step of the differences by which uncertainty is carried: pixels, share of a length. */
const STEP = 0.02;
type Raw = Point & Partial<Pick<FittedCircle, 'r' | 'rmsMm'>>;
type Plane = (s: PicturePoint) => Point | undefined;

/**
 * Draws a drive up from a photograph: spots are laid into the plane of the scale, rims become circles, and the whole is set upright as the
 * picture stands, with the driving wheel at the origin. Uncertainty by central differences through the whole of it (JCGM 100, 5.1.3), so
 * that what two wheels owe to one scale is not counted as if it were two errors. What lies nearer to the camera than the scale is measured
 * too large: nothing here can know that, but the belt's length can.
 * @param pickPx standard uncertainty of one picked spot in x and in y, pixels
 */
export function measureDrive(
  photo: DrivePhoto,
  pickPx: number,
  id: string,
): Result<MeasuredDrive, DrivePhotoFault> {
  const { pitchMm, count, wheels } = photo;
  const wanted = photo.scale === 'ruler' ? { marks: 2, sides: 1 } : { marks: 4, sides: 2 };
  if (photo.marks.length < wanted.marks || photo.sides.length < wanted.sides)
    return err({ code: 'no_scale' });
  if (photo.scale === 'rectangle' && !goesAround(photo.marks)) return err({ code: 'flat_rectangle' });
  if (pitchMm === undefined) return err({ code: 'no_pitch' });
  if (count === undefined) return err({ code: 'no_count' });
  if (wheels.length < 2) return err({ code: 'too_few_wheels' });
  const map = mapOf(photo, photo.marks, photo.sides);
  if (!map) return err({ code: 'no_scale' });
  const raw: Raw[] = [];
  for (let i = 0; i < wheels.length; i++) {
    const found = locate(nth(wheels, i), i, (s) => project(map, s));
    if (!found.ok) return found;
    raw.push(found.value);
  }
  const frame = uprightFrame(map, nth(raw, 0));
  if (!frame) return err({ code: 'behind', wheel: 0 });
  const base = { kind: photo.kind, pitchMm, count, backMm: photo.backMm, toothMm: photo.toothMm };
  const layout = assemble(photo, base, raw, frame, map, id);
  if (!layout.ok) return layout;
  const path = solvePath(circlesOf(layout.value), senseOf(layout.value));
  const u = carried(photo, map, raw, layout.value, frame, pickPx);
  return ok({
    layout: layout.value,
    wheels: raw.map((w, i) => ({
      ...frame.into(w),
      u: num(u.centre, i),
      ...(w.r === undefined ? {} : { rimMm: w.r, rimU: num(u.rim, i), rmsMm: w.rmsMm ?? 0 }),
    })),
    ...(path.ok ? { lengthU: u.length } : { pathError: path.error }),
    seen: (p) => frame.back(p),
  });
}

/** From pixels to the plane of the scale, mm. A ruler takes the camera to stand straight above. */
function mapOf(
  photo: Pick<DrivePhoto, 'scale'>,
  marks: readonly PicturePoint[],
  sides: readonly number[],
): Projective | undefined {
  if (photo.scale === 'rectangle') return rectify(marks, num(sides, 0), num(sides, 1));
  const [a, b] = [nth(marks, 0), nth(marks, 1)];
  const px = Math.hypot(b.x - a.x, b.y - a.y);
  const k = num(sides, 0) / px;
  return px > 0 ? [k, 0, 0, 0, k, 0, 0, 0, 1] : undefined;
}

function locate(w: PickedWheel, wheel: number, plane: Plane): Result<Raw, DrivePhotoFault> {
  const spots = w.spots.map(plane);
  if (spots.some((s) => s === undefined)) return err({ code: 'behind', wheel });
  const flat = spots.map(must);
  if (flat.length === 0) return err({ code: 'not_picked', wheel });
  if (flat.length === 1 && w.teeth !== undefined) return ok(nth(flat, 0));
  if (flat.length === 1) return err({ code: 'no_size', wheel });
  const circle = fitCircle(flat);
  return circle.ok ? circle : err({ code: 'no_rim', wheel, why: circle.error });
}

type Frame = { into: (p: Point) => Point; back: (p: Point) => PicturePoint };

/** The plane turned so that up in the picture is up at the driving wheel, never mirrored, y up, the driving wheel at the origin. */
function uprightFrame(map: Projective, crank: Point): Frame | undefined {
  const back = inverse(map, crank);
  const at = project(back, crank);
  const [right, up] = at
    ? [project(map, { x: at.x + 1, y: at.y }), project(map, { x: at.x, y: at.y - 1 })]
    : [];
  if (!right || !up) return undefined;
  const turn = Math.atan2(up.y - crank.y, up.x - crank.x);
  // Corners that went round the other way lay the plane on its face.
  const cross = (right.x - crank.x) * (up.y - crank.y) - (right.y - crank.y) * (up.x - crank.x);
  const mirror = cross > 0 ? 1 : -1;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return {
    into: (p) => {
      const [dx, dy] = [p.x - crank.x, p.y - crank.y];
      return { x: mirror * (dx * s - dy * c), y: dx * c + dy * s };
    },
    back: (p) => {
      const x = p.x * mirror;
      return must(project(back, { x: crank.x + x * s + p.y * c, y: crank.y - x * c + p.y * s }));
    },
  };
}

function assemble(
  photo: DrivePhoto,
  base: Pick<Layout, 'kind' | 'pitchMm' | 'count' | 'backMm' | 'toothMm'>,
  raw: readonly Raw[],
  frame: Frame,
  map: Projective,
  id: string,
): Result<Layout, DrivePhotoFault> {
  const wheels: Wheel[] = [];
  for (let i = 0; i < photo.wheels.length; i++) {
    const [w, at] = [nth(photo.wheels, i), nth(raw, i)];
    const centre = frame.into(at);
    const wheel: Wheel = { id: w.id, name: w.name, role: w.role, side: w.side, rimMm: 0, ...centre };
    if (w.teeth !== undefined) wheel.teeth = w.teeth;
    else wheel.outsideMm = at.r ?? 0;
    if (w.shoe) {
      const spots = w.spots.flatMap((s) => project(map, s) ?? []).map(frame.into);
      wheel.arc = arcThrough(centre, spots);
    }
    if (w.eccentric) {
      const { pivot, ...marks } = w.eccentric;
      const spot = pivot && project(map, pivot);
      if (!spot) return err({ code: 'no_pivot', wheel: i });
      const carrier = onEccentric(centre, frame.into(spot), marks);
      if (!carrier.ok) return err({ code: 'carrier', wheel: i, why: carrier.error });
      wheel.carrier = carrier.value;
    }
    wheels.push(wheel);
  }
  return ok({ id, runs: photo.runs, ...base, wheels });
}

/** Standard uncertainties of centres, rims and the path's length from every spot and every side of the scale. */
function carried(
  photo: DrivePhoto,
  map: Projective,
  raw: readonly Raw[],
  layout: Layout,
  frame: Frame,
  pickPx: number,
): { centre: number[]; rim: number[]; length: number } {
  const sum = { centre: raw.map(() => 0), rim: raw.map(() => 0), length: 0 };
  // What bounds a shoe is left out: it bounds where it is touched, not how long the path is.
  const circles = circlesOf(layout);
  const lengthOf = (all: readonly Raw[]): number => {
    const path = solvePath(
      circles.map(({ r, turn, lay }, i) => {
        const at = nth(all, i);
        const smooth = nth(photo.wheels, i).teeth === undefined;
        const grown = smooth ? (at.r ?? 0) - (nth(raw, i).r ?? 0) : 0;
        return { ...frame.into(at), turn, r: r + grown, lay: (lay ?? r) + grown };
      }),
      senseOf(layout),
    );
    return path.ok ? path.value.lengthMm : NaN;
  };
  const add = (up: readonly Raw[] | undefined, down: readonly Raw[] | undefined, step: number, u: number) => {
    if (!up || !down) return;
    const k = u / (2 * step);
    const origin = [nth(up, 0), nth(down, 0)] as const;
    raw.forEach((_, i) => {
      const [p, q] = [nth(up, i), nth(down, i)];
      const dx = p.x - origin[0].x - (q.x - origin[1].x);
      const dy = p.y - origin[0].y - (q.y - origin[1].y);
      sum.centre[i] = num(sum.centre, i) + (k * k * (dx * dx + dy * dy)) / 2;
      if (p.r !== undefined && q.r !== undefined) sum.rim[i] = num(sum.rim, i) + (k * (p.r - q.r)) ** 2;
    });
    const length = k * (lengthOf(up) - lengthOf(down));
    if (Number.isFinite(length)) sum.length += length * length;
  };
  const withScale = (marks: readonly PicturePoint[], sides: readonly number[]): Raw[] | undefined => {
    const h = mapOf(photo, marks, sides);
    const all = h && photo.wheels.map((w, i) => locate(w, i, (s) => project(h, s)));
    return all?.every((r) => r.ok) ? all.flatMap((r) => (r.ok ? [r.value] : [])) : undefined;
  };
  const nudged = (spots: readonly PicturePoint[], k: number, axis: 'x' | 'y', by: number): PicturePoint[] =>
    spots.map((s, i) => (i === k ? { ...s, [axis]: s[axis] + by } : s));
  for (const axis of ['x', 'y'] as const) {
    photo.marks.forEach((_, k) => {
      const at = (by: number) => withScale(nudged(photo.marks, k, axis, by), photo.sides);
      add(at(STEP), at(-STEP), STEP, pickPx);
    });
    // A spot moves its own wheel alone.
    photo.wheels.forEach((w, i) => {
      w.spots.forEach((_, k) => {
        const at = (by: number): Raw[] | undefined => {
          const one = locate({ ...w, spots: nudged(w.spots, k, axis, by) }, i, (s) => project(map, s));
          return one.ok ? raw.with(i, one.value) : undefined;
        };
        add(at(STEP), at(-STEP), STEP, pickPx);
      });
    });
  }
  photo.sides.forEach((side, k) => {
    const step = side * STEP * 0.1;
    const at = (by: number) => withScale(photo.marks, photo.sides.with(k, side + by));
    add(at(step), at(-step), step, photo.sideU);
  });
  return { centre: sum.centre.map(Math.sqrt), rim: sum.rim.map(Math.sqrt), length: Math.sqrt(sum.length) };
}
