import { doubleAt, intAt, num } from '@core/quantity/must';
import type { Edges } from './edges';
import { LEAST_TEETH, numbered, type Numbered } from './numbering';
import { firstTooth, isEven, type ToothWheel } from './wheel';

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

/** Share of the edges that have to stand on a tooth of the wheel, share of its gaps that have to be seen, and of wide intervals elsewhere. */
const FITS = 0.97;
const SEEN = 0.8;
const STRAY = 0.05;
/** Teeth of a wheel come at even steps: intervals that are so far from whole pitches on average are no teeth. */
const ROUGH = 0.15;

const median = (xs: number[]): number =>
  num(
    xs.sort((a, b) => a - b),
    xs.length >> 1,
  );

/** The way that the wheel has to be turned for most edges to stand on its teeth, and the share that do. */
function bestTurn(places: Int32Array, { teeth }: ToothWheel): { turn: number; fits: number } {
  const n = teeth.length;
  const seen = new Float64Array(n);
  for (const p of places) seen[p % n] = doubleAt(seen, p % n) + 1;
  const each = places.length / teeth.filter(Boolean).length;
  let best = { turn: 0, fits: -Infinity, score: -Infinity };
  for (let turn = 0; turn < n; turn++) {
    let [on, lost] = [0, 0];
    for (let p = 0; p < n; p++) {
      if (teeth[(p + turn) % n]) {
        on += doubleAt(seen, p);
        lost += Math.max(0, each - doubleAt(seen, p));
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
function angleClock(teeth: Numbered, wheel: ToothWheel): ClockReading {
  const { kept, double, slots, rough } = teeth;
  if (kept.length < LEAST_TEETH) return { ok: false, error: { code: 'too_few_teeth', teeth: kept.length } };
  const n = wheel.teeth.length;
  const places = new Int32Array(slots.length + 1);
  for (let i = 0; i < slots.length; i++) places[i + 1] = intAt(places, i) + intAt(slots, i);
  const even = isEven(wheel);
  const { turn, fits } = bestTurn(places, wheel);
  const span = intAt(places, places.length - 1);
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
  const zero = turn - firstTooth(wheel);
  return {
    ok: true,
    value: {
      wheel,
      times: kept,
      degrees: degreesOf(places, zero, n),
      even,
      lost,
      double,
      turns: Math.floor(span / n),
      gapOff: gaps.off,
    },
  };
}

/** Degrees of each edge by its slot. */
function degreesOf(places: Int32Array, zero: number, n: number): Float64Array {
  const out = new Float64Array(places.length);
  for (let i = 0; i < places.length; i++) out[i] = ((intAt(places, i) + zero) * 360) / n;
  return out;
}

/** True when wide steps come at even distances: then they are a gap, and the wheel is not an even one. */
function recurs(slots: Int32Array): boolean {
  const wide: number[] = [];
  slots.forEach((s, i) => s > 1 && wide.push(i));
  const apart = wide.slice(1).map((w, i) => w - num(wide, i));
  if (apart.length < 3) return false;
  const usual = median([...apart]);
  return apart.filter((a) => Math.abs(a - usual) <= 1).length > 0.5 * apart.length;
}

/** Share of the wheel's gaps that were passed in one step where they stand, share of wide steps that stand elsewhere, and how whole the steps over gaps are. */
function gapsShown(
  times: Float64Array,
  places: Int32Array,
  turn: number,
  { teeth }: ToothWheel,
): { shown: number; stray: number; off: number } {
  const n = teeth.length;
  let [passed, shown, stray, off] = [0, 0, 0, 0];
  for (let i = 0; i + 1 < places.length; i++) {
    const [from, to] = [intAt(places, i), intAt(places, i + 1)];
    if (!teeth[(from + turn + 1) % n]) passed++;
    if (to - from === 1) continue;
    let empty = true;
    for (let k = from + 1; k < to && empty; k++) empty = !teeth[(k + turn) % n];
    if (empty && teeth[(from + turn) % n] && teeth[(to + turn) % n]) {
      shown++;
      let [sum, about] = [0, 0];
      for (let k = Math.max(0, i - 2); k <= Math.min(places.length - 2, i + 2); k++)
        if (places[k + 1] === intAt(places, k) + 1) {
          sum += doubleAt(times, k + 1) - doubleAt(times, k);
          about++;
        }
      if (about > 0)
        off += Math.abs(((doubleAt(times, i + 1) - doubleAt(times, i)) * about) / sum - (to - from));
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

/** Edges of each direction from which a wheel is chosen before all of them are read. */
const CHOSEN_FROM = 2000;

type Fit = { wheel: ToothWheel; down: ClockReading; up: ClockReading };
/** The wheel that explains most edges of either direction; otherwise why the one that came nearest does not. */
function bestWheel(
  directions: readonly [Numbered, Numbered],
  wheels: readonly ToothWheel[],
): Fit | ClockError {
  let best: (Fit & { score: number }) | undefined;
  let nearest: ClockError = { code: 'too_few_teeth', teeth: 0 };
  for (const wheel of wheels) {
    const [down, up] = directions.map((d) => angleClock(d, wheel)) as [ClockReading, ClockReading];
    for (const read of [down, up]) {
      if (!read.ok) {
        if (closeness(read.error) > closeness(nearest)) nearest = read.error;
        continue;
      }
      const { lost, double, times, even } = read.value;
      const score = (lost + double) / times.length + (even ? AS_SHARP : 0);
      if (!best || score < best.score - 1e-9) best = { wheel, down, up, score };
    }
  }
  return best ?? nearest;
}
/** How near a wheel came: too few teeth are further off the more are missing. */
const closeness = (e: ClockError): number =>
  e.code === 'wheel_does_not_match' ? 1 + e.fits : e.teeth / LEAST_TEETH;

const summaryOf = (d: Numbered): Numbered => ({
  ...d,
  kept: d.kept.subarray(0, CHOSEN_FROM),
  slots: d.slots.subarray(0, CHOSEN_FROM - 1),
  double: 0,
});

/**
 * The clock of a crank signal, of the wheels that it may be. A swing is sharp in one direction, as its tooth passes; both edges of a square wave are sharp: then the one that ends
 * the wheel's gap is taken, so that a signal that is upside down, or another capture, is read from the same edge of each tooth.
 */
export function crankClock(edges: Edges, stepS: number, wheels: readonly ToothWheel[]): ClockReading {
  const teeth = (samples: Float64Array) => numbered(samples.map((s) => s * stepS));
  const directions = [teeth(edges.falling), teeth(edges.rising)] as const;
  // The start of a long capture tells the wheel; where all of it is not that wheel, every other is tried.
  const long = directions[0].kept.length > 2 * CHOSEN_FROM && wheels.length > 1;
  const begins = long ? bestWheel([summaryOf(directions[0]), summaryOf(directions[1])], wheels) : undefined;
  let found = bestWheel(directions, begins && 'wheel' in begins ? [begins.wheel] : wheels);
  if (!('wheel' in found) && long) found = bestWheel(directions, wheels);
  if (!('wheel' in found)) return { ok: false, error: found };
  const { down, up } = found;
  if (!down.ok || !up.ok) return down.ok ? down : up;
  if (Math.abs(down.value.gapOff - up.value.gapOff) > AS_SHARP)
    return down.value.gapOff < up.value.gapOff ? down : up;
  if (down.value.even) return down;
  // What ends the rest in a gap is the first edge of a square tooth, but where a swing's tooth begins: its middle is the other one.
  return (endsGap(edges) === 'rising') === (edges.kind === 'square') ? up : down;
}

/** The edge that ends a gap: gaps are where the signal rests longest. */
function endsGap({ rising, falling }: Edges): 'rising' | 'falling' {
  const longest = (from: Float64Array, to: Float64Array) => {
    const rests = new Float64Array(from.length);
    let n = 0;
    for (let i = 0, k = 0; i < from.length; i++) {
      while (k < to.length && doubleAt(to, k) <= doubleAt(from, i)) k++;
      if (k < to.length) rests[n++] = doubleAt(to, k) - doubleAt(from, i);
    }
    return rests.subarray(0, n).sort()[n - 1 - Math.floor(n / 100)] ?? 0;
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
  if (t < doubleAt(times, 0) || t > doubleAt(times, times.length - 1)) return undefined;
  let i = Math.min(hint, times.length - 2);
  while (i > 0 && doubleAt(times, i) > t) i--;
  while (i + 2 < times.length && doubleAt(times, i + 1) < t) i++;
  const from = Math.max(0, Math.min(i - 1, times.length - 4));
  let deg = 0;
  const to = Math.min(times.length, from + 4);
  for (let j = from; j < to; j++) {
    let weight = 1;
    for (let k = from; k < to; k++)
      if (k !== j) weight *= (t - doubleAt(times, k)) / (doubleAt(times, j) - doubleAt(times, k));
    deg += weight * doubleAt(degrees, j);
  }
  return { deg, at: i };
}

/** Engine speed turn by turn: seconds at its middle, revolutions a minute. At most so many, evenly chosen. */
export function speedOf({ times, degrees }: AngleClock, most = 400): { s: number; rpm: number }[] {
  const turns = Math.floor((doubleAt(degrees, degrees.length - 1) - doubleAt(degrees, 0)) / 360);
  const every = Math.max(1, Math.ceil(turns / most));
  const out: { s: number; rpm: number }[] = [];
  let [from, next] = [0, doubleAt(degrees, 0) + 360 * every];
  for (let i = 1; i < times.length; i++) {
    if (doubleAt(degrees, i) < next) continue;
    const [dt, turned] = [
      doubleAt(times, i) - doubleAt(times, from),
      doubleAt(degrees, i) - doubleAt(degrees, from),
    ];
    out.push({ s: doubleAt(times, from) + dt / 2, rpm: turned / (6 * dt) });
    [from, next] = [i, doubleAt(degrees, i) + 360 * every];
  }
  return out;
}
