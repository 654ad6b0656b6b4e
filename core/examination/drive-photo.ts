import type { Point } from '@core/drive/carrier';
import { arcThrough, type CircleError, fitCircle } from '@core/drive/fit-circle';
import { type Layout, senseOf, type Wheel } from '@core/drive/layout';
import { type EccentricFault, onEccentric } from '@core/drive/on-eccentric';
import { circlesOf, type PathError, solvePath } from '@core/drive/path';
import { must, nth, num } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import { adjust, uncertaintyOf } from '@core/drive/adjust';
import { inverse } from './flatten';
import { goesAround, type PicturePoint, project, type Projective, rectify } from './photo';
import type { DrivePhoto, PhotoDoubt, PickedWheel } from './photo-sheet';
import { planeNet, type PlacedRim } from './plane-net';

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
  | { code: 'behind'; wheel: number }
  /** What was picked does not hold everything in its place. */
  | { code: 'not_held' };

/**
 * A wheel as it was measured: its centre from the driving wheel's, y up; standard uncertainty of how far it is from there; its rim, and
 * how far the spots lie off it. Mm.
 */
type MeasuredWheel = Point & { u: number; rimMm?: number; rimU?: number; rmsMm?: number };
export type MeasuredDrive = {
  layout: Layout;
  wheels: MeasuredWheel[];
  /** Standard uncertainty of the path's length; none where no belt can run so. */
  lengthU?: number;
  pathError?: PathError;
  doubts: PhotoDoubt[];
  /** From the drive's plane, mm, y up, back to the picture; none for what lies behind the camera. */
  seen: (p: Point) => PicturePoint | undefined;
};

const DOUBTFUL = 4;
/** How well the belt's own length holds a drive that is known to close, mm. */
const BELT_U_MM = 0.1;

/**
 * Draws a drive up from a photograph. Everything that is known is adjusted together: the marks of the scale, every spot of a rim on its
 * circle (which tells how the camera leaned, better than a small scale does), counted teeth, measured distances, and, once it is known to
 * close, the belt's own length. The whole is set upright as the picture stands, with the driving wheel at the origin. What lies nearer to
 * the camera than the scale is measured too large: nothing here can know that, but the belt's length can.
 * @param pickPx standard uncertainty of one picked spot in x and in y, pixels
 * @param closed the belt is known to lie on these wheels: its length is one more measure
 */
export function measureDrive(
  photo: DrivePhoto,
  pickPx: number,
  id: string,
  closed = false,
): Result<MeasuredDrive, DrivePhotoFault> {
  const { pitchMm, count, wheels } = photo;
  const wanted = photo.scale === 'ruler' ? { marks: 2, sides: 1 } : { marks: 4, sides: 2 };
  if (photo.marks.length < wanted.marks || photo.sides.length < wanted.sides)
    return err({ code: 'no_scale' });
  if (photo.scale === 'rectangle' && !goesAround(photo.marks)) return err({ code: 'flat_rectangle' });
  if (pitchMm === undefined) return err({ code: 'no_pitch' });
  if (count === undefined) return err({ code: 'no_count' });
  if (wheels.length < 2) return err({ code: 'too_few_wheels' });
  const start = mapOf(photo, photo.marks, photo.sides);
  if (!start) return err({ code: 'no_scale' });
  const rough: PlacedRim[] = [];
  for (let i = 0; i < wheels.length; i++) {
    const found = locate(nth(wheels, i), i, (s) => project(start, s));
    if (!found.ok) return found;
    rough.push(found.value);
  }
  const base = { kind: photo.kind, pitchMm, count, backMm: photo.backMm, toothMm: photo.toothMm };
  const layoutOf = (map: Projective, rims: readonly PlacedRim[]) => {
    const frame = uprightFrame(map, nth(rims, 0));
    if (!frame) return err({ code: 'behind' as const, wheel: 0 });
    const layout = assemble(photo, base, rims, frame, map, id);
    return layout.ok ? ok({ frame, layout: layout.value }) : layout;
  };
  const first = layoutOf(start, rough);
  if (!first.ok) return first;
  const net = planeNet({ photo, start, rough, pickPx, layout: first.value.layout });
  const found = adjust(net.start, net.steps, (x) => net.residuals(x, closed ? BELT_U_MM : undefined));
  if (!found) return err({ code: 'not_held' });
  const { map, rims } = net.read(found.x);
  const last = layoutOf(map, rims);
  if (!last.ok) return last;
  const { frame, layout } = last.value;
  const path = solvePath(circlesOf(layout), senseOf(layout));
  return ok({
    layout,
    wheels: rims.map((w, i) => ({
      ...frame.into(w),
      u: net.fromDriver(found, i),
      ...(w.r === undefined ? {} : { rimMm: w.r, rimU: net.rimU(found, i), rmsMm: net.rms(found.x, i) }),
    })),
    ...(path.ok
      ? { lengthU: uncertaintyOf(found, net.steps, (x) => net.length(x)) ?? 0 }
      : { pathError: path.error }),
    doubts: net.doubts(found, DOUBTFUL),
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

function locate(w: PickedWheel, wheel: number, plane: Plane): Result<PlacedRim, DrivePhotoFault> {
  const spots = w.spots.map(plane);
  if (spots.some((s) => s === undefined)) return err({ code: 'behind', wheel });
  const flat = spots.map(must);
  if (flat.length === 0) return err({ code: 'not_picked', wheel });
  if (flat.length === 1 && w.teeth !== undefined) return ok(nth(flat, 0));
  if (flat.length === 1) return err({ code: 'no_size', wheel });
  const circle = fitCircle(flat);
  return circle.ok ? circle : err({ code: 'no_rim', wheel, why: circle.error });
}

type Plane = (s: PicturePoint) => Point | undefined;
type Frame = { into: (p: Point) => Point; back: (p: Point) => PicturePoint | undefined };

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
      return project(back, { x: crank.x + x * s + p.y * c, y: crank.y - x * c + p.y * s });
    },
  };
}

function assemble(
  photo: DrivePhoto,
  base: Pick<Layout, 'kind' | 'pitchMm' | 'count' | 'backMm' | 'toothMm'>,
  rims: readonly PlacedRim[],
  frame: Frame,
  map: Projective,
  id: string,
): Result<Layout, DrivePhotoFault> {
  const wheels: Wheel[] = [];
  for (let i = 0; i < photo.wheels.length; i++) {
    const [w, at] = [nth(photo.wheels, i), nth(rims, i)];
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
