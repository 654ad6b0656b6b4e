import { floatAt } from '@core/quantity/must';

/** Edges of a signal, in samples from the first one, between samples where the level is crossed. */
export type Edges = {
  /** A square wave between two levels, or a swing about nought whose height grows with speed. */
  kind: 'square' | 'swing';
  rising: Float64Array;
  falling: Float64Array;
};
export type EdgeError = { code: 'constant' } | { code: 'no_edges'; edges: number };
export type EdgeReading = { ok: true; value: Edges } | { ok: false; error: EdgeError };

/** Samples that levels are read from. */
const LOOKED_AT = 100_000;
/** Share of the height that a signal has to go beyond the level before it counts as having crossed. */
const HYSTERESIS = 0.2;
/** A square wave is near one of its levels for this share of the time, a swing that is cut off at half its height is not; near is within this share of the height. */
const SQUARE_SHARE = 0.9;
const NEAR = 0.2;
/** A swing that is lower than this share of the last one is noise in a gap. */
const SWING = 0.3;
const LEAST_EDGES = 4;

/**
 * Finds the edges of a crank or cam signal. A square wave is crossed half-way between its levels with hysteresis; a swing at its middle, armed by a share of the height of the
 * last swing, so that it grows and shrinks with the speed. Crossings are interpolated between the two samples about them.
 */
export function findEdges(samples: Float32Array): EdgeReading {
  const { low, high, square } = levelsOf(samples);
  const height = high - low;
  if (!(height > 0) || !(height > 1e-6 * Math.max(Math.abs(low), Math.abs(high))))
    return { ok: false, error: { code: 'constant' } };
  const middle = (low + high) / 2;
  const edges = square
    ? crossings(samples, middle, HYSTERESIS * height)
    : swings(samples, middle, (SWING * height) / 8);
  const count = edges.rising.length + edges.falling.length;
  if (count < LEAST_EDGES) return { ok: false, error: { code: 'no_edges', edges: count } };
  return { ok: true, value: { kind: square ? 'square' : 'swing', ...edges } };
}

/** Levels without the odd spike: the hundredth parts at either end of an even choice of samples. */
function levelsOf(samples: Float32Array): { low: number; high: number; square: boolean } {
  const step = Math.max(1, Math.floor(samples.length / LOOKED_AT));
  const some = new Float32Array(Math.ceil(samples.length / step));
  for (let i = 0, k = 0; i < samples.length; i += step) some[k++] = floatAt(samples, i);
  some.sort();
  const at = (share: number) => some[Math.min(some.length - 1, Math.floor(share * some.length))] ?? 0;
  const [low, high] = [at(0.01), at(0.99)];
  const near = NEAR * (high - low);
  let atLevel = 0;
  for (const v of some) if (v < low + near || v > high - near) atLevel++;
  return { low, high, square: atLevel > SQUARE_SHARE * some.length };
}

/** Grows as it fills. */
class Filled {
  private data = new Float64Array(1024);
  private n = 0;
  add(v: number): void {
    if (this.n === this.data.length) {
      const more = new Float64Array(2 * this.n);
      more.set(this.data);
      this.data = more;
    }
    this.data[this.n++] = v;
  }
  get all(): Float64Array {
    return this.data.slice(0, this.n);
  }
}

function crossings(v: Float32Array, level: number, beyond: number): Pick<Edges, 'rising' | 'falling'> {
  const [rising, falling] = [new Filled(), new Filled()];
  const [up, down] = [level + beyond, level - beyond];
  const n = v.length;
  let i = 0;
  while (i < n && floatAt(v, i) > down && floatAt(v, i) < up) i++;
  let high = i < n && floatAt(v, i) >= up;
  while (i < n) {
    if (high) {
      while (i < n && floatAt(v, i) > down) i++;
      if (i < n) falling.add(crossedBefore(v, i, level));
    } else {
      while (i < n && floatAt(v, i) < up) i++;
      if (i < n) rising.add(crossedBefore(v, i, level));
    }
    high = !high;
  }
  return { rising: rising.all, falling: falling.all };
}

/** Where the level was last crossed before sample i, between two samples. */
function crossedBefore(v: Float32Array, i: number, level: number): number {
  const above = floatAt(v, i) > level;
  let k = i;
  while (k > 0 && floatAt(v, k - 1) > level === above) k--;
  if (k === 0) return 0;
  const [a, b] = [floatAt(v, k - 1), floatAt(v, k)];
  return a === b ? k : k - 1 + (level - a) / (b - a);
}

/** Crossings of the middle by a swing: the side before has to be as high as a share of the swing before it. @param least height below which all is noise */
function swings(v: Float32Array, middle: number, least: number): Pick<Edges, 'rising' | 'falling'> {
  const [rising, falling] = [new Filled(), new Filled()];
  let [side, peak] = [0, 0];
  for (let i = 0; i < v.length; i++) {
    const x = floatAt(v, i) - middle;
    const here = x > 0 ? 1 : -1;
    const size = x * here;
    if (here === side) {
      if (size > peak) peak = size;
      continue;
    }
    // The other side counts once it is high enough; until then it is noise about the middle.
    if (size < Math.max(least, SWING * peak)) continue;
    if (side !== 0 && peak > least) (here > 0 ? rising : falling).add(crossedBefore(v, i, middle));
    [side, peak] = [here, size];
  }
  return { rising: rising.all, falling: falling.all };
}
