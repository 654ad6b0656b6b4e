import type { Shift } from './compare';

/** What a shift is in the words of those who ask. Degrees of the crank; late is positive. */
type Spoken = {
  crankDeg: number;
  camDeg: number;
  /** Teeth of the sensor's wheel, and teeth or links of the drive at the crank and at the cam. */
  /** None where nobody says the sensor's wheel. */
  sensorTeeth?: number;
  atCrank: number;
  atCam: number;
  low: number;
  high: number;
};
/** So many whole teeth, late or early, at the crank wheel or at the cam's. */
export type WholeTeeth = { wheel: 'crank' | 'cam'; teeth: number };
export type TraceVerdict =
  | { verdict: 'in_tolerance'; spoken: Spoken }
  /** Whole teeth of the drive by the whole interval, at each wheel where it may be; where both stages have the same pitch, at either. */
  | { verdict: 'whole'; at: WholeTeeth[]; spoken: Spoken }
  /** More than the tolerance, and no whole tooth. */
  | { verdict: 'fraction'; spoken: Spoken }
  | { verdict: 'cannot_tell'; why: 'wide' | 'no_gap' | 'moving'; spoken: Spoken; couldBe: number[] };

export type Wheels = { sensorSlots?: number; zCrank: number; zCam: number };

/** A wheel that looks the same only after so many degrees tells which offset it is, since none is that large. */
export const TELLS = 120;

/** Largest offset that is thought of where a wheel has no gap, degrees; most whole teeth that are thought of. */
const THOUGHT_OF = { deg: 45, teeth: 8 };

/**
 * The arithmetic of a shift: a degree of the crank is half one of the cam, a tooth of the sensor's wheel is 360 over its slots, a tooth of the drive at the crank 360 over the crank
 * wheel's teeth, at a cam 720 over that wheel's.
 */
const spokenOf = ({ deg, low, high }: Pick<Shift, 'deg' | 'low' | 'high'>, w: Wheels): Spoken => ({
  crankDeg: deg,
  camDeg: deg / 2,
  ...(w.sensorSlots === undefined ? {} : { sensorTeeth: (deg * w.sensorSlots) / 360 }),
  atCrank: (deg * w.zCrank) / 360,
  atCam: (deg * w.zCam) / 720,
  low,
  high,
});

/** Each offset that a drive set by whole teeth can have, degrees, and where. */
function settings({ zCrank, zCam }: Wheels): { deg: number; at: WholeTeeth[] }[] {
  const out: { deg: number; at: WholeTeeth[] }[] = [{ deg: 0, at: [] }];
  for (let n = -THOUGHT_OF.teeth; n <= THOUGHT_OF.teeth; n++) {
    if (n === 0) continue;
    for (const [wheel, pitch] of [['crank', 360 / zCrank] as const, ['cam', 720 / zCam] as const]) {
      const deg = n * pitch;
      const same = out.find((s) => Math.abs(s.deg - deg) < 1e-9);
      if (same) same.at.push({ wheel, teeth: n });
      else out.push({ deg, at: [{ wheel, teeth: n }] });
    }
  }
  return out;
}

/**
 * What a shift says of the drive. Whole teeth only when all of the interval is within tolerance of that setting and touches no other; a fraction only when it touches none.
 * @param tolerance of a good one, degrees of the crank
 */
export function traceVerdict(
  shift: Pick<Shift, 'deg' | 'low' | 'high' | 'moving' | 'modulo'>,
  wheels: Wheels,
  tolerance: number,
): TraceVerdict {
  const spoken = spokenOf(shift, wheels);
  if (shift.moving) return { verdict: 'cannot_tell', why: 'moving', spoken, couldBe: [] };
  const { modulo, low, high } = shift;
  // Two gaps alike leave half a turn open: no belt or chain was lost by so much.
  if (modulo !== undefined && modulo < TELLS) {
    const most = Math.floor(THOUGHT_OF.deg / modulo);
    const couldBe = Array.from({ length: 2 * most + 1 }, (_, k) => shift.deg + (k - most) * modulo).sort(
      (a, b) => Math.abs(a) - Math.abs(b),
    );
    return { verdict: 'cannot_tell', why: 'no_gap', spoken, couldBe };
  }
  const touched = settings(wheels).filter((s) => low <= s.deg + tolerance && high >= s.deg - tolerance);
  if (touched.length === 0) return { verdict: 'fraction', spoken };
  const inside = touched.every((s) => low >= s.deg - tolerance && high <= s.deg + tolerance);
  const good = touched.some((s) => s.at.length === 0);
  if (inside && good && touched.length === 1) return { verdict: 'in_tolerance', spoken };
  if (inside && !good) return { verdict: 'whole', at: touched.flatMap((s) => s.at), spoken };
  return { verdict: 'cannot_tell', why: 'wide', spoken, couldBe: [] };
}

/** What the cams of one engine say together. */
export type Together =
  /** All are out by the same whole teeth of the crank's stage: it was lost at the crank. */
  | { together: 'crank'; teeth: number }
  /** All are in tolerance. */
  | { together: 'good' }
  /** Some are in tolerance, these are not: it was lost at their wheels. */
  | { together: 'apart'; cams: number[] }
  /** They differ otherwise, or one of them cannot be told. */
  | { together: 'open' };

/** Whether the cams of one engine are out together, which is the crank's doing, or apart. Needs two at least. */
export function togetherOf(verdicts: readonly TraceVerdict[]): Together | undefined {
  if (verdicts.length < 2) return undefined;
  const good = verdicts.map((v) => v.verdict === 'in_tolerance');
  if (good.every(Boolean)) return { together: 'good' };
  const atCrank = verdicts.map((v) =>
    v.verdict === 'whole' ? v.at.find((a) => a.wheel === 'crank')?.teeth : undefined,
  );
  const [teeth] = atCrank;
  if (teeth !== undefined && atCrank.every((n) => n === teeth)) return { together: 'crank', teeth };
  const known = verdicts.every((v) => v.verdict !== 'cannot_tell');
  return known && good.some(Boolean)
    ? { together: 'apart', cams: good.flatMap((g, i) => (g ? [] : [i])) }
    : { together: 'open' };
}
