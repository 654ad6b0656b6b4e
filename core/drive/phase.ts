import { must, nth, num } from '@core/quantity/must';
import { type Layout, tensionerIndex } from './layout';
import { type Circle, type Path, wrapAngle } from './path';
import type { Solved } from './solve-drive';
import { drivenWheels } from './strands';

/**
 * How a wheel's mark stands when the driving wheel's mark is in line. Advanced (ahead in its own running sense) is
 * positive, retarded negative, everywhere.
 */
export type CamPhase = {
  wheel: number;
  /** The side on which marks were counted: the one without the tensioner. */
  route: 'tight' | 'slack';
  /** Pitch-line distance between the two marks along that side, mm. */
  distanceMm: number;
  /** The part of that distance which elongation makes longer, mm. */
  freeMm: number;
  /** Whole teeth or links between the marks, and where they were counted from. */
  seat: Seat;
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

/**
 * How a belt or chain was laid on: whole teeth between a wheel's mark and the driver's, and how far each mark then stood
 * before the place where the belt leaves its wheel, radians in the wheel's sense. The two angles keep later states of the
 * same fitting from being counted a turn further on, wherever the marks are.
 */
export type Seat = { between: number; aheadDriven: number; aheadDriver: number };

/**
 * Angle from a mark on to where the belt leaves the wheel, radians in the wheel's sense; negative when the mark is past it.
 * @param near the turn is chosen that lies nearest to this; without it the one that cuts the free side in the middle
 */
function angleToLeave(c: Circle, path: Path, i: number, markDeg: number, near?: number): number {
  const leave = nth(path.spans, i).angle - (c.turn * Math.PI) / 2;
  const ahead = wrapAngle(c.turn * (leave - markDeg * RAD));
  if (near !== undefined) return near + wrapAngle(ahead - near + Math.PI) - Math.PI;
  const free = 2 * Math.PI - num(path.wraps, i);
  return ahead > num(path.wraps, i) + free / 2 ? ahead - 2 * Math.PI : ahead;
}

type Counted = {
  route: CamPhase['route'];
  /** Pitch-line distance between the marks, mm. */
  mm: number;
  /** The part of it that can get longer: strands, and what lies on smooth wheels and shoes; links in mesh keep their gaps. */
  freeMm: number;
  aheadDriven: number;
  aheadDriver: number;
};

/**
 * Counts from the mark of wheel j forward to the driver's mark (tight route), or from the driver's mark forward to that of
 * wheel j (slack route). The route with the tensioner on it is never used.
 */
function markDistance(
  layout: Layout,
  { circles, path }: Pick<Solved, 'circles' | 'path'>,
  j: number,
  seat?: Seat,
): Counted | undefined {
  const mark = nth(layout.wheels, j).markDeg;
  const zero = nth(layout.wheels, 0).markDeg;
  if (mark === undefined || zero === undefined) return undefined;
  const n = circles.length;
  const route = tensionerIndex(layout) > j ? ('slack' as const) : ('tight' as const);
  const [from, to] = route === 'tight' ? [j, n] : [0, j];
  const lay = (i: number) => nth(circles, i % n).lay ?? nth(circles, i % n).r;
  const aheadDriven = angleToLeave(nth(circles, j), path, j, mark, seat?.aheadDriven);
  const aheadDriver = angleToLeave(nth(circles, 0), path, 0, zero, seat?.aheadDriver);
  const [first, last] = route === 'tight' ? [aheadDriven, aheadDriver] : [aheadDriver, aheadDriven];
  let mm = lay(from) * first + lay(to) * (num(path.wraps, to % n) - last);
  let freeMm = 0;
  for (let i = from; i < to; i++) {
    const arc = i === from ? 0 : lay(i) * num(path.wraps, i);
    mm += arc + nth(path.spans, i).lengthMm;
    freeMm += nth(path.spans, i).lengthMm + (nth(layout.wheels, i).teeth === undefined ? arc : 0);
  }
  return { route, mm, freeMm, aheadDriven, aheadDriver };
}

/**
 * Mark offsets of a correctly fitted belt or chain at every driven wheel that has a mark. The belt's teeth can only seat
 * whole, so what does not come out whole between two marks is what the marks show. Elongation adds e·L/p teeth over the
 * free length L alone: in mesh, links and teeth sit in the wheel's own gaps.
 * @param elongation ratio by which belt or chain is longer than new
 * @param seated how it was fitted; nearest whole teeth unless given
 */
export function markPhases(
  layout: Layout,
  solved: Pick<Solved, 'circles' | 'path'>,
  elongation = 0,
  seated?: ReadonlyMap<number, Seat>,
): CamPhase[] {
  const z0 = nth(layout.wheels, 0).teeth;
  if (z0 === undefined) return [];
  const half = (i: number) => (nth(layout.wheels, i).markOnTooth ? 0.5 : 0);
  return drivenWheels(layout).flatMap((j) => {
    const seat = seated?.get(j);
    const d = markDistance(layout, solved, j, seat);
    if (!d) return [];
    const sign = d.route === 'tight' ? 1 : -1;
    const longer = (elongation * d.freeMm) / layout.pitchMm;
    const pitches = d.mm / layout.pitchMm + sign * (half(0) - half(j)) - longer;
    const between = seat?.between ?? Math.round(pitches);
    const teeth = sign * (pitches - between);
    const z = must(nth(layout.wheels, j).teeth);
    const near = Math.abs(teeth) > 0.5 - HALF && Math.abs(teeth) <= 0.5 + HALF;
    return [
      {
        wheel: j,
        route: d.route,
        distanceMm: d.mm,
        freeMm: d.freeMm,
        seat: { between, aheadDriven: d.aheadDriven, aheadDriver: d.aheadDriver },
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
): Pick<CamPhase, 'teeth' | 'wheelDeg' | 'driverDeg' | 'rimMm'> {
  return {
    teeth,
    wheelDeg: (teeth * 360) / wheelTeeth,
    driverDeg: (teeth * 360) / driverTeeth,
    rimMm: teeth * pitchMm,
  };
}

/** How the belt lies on each wheel, to keep a fitting in mind while geometry or length change. */
export const seating = (phases: readonly CamPhase[]): Map<number, Seat> =>
  new Map(phases.map((p) => [p.wheel, p.seat]));

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** Turns of the driving wheel after which painted marks stand in line again: lcm(belt, wheel)/wheel. @example (121, 20) // 121 */
export const realignTurns = (beltTeeth: number, driverTeeth: number): number =>
  beltTeeth / gcd(beltTeeth, driverTeeth);
