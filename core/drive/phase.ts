import { type Layout, tensionerIndex } from './layout';
import { type Circle, type Path, wrapAngle } from './path';
import type { Solved } from './solve-drive';
import { drivenWheels } from './strands';

/**
 * How a wheel's mark stands when the driving wheel's mark is in line. Advanced (ahead in its own running sense) is
 * positive, retarded negative, everywhere.
 */
export type Phase = {
  wheel: number;
  /** The side on which marks were counted: the one without the tensioner. */
  route: 'tight' | 'slack';
  /** Pitch-line distance between the two marks along that side, mm. */
  distanceMm: number;
  /** Whole teeth or links between the marks. */
  between: number;
  /** What does not come out whole, so how far the mark stands off: teeth, wheel degrees, driver degrees, mm at the rim. */
  teeth: number;
  wheelDeg: number;
  driverDeg: number;
  rimMm: number;
  /** Second position that is as near, when the fraction is close to one half. */
  alternative?: number;
};

const RAD = Math.PI / 180;
/** Fractions this close to a half leave the fitter two positions that are equally good. */
const HALF = 0.03;

/** Pitch-line distance from a mark to where the belt leaves the wheel, mm; negative when the mark is past it. */
function markToLeave(c: Circle, path: Path, i: number, markDeg: number): number {
  const leave = path.spans[i]!.angle - (c.turn * Math.PI) / 2;
  const ahead = wrapAngle(c.turn * (leave - markDeg * RAD));
  const free = 2 * Math.PI - path.wraps[i]!;
  const folded = ahead > path.wraps[i]! + free / 2 ? ahead - 2 * Math.PI : ahead;
  return (c.lay ?? c.r) * folded;
}

/**
 * Pitch-line distance from the mark of wheel j forward to the driver's mark (tight route), or from the driver's mark
 * forward to that of wheel j (slack route), mm. The route with the tensioner on it is never used.
 */
function markDistance(
  layout: Layout,
  { circles, path }: Solved,
  j: number,
): { route: Phase['route']; mm: number } | undefined {
  const mark = layout.wheels[j]!.markDeg;
  const zero = layout.wheels[0]!.markDeg;
  if (mark === undefined || zero === undefined) return undefined;
  const n = circles.length;
  const route = tensionerIndex(layout) > j ? ('slack' as const) : ('tight' as const);
  const [from, to] = route === 'tight' ? [j, n] : [0, j];
  const length = (i: number) => {
    const c = circles[i % n]!;
    return (c.lay ?? c.r) * path.wraps[i % n]!;
  };
  let mm = markToLeave(circles[from]!, path, from, layout.wheels[from]!.markDeg!);
  for (let i = from; i < to; i++) {
    mm += path.spans[i % n]!.lengthMm;
    if (i + 1 < to) mm += length(i + 1);
  }
  const end = to % n;
  mm += length(end) - markToLeave(circles[end]!, path, end, layout.wheels[end]!.markDeg!);
  return { route, mm };
}

/**
 * Mark offsets of a correctly fitted belt or chain at every driven wheel that has a mark. The belt's teeth can only seat
 * whole, so what does not come out whole between two marks is what the marks show.
 * @param elongation ratio by which belt or chain is longer than new
 * @param seated whole teeth between the marks when it was fitted; nearest unless given
 */
export function markPhases(
  layout: Layout,
  solved: Solved,
  elongation = 0,
  seated?: ReadonlyMap<number, number>,
): Phase[] {
  const z0 = layout.wheels[0]!.teeth;
  if (z0 === undefined) return [];
  const half = (i: number) => (layout.wheels[i]!.markOnTooth ? 0.5 : 0);
  return drivenWheels(layout).flatMap((j) => {
    const d = markDistance(layout, solved, j);
    if (!d) return [];
    const sign = d.route === 'tight' ? 1 : -1;
    const pitches = d.mm / layout.pitchMm + sign * (half(0) - half(j));
    const between = seated?.get(j) ?? Math.round(pitches / (1 + elongation));
    const teeth = sign * (pitches - between * (1 + elongation));
    const z = layout.wheels[j]!.teeth!;
    const near = Math.abs(teeth) > 0.5 - HALF && Math.abs(teeth) <= 0.5 + HALF;
    return [
      {
        wheel: j,
        route: d.route,
        distanceMm: d.mm,
        between,
        ...inUnits(teeth, z, z0, layout.pitchMm),
        ...(near ? { alternative: teeth - Math.sign(teeth) } : {}),
      },
    ];
  });
}

/** Teeth as wheel degrees, driver degrees and mm at the rim. One tooth is 360/z degrees of its wheel, whatever its size. */
export function inUnits(
  teeth: number,
  wheelTeeth: number,
  driverTeeth: number,
  pitchMm: number,
): Pick<Phase, 'teeth' | 'wheelDeg' | 'driverDeg' | 'rimMm'> {
  return {
    teeth,
    wheelDeg: (teeth * 360) / wheelTeeth,
    driverDeg: (teeth * 360) / driverTeeth,
    rimMm: teeth * pitchMm,
  };
}

/** Whole teeth between marks by wheel, to keep a fitting in mind while geometry or length change. */
export const seating = (phases: readonly Phase[]): Map<number, number> =>
  new Map(phases.map((p) => [p.wheel, p.between]));

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** Turns of the driving wheel after which painted marks stand in line again: lcm(belt, wheel)/wheel. @example (121, 20) // 121 */
export const realignTurns = (beltTeeth: number, driverTeeth: number): number =>
  beltTeeth / gcd(beltTeeth, driverTeeth);
