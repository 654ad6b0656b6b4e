import { doubleAt, intAt, num } from '@core/quantity/must';

/** Edges of one direction without doubles, seconds, and the whole slots of a wheel between them, whatever the wheel. */
export type Numbered = {
  kept: Float64Array;
  double: number;
  slots: Int32Array;
  /** How far the intervals are from whole pitches, on average, as a share of one. */
  rough: number;
};

/** An interval shorter than this share of its neighbours' pitch is a second edge of one tooth. */
const DOUBLE = 0.45;
/** Neighbours on each side that a pitch is the median of. */
const ABOUT = 3;
/** Edges that a clock takes at least. */
export const LEAST_TEETH = 12;

/** Numbers the edges of one direction. @param times seconds, growing */
export function numbered(times: Float64Array): Numbered {
  const kept = withoutDoubles(times);
  const double = times.length - kept.length;
  return kept.length < LEAST_TEETH
    ? { kept, double, slots: new Int32Array(0), rough: 0 }
    : { kept, double, ...slotsBetween(kept) };
}

/** Edges without second ones of the same tooth: of two that are closer than half a pitch the later one is left out. */
function withoutDoubles(times: Float64Array): Float64Array {
  const kept = new Float64Array(times.length);
  let n = 0;
  for (let i = 0; i < times.length; i++) {
    const step = n === 0 ? Infinity : doubleAt(times, i) - doubleAt(kept, n - 1);
    // Most steps are as long as the one before: only a short one is looked at closely.
    const short = n < 2 || step < 0.8 * (doubleAt(kept, n - 1) - doubleAt(kept, n - 2));
    if (!short || step >= DOUBLE * pitchAbout(times, i)) kept[n++] = doubleAt(times, i);
  }
  return kept.slice(0, n);
}

/** A pitch near an edge: lost teeth and gaps make long steps, doubles short ones, so it is the upper middle of the steps. */
function pitchAbout(times: Float64Array, i: number): number {
  const steps: number[] = [];
  for (let k = Math.max(1, i - ABOUT); k <= Math.min(times.length - 1, i + ABOUT + 1); k++)
    steps.push(doubleAt(times, k) - doubleAt(times, k - 1));
  return num(
    steps.sort((a, b) => a - b),
    Math.floor(steps.length * 0.55),
  );
}

/** The middle one of three. */
function middleOf(a: number, b: number, c: number): number {
  if (a > b) return b > c ? b : a > c ? c : a;
  return a > c ? a : b > c ? c : b;
}

/** The middle of three pitches from one on, or the mean of fewer at an end; nought where there is none. */
function middle(pitch: Float64Array, from: number): number {
  if (from >= 0 && from + 2 < pitch.length)
    return middleOf(doubleAt(pitch, from), doubleAt(pitch, from + 1), doubleAt(pitch, from + 2));
  let [sum, found] = [0, 0];
  for (let k = Math.max(0, from); k < Math.min(pitch.length, from + 3); k++, found++)
    sum += doubleAt(pitch, k);
  return found === 0 ? 0 : sum / found;
}

/**
 * Whole slots of the wheel from each edge to the next: the interval over the pitch, which follows the speed as the median of the intervals about it, each over the slots that it
 * was last found to have. Three times over, since what a gap does to the first pitch is known only then.
 */
function slotsBetween(times: Float64Array): Pick<Numbered, 'slots' | 'rough'> {
  const n = times.length - 1;
  const steps = new Float64Array(n);
  for (let i = 0; i < n; i++) steps[i] = doubleAt(times, i + 1) - doubleAt(times, i);
  const pitch = Float64Array.from(steps);
  const slots = new Int32Array(n).fill(1);
  let rough = 0;
  for (let round = 0; round < 3; round++) {
    let off = 0;
    let changed = false;
    for (let i = 0; i < n; i++) {
      // Before and behind, each for itself: while the speed changes, the pitch here is between them.
      const [before, behind] = [middle(pitch, i - 3), middle(pitch, i + 1)];
      const share =
        doubleAt(steps, i) / (before === 0 ? behind : behind === 0 ? before : (before + behind) / 2);
      const whole = Math.max(1, Math.round(share));
      off += Math.abs(share - whole) / whole;
      if (whole !== slots[i]) changed = true;
      slots[i] = whole;
    }
    rough = off / n;
    if (!changed) break;
    for (let i = 0; i < n; i++) pitch[i] = doubleAt(steps, i) / intAt(slots, i);
  }
  return { slots, rough };
}
