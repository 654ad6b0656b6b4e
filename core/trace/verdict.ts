import type { Shift } from './compare';

/** What a shift is in the words of those who ask. Degrees of the crank; late is positive. */
export type Spoken = {
  crankDeg: number;
  camDeg: number;
  /** Teeth of the sensor's wheel, and teeth or links of the drive at the crank and at the cam. */
  sensorTeeth: number;
  atCrank: number;
  atCam: number;
  low: number;
  high: number;
};
export type TraceVerdict =
  | { verdict: 'in_tolerance'; spoken: Spoken }
  /** So many whole teeth of the drive, late or early, by the whole interval. */
  | { verdict: 'whole'; teeth: number; spoken: Spoken }
  /** More than the tolerance, and no whole tooth. */
  | { verdict: 'fraction'; spoken: Spoken }
  | { verdict: 'cannot_tell'; why: 'wide' | 'no_gap' | 'moving'; spoken: Spoken; couldBe: number[] };

export type Wheels = { sensorSlots: number; zCrank: number; zCam: number };

/** Largest offset that is thought of where a wheel has no gap, degrees. */
const THOUGHT_OF = 45;

/**
 * The arithmetic of a shift: a degree of the crank is half one of the cam, a tooth of the sensor's wheel is 360 over its slots, a tooth of the drive at the crank 360 over the crank
 * wheel's teeth, at a cam 720 over that wheel's.
 */
export const spokenOf = ({ deg, low, high }: Pick<Shift, 'deg' | 'low' | 'high'>, w: Wheels): Spoken => ({
  crankDeg: deg,
  camDeg: deg / 2,
  sensorTeeth: (deg * w.sensorSlots) / 360,
  atCrank: (deg * w.zCrank) / 360,
  atCam: (deg * w.zCam) / 720,
  low,
  high,
});

type Class = { kind: 'in' } | { kind: 'whole'; teeth: number } | { kind: 'fraction' } | { kind: 'wide' };
/** What an interval of degrees is: whole teeth only when all of it is about one number of them. */
function classOf(low: number, high: number, zCrank: number, tolerance: number): Class {
  const pitch = 360 / zCrank;
  const near = (deg: number) => {
    const n = Math.round(deg / pitch);
    return Math.abs(deg - n * pitch) <= tolerance ? n : undefined;
  };
  const [a, b] = [near(low), near(high)];
  if (a !== undefined && a === b) return a === 0 ? { kind: 'in' } : { kind: 'whole', teeth: a };
  // Between two whole numbers with the whole interval: no tooth, and not in tolerance.
  const between = Math.floor(low / pitch) === Math.floor(high / pitch);
  return a === undefined && b === undefined && between && high - low < pitch - 2 * tolerance
    ? { kind: 'fraction' }
    : { kind: 'wide' };
}

/** What a shift says of the drive. @param tolerance of a good one, degrees of the crank */
export function traceVerdict(
  shift: Pick<Shift, 'deg' | 'low' | 'high' | 'moving' | 'modulo'>,
  wheels: Wheels,
  tolerance: number,
): TraceVerdict {
  const spoken = spokenOf(shift, wheels);
  if (shift.moving) return { verdict: 'cannot_tell', why: 'moving', spoken, couldBe: [] };
  const { modulo } = shift;
  if (modulo !== undefined) {
    const most = Math.floor(THOUGHT_OF / modulo);
    const couldBe = Array.from({ length: 2 * most + 1 }, (_, k) => shift.deg + (k - most) * modulo).sort(
      (a, b) => Math.abs(a) - Math.abs(b),
    );
    return { verdict: 'cannot_tell', why: 'no_gap', spoken, couldBe };
  }
  const c = classOf(shift.low, shift.high, wheels.zCrank, tolerance);
  switch (c.kind) {
    case 'in':
      return { verdict: 'in_tolerance', spoken };
    case 'whole':
      return { verdict: 'whole', teeth: c.teeth, spoken };
    case 'fraction':
      return { verdict: 'fraction', spoken };
    case 'wide':
      return { verdict: 'cannot_tell', why: 'wide', spoken, couldBe: [] };
  }
}
