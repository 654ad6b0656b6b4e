import type { Edges } from './edges';
import { isEven, type ToothWheel } from './wheel';

/** A crank's angle over time, from the teeth of its wheel. */
export type AngleClock = {
  wheel: ToothWheel;
  /** Seconds of each tooth's edge, and its angle, degrees, growing over the turns; nought is the first tooth behind the first gap of the wheel. */
  times: Float64Array;
  degrees: Float64Array;
  /** The wheel has no gap: angles hold only up to whole teeth. */
  even: boolean;
  /** Teeth that were not seen, edges that were too many, whole turns between first and last tooth. */
  lost: number;
  double: number;
  turns: number;
  /** How far the intervals over gaps are from whole pitches, as a share of one: a crossing that stands in the gap by chance is far. */
  gapOff: number;
};
export type ClockError =
  | { code: 'too_few_teeth'; teeth: number }
  /** The intervals show no gap where the wheel has one, or others. `fits`: share of the teeth that stand where the wheel has one. */
  | { code: 'wheel_does_not_match'; notation: string; fits: number };
export type ClockReading = { ok: true; value: AngleClock } | { ok: false; error: ClockError };

/** An interval shorter than this share of its neighbours' pitch is a second edge of one tooth. */
const DOUBLE = 0.45;
/** Neighbours on each side that a pitch is the median of. */
const ABOUT = 3;
/** Share of the edges that have to stand on a tooth of the wheel, share of its gaps that have to be seen, and of wide intervals elsewhere. */
const FITS = 0.97;
const SEEN = 0.8;
const STRAY = 0.05;
/** Teeth of a wheel come at even steps: intervals that are so far from whole pitches on average are no teeth. */
const ROUGH = 0.15;
const LEAST_TEETH = 12;

const median = (xs: number[]): number => xs.sort((a, b) => a - b)[xs.length >> 1]!;
/** The middle one of three. */
const middleOf = (a: number, b: number, c: number): number =>
  Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));

/** Edges without second ones of the same tooth: of two that are closer than half a pitch the later one is left out. */
function withoutDoubles(times: Float64Array): { kept: number[]; double: number } {
  const kept: number[] = [];
  for (let i = 0; i < times.length; i++) {
    const last = kept.length - 1;
    const step = last < 0 ? Infinity : times[i]! - kept[last]!;
    // Most steps are as long as the one before: only a short one is looked at closely.
    const short = last < 1 || step < 0.8 * (kept[last]! - kept[last - 1]!);
    if (!short || step >= DOUBLE * pitchAbout(times, i)) kept.push(times[i]!);
  }
  return { kept, double: times.length - kept.length };
}

/** A pitch near an edge: lost teeth and gaps make long steps, doubles short ones, so it is the upper middle of the steps. */
function pitchAbout(times: Float64Array, i: number): number {
  const steps: number[] = [];
  for (let k = Math.max(1, i - ABOUT); k <= Math.min(times.length - 1, i + ABOUT + 1); k++)
    steps.push(times[k]! - times[k - 1]!);
  return steps.sort((a, b) => a - b)[Math.floor(steps.length * 0.55)]!;
}

/**
 * Whole slots of the wheel from each edge to the next: the interval over the pitch, which follows the speed as the median of the intervals about it, each over the slots that
 * it was last found to have. Three times over, since what a gap does to the first pitch is known only then. `rough`: how far
 * the intervals are from whole pitches, on average.
 */
function slotsBetween(times: readonly number[]): { slots: number[]; rough: number } {
  const steps = times.slice(1).map((t, k) => t - times[k]!);
  let slots = steps.map(() => 1);
  let rough = 0;
  const n = steps.length;
  const pitch = (k: number): number => steps[k]! / slots[k]!;
  // The middle of three whole pitches from one on, or the mean of fewer at an end; nothing where there is none.
  const middle = (from: number): number => {
    if (from >= 0 && from + 2 < n) return middleOf(pitch(from), pitch(from + 1), pitch(from + 2));
    let [sum, found] = [0, 0];
    for (let k = Math.max(0, from); k < Math.min(n, from + 3); k++, found++) sum += pitch(k);
    return found === 0 ? 0 : sum / found;
  };
  for (let round = 0; round < 3; round++) {
    let off = 0;
    const next = new Array<number>(n);
    for (let i = 0; i < n; i++) {
      // Before and behind, each for itself: while the speed changes, the pitch here is between them.
      const [before, behind] = [middle(i - 3), middle(i + 1)];
      const share = steps[i]! / (before === 0 ? behind : behind === 0 ? before : (before + behind) / 2);
      const whole = Math.max(1, Math.round(share));
      off += Math.abs(share - whole) / whole;
      next[i] = whole;
    }
    const same = next.every((s, i) => s === slots[i]);
    slots = next;
    rough = off / n;
    if (same) break;
  }
  return { slots, rough };
}

/** Edges of one direction without doubles, seconds, and the slots between them, whatever the wheel. */
export type Numbered = { kept: readonly number[]; double: number; slots: readonly number[]; rough: number };

export function numbered(times: Float64Array): Numbered {
  const { kept, double } = withoutDoubles(times);
  return { kept, double, ...(kept.length < LEAST_TEETH ? { slots: [], rough: 0 } : slotsBetween(kept)) };
}

/** The way that the wheel has to be turned for most edges to stand on its teeth, and the share that do. */
function bestTurn(places: readonly number[], { teeth }: ToothWheel): { turn: number; fits: number } {
  const n = teeth.length;
  const seen = new Float64Array(n);
  for (const p of places) seen[p % n]!++;
  const each = places.length / teeth.filter(Boolean).length;
  let best = { turn: 0, fits: -Infinity, score: -Infinity };
  for (let turn = 0; turn < n; turn++) {
    let [on, lost] = [0, 0];
    for (let p = 0; p < n; p++) {
      if (teeth[(p + turn) % n]) {
        on += seen[p]!;
        lost += Math.max(0, each - seen[p]!);
      }
    }
    const score = on - lost;
    if (score > best.score) best = { turn, fits: on / places.length, score };
  }
  return best;
}

/**
 * The angle clock of a crank signal: edges are numbered by the slots between them, the wheel is turned so that its teeth stand where edges are, doubles are taken out, lost teeth stay
 * lost and are counted. When the numbering slips, by an edge that was read a slot wrong, teeth stop fitting and the capture is refused: a tooth is never guessed.
 * @param teeth edges of one direction, numbered
 */
export function angleClock(teeth: Numbered, wheel: ToothWheel): ClockReading {
  const { kept, double, slots, rough } = teeth;
  if (kept.length < LEAST_TEETH) return { ok: false, error: { code: 'too_few_teeth', teeth: kept.length } };
  const n = wheel.teeth.length;
  const places = [0];
  for (const s of slots) places.push(places.at(-1)! + s);
  const even = isEven(wheel);
  const { turn, fits } = bestTurn(places, wheel);
  const span = places.at(-1)! - places[0]!;
  const expected = (span / n) * wheel.teeth.filter(Boolean).length;
  const lost = Math.max(0, Math.round(expected - (places.length - 1)));
  const gaps = gapsShown(kept, places, turn, wheel);
  const right =
    rough < ROUGH && (even ? gaps.stray < STRAY && !recurs(slots) : gaps.shown > SEEN && gaps.stray < STRAY);
  if (fits < FITS || !right)
    return {
      ok: false,
      error: {
        code: 'wheel_does_not_match',
        notation: wheel.notation,
        fits: Math.min(fits, even ? 1 - gaps.stray : gaps.shown),
      },
    };
  const first = wheel.teeth.findIndex((t, i) => t && !wheel.teeth[(i + n - 1) % n]);
  const zero = turn - Math.max(0, first);
  return {
    ok: true,
    value: {
      wheel,
      times: Float64Array.from(kept),
      degrees: Float64Array.from(places, (p) => ((p + zero) * 360) / n),
      even,
      lost,
      double,
      turns: Math.floor(span / n),
      gapOff: gaps.off,
    },
  };
}

/** True when wide steps come at even distances: then they are a gap, and the wheel is not an even one. */
function recurs(slots: readonly number[]): boolean {
  const wide = slots.flatMap((s, i) => (s > 1 ? [i] : []));
  const apart = wide.slice(1).map((w, i) => w - wide[i]!);
  if (apart.length < 3) return false;
  const usual = median([...apart]);
  return apart.filter((a) => Math.abs(a - usual) <= 1).length > 0.5 * apart.length;
}

/** Share of the wheel's gaps that were passed in one step where they stand, share of wide steps that stand elsewhere, and how whole the steps over gaps are. */
function gapsShown(
  times: readonly number[],
  places: readonly number[],
  turn: number,
  { teeth }: ToothWheel,
): { shown: number; stray: number; off: number } {
  const n = teeth.length;
  let [passed, shown, stray, off] = [0, 0, 0, 0];
  for (let i = 0; i + 1 < places.length; i++) {
    const [from, to] = [places[i]!, places[i + 1]!];
    if (!teeth[(from + turn + 1) % n]) passed++;
    if (to - from === 1) continue;
    let empty = true;
    for (let k = from + 1; k < to && empty; k++) empty = !teeth[(k + turn) % n];
    if (empty && teeth[(from + turn) % n] && teeth[(to + turn) % n]) {
      shown++;
      const about = [i - 2, i - 1, i + 1, i + 2].filter(
        (k) => k >= 0 && k + 1 < places.length && places[k + 1] === places[k]! + 1,
      );
      const pitch = about.reduce((s, k) => s + times[k + 1]! - times[k]!, 0) / about.length;
      if (about.length > 0) off += Math.abs((times[i + 1]! - times[i]!) / pitch - (to - from));
    } else stray++;
  }
  return {
    shown: passed === 0 ? 0 : shown / passed,
    stray: stray / places.length,
    off: shown === 0 ? 0 : off / shown,
  };
}

/** Directions of a crank signal whose gaps are as whole as each other within this are both sharp. */
const AS_SHARP = 0.06;

/**
 * The clock of a crank signal, of the wheels that it may be. A swing is sharp in one direction, as its tooth passes; both edges of a square wave are sharp: then the one that ends
 * the wheel's gap is taken, so that a signal that is upside down, or another capture, is read from the same edge of each tooth.
 */
export function crankClock(edges: Edges, stepS: number, wheels: readonly ToothWheel[]): ClockReading {
  const teeth = (samples: Float64Array) => numbered(samples.map((s) => s * stepS));
  const directions = [teeth(edges.falling), teeth(edges.rising)] as const;
  let best: { clock: AngleClock; score: number; wheel: ToothWheel } | undefined;
  let failed: ClockReading | undefined;
  for (const wheel of wheels)
    for (const direction of directions) {
      const read = angleClock(direction, wheel);
      if (!read.ok) {
        failed ??= read;
        continue;
      }
      const { lost, double } = read.value;
      const score = (lost + double) / direction.kept.length + (read.value.even ? AS_SHARP : 0);
      if (!best || score < best.score - 1e-9) best = { clock: read.value, score, wheel };
    }
  if (!best) return failed ?? { ok: false, error: { code: 'too_few_teeth', teeth: 0 } };
  const [down, up] = directions.map((d) => angleClock(d, best.wheel)) as [ClockReading, ClockReading];
  if (!down.ok || !up.ok) return down.ok ? down : up;
  if (Math.abs(down.value.gapOff - up.value.gapOff) > AS_SHARP)
    return down.value.gapOff < up.value.gapOff ? down : up;
  if (best.clock.even) return down;
  // What ends the rest in a gap is the first edge of a square tooth, but where a swing's tooth begins: its middle is the other one.
  return (endsGap(edges) === 'rising') === (edges.kind === 'square') ? up : down;
}

/** The edge that ends a gap: gaps are where the signal rests longest. */
function endsGap({ rising, falling }: Edges): 'rising' | 'falling' {
  const longest = (from: Float64Array, to: Float64Array) => {
    const rests: number[] = [];
    for (let i = 0, k = 0; i < from.length; i++) {
      while (k < to.length && to[k]! <= from[i]!) k++;
      if (k < to.length) rests.push(to[k]! - from[i]!);
    }
    rests.sort((a, b) => b - a);
    return rests[Math.floor(rests.length / 100)] ?? 0;
  };
  return longest(falling, rising) >= longest(rising, falling) ? 'rising' : 'falling';
}

/**
 * The crank's angle at a time, degrees: the cubic through the two teeth before and the two behind, which follows acceleration. None outside the first and last tooth.
 * @param hint index of a tooth before it, to go on from
 */
export function angleAt(
  { times, degrees }: AngleClock,
  t: number,
  hint = 0,
): { deg: number; at: number } | undefined {
  if (t < times[0]! || t > times[times.length - 1]!) return undefined;
  let i = Math.min(hint, times.length - 2);
  while (i > 0 && times[i]! > t) i--;
  while (i + 2 < times.length && times[i + 1]! < t) i++;
  const from = Math.max(0, Math.min(i - 1, times.length - 4));
  let deg = 0;
  const to = Math.min(times.length, from + 4);
  for (let j = from; j < to; j++) {
    let weight = 1;
    for (let k = from; k < to; k++) if (k !== j) weight *= (t - times[k]!) / (times[j]! - times[k]!);
    deg += weight * degrees[j]!;
  }
  return { deg, at: i };
}
