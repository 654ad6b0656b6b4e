import { doubleAt, floatAt } from '@core/quantity/must';
import { Filled } from './filled';

/** Crossings of a signal, in samples. */
export type Swings = {
  rising: Float64Array;
  falling: Float64Array;
  /** Of a swing: which way it crosses as the middle of a tooth passes, where that can be told. */
  sharp?: 'rising' | 'falling';
  /** The same by its shape alone, quicker from peak to peak, without the crossings that a gap or a drop-out takes. */
  quicker?: 'rising' | 'falling';
};

/** A swing that is lower than this share of the last one is noise in a gap. */
const SHARE = 0.3;
/** Samples near a crossing that lie within this share of the lower of its two heights are on one straight line. */
const STRAIGHT = 0.6;
/** A crossing that took so many times as long as the middle one of its direction is no tooth: a spike, and long after it the next swing. */
const SLOW = 2.5;
/** Directions whose crossings take so nearly as long as each other, as a share, are not told apart by them. */
const AS_SHARP = 0.2;
/** A way that has fewer crossings by more than this share lost them in gaps. */
const FEWER = 0.01;

/**
 * Crossings of the middle by a swing: the side before has to be as high as a share of the swing before it. A crossing stands
 * where the least-squares line through the steep samples about it passes the middle.
 * @param least height below which all is noise
 */
export function swingsOf(v: Float32Array, middle: number, least: number): Swings {
  const found = { rising: new Filled(), falling: new Filled() };
  /** Samples from peak to peak about each crossing. */
  const took = { rising: new Filled(), falling: new Filled() };
  let [side, peak, top] = [0, 0, 0];
  let open: { way: 'rising' | 'falling'; at: number; from: number; before: number } | undefined;
  const close = () => {
    if (!open) return;
    found[open.way].add(steepAt(v, middle, open.at, Math.min(open.before, peak)));
    took[open.way].add(top - open.from);
    open = undefined;
  };
  for (let i = 0; i < v.length; i++) {
    const x = floatAt(v, i) - middle;
    const here = x > 0 ? 1 : -1;
    const size = x * here;
    if (here === side) {
      if (size > peak) [peak, top] = [size, i];
      continue;
    }
    // The other side counts once it is high enough; until then it is noise about the middle.
    if (size < Math.max(least, SHARE * peak)) continue;
    close();
    if (side !== 0 && peak > least)
      open = { way: here > 0 ? 'rising' : 'falling', at: i, from: top, before: peak };
    [side, peak, top] = [here, size, i];
  }
  close();
  const [up, down] = [middleOf(took.rising.all), middleOf(took.falling.all)];
  const [rise, fall] = [meanOf(took.rising.all), meanOf(took.falling.all)];
  const rising = quick(found.rising.all, took.rising.all, up);
  const falling = quick(found.falling.all, took.falling.all, down);
  const quicker =
    Math.abs(rise - fall) > AS_SHARP * Math.max(rise, fall)
      ? rise < fall
        ? 'rising'
        : 'falling'
      : undefined;
  const sharp = sharpOf(rising.length, falling.length) ?? quicker;
  return { rising, falling, ...(sharp ? { sharp } : {}), ...(quicker ? { quicker } : {}) };
}

/** The crossing that takes long in every gap is none of a tooth's middle: the other way has more of them left. */
function sharpOf(rising: number, falling: number): 'rising' | 'falling' | undefined {
  const more = rising - falling;
  if (Math.abs(more) <= Math.max(1, FEWER * Math.max(rising, falling))) return undefined;
  return more > 0 ? 'rising' : 'falling';
}

const middleOf = (xs: Float64Array): number => xs.slice().sort()[xs.length >> 1] ?? 0;
const meanOf = (xs: Float64Array): number => xs.reduce((a, b) => a + b, 0) / Math.max(1, xs.length);
const quick = (at: Float64Array, took: Float64Array, usual: number): Float64Array =>
  at.filter((_, i) => doubleAt(took, i) <= SLOW * usual);

/** Where the swing before sample i passes the middle: the line through the samples that are steep there. */
function steepAt(v: Float32Array, middle: number, i: number, height: number): number {
  const above = floatAt(v, i) > middle;
  let k = i;
  while (k > 0 && floatAt(v, k - 1) > middle === above) k--;
  if (k === 0) return 0;
  const within = STRAIGHT * height;
  let [from, to] = [k - 1, k];
  while (from > 0 && Math.abs(floatAt(v, from - 1) - middle) < within && k - from < 200) from--;
  while (to + 1 < v.length && Math.abs(floatAt(v, to + 1) - middle) < within && to - k < 200) to++;
  // As many on either side: what rests near the middle before or behind a swing is none of its slope.
  const reach = Math.min(k - 1 - from, to - k);
  [from, to] = [k - 1 - reach, k + reach];
  const n = to - from + 1;
  let [sx, sy, sxx, sxy] = [0, 0, 0, 0];
  for (let j = from; j <= to; j++) {
    const [x, y] = [j - k, floatAt(v, j) - middle];
    sx += x;
    sy += y;
    sxx += x * x;
    sxy += x * y;
  }
  const slope = (n * sxy - sx * sy) / (n * sxx - sx * sx);
  const at = k + (sx - sy / slope) / n;
  return slope > 0 === above && Math.abs(at - k) <= reach + 1 ? at : k - 0.5;
}
