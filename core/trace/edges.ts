import { floatAt } from '@core/quantity/must';
import { Filled } from './filled';
import { type Swings, swingsOf } from './swings';

/** Edges of a signal, in samples from the first one, between samples where the level is crossed: of a square wave between two levels, or of a swing about nought whose height grows with speed. */
export type Edges = Swings & { kind: 'square' | 'swing' };
export type EdgeError = { code: 'constant' } | { code: 'no_edges'; edges: number };
export type EdgeReading = { ok: true; value: Edges } | { ok: false; error: EdgeError };

/** Samples that levels are read from. */
const LOOKED_AT = 25_000;
/** Share of the height that a signal has to go beyond the level before it counts as having crossed. */
const HYSTERESIS = 0.2;
/** A square wave is near one of its levels for this share of the time, a swing that is cut off at half its height is not; near is within this share of the height. */
const SQUARE_SHARE = 0.9;
const NEAR = 0.2;
const LEAST_EDGES = 2;
/** Of a swing the highest and lowest of so many samples are left out, as spikes; what is lower than this share of the rest is noise, and so is what noise alone reaches. */
const SPIKES = 2000;
const LEAST_SWING = 0.12;
const NOISE = 5;
/** Noise that is lower than this share of the swings shows that a signal rests between them. */
const RESTS = 0.2;

/**
 * Finds the edges of a crank or cam signal. A square wave is crossed half-way between its levels with hysteresis; a swing at its middle, armed by a share of the height of the
 * last swing, so that it grows and shrinks with the speed. Crossings are interpolated between the samples about them.
 */
export function findEdges(samples: Float32Array): EdgeReading {
  const { low, high, extreme, square, rest, least } = levelsOf(samples);
  const height = square ? high - low : 2 * extreme;
  if (!(height > 0) || !(height > 1e-6 * Math.max(Math.abs(low), Math.abs(high))))
    return { ok: false, error: { code: 'constant' } };
  const edges: Edges = square
    ? { kind: 'square', ...crossings(samples, (low + high) / 2, HYSTERESIS * height) }
    : { kind: 'swing', ...swingsOf(samples, rest, least) };
  const count = edges.rising.length + edges.falling.length;
  if (count < LEAST_EDGES) return { ok: false, error: { code: 'no_edges', edges: count } };
  return { ok: true, value: edges };
}

/** Levels of a signal from an even choice of its samples: of a square wave without the odd spike, of a swing where it rests and what is more than noise there. */
function levelsOf(samples: Float32Array) {
  const step = Math.max(1, Math.floor(samples.length / LOOKED_AT));
  const some = new Float32Array(Math.ceil(samples.length / step));
  for (let i = 0, k = 0; i < samples.length; i += step) some[k++] = floatAt(samples, i);
  some.sort();
  const at = (share: number) =>
    some[Math.max(0, Math.min(some.length - 1, Math.floor(share * some.length)))] ?? 0;
  const [low, high] = [at(0.01), at(0.99)];
  const near = NEAR * (high - low);
  let atLevel = 0;
  for (const v of some) if (v < low + near || v > high - near) atLevel++;
  const rest = at(0.5);
  const extreme = (at(1 - 1 / SPIKES) - at(1 / SPIKES)) / 2;
  // Half of the samples hold the rest of a signal of single swings, and the steep part of one that swings all the time.
  const noise = (at(0.75) - at(0.25)) / 1.35;
  const rests = noise < RESTS * extreme;
  return {
    low,
    high,
    extreme,
    square: atLevel > SQUARE_SHARE * some.length,
    rest,
    least: Math.max(LEAST_SWING * extreme, rests ? Math.min(NOISE * noise, 2 * RESTS * extreme) : 0),
  };
}

/** Once so many edges were seen, samples are passed over by a part of the shortest rest among them: an engine does not turn so many times as fast at once. */
const LEAPS = { after: 200, part: 5, most: 64 };

function crossings(v: Float32Array, level: number, beyond: number): Pick<Edges, 'rising' | 'falling'> {
  const [rising, falling] = [new Filled(), new Filled()];
  const [up, down] = [level + beyond, level - beyond];
  const n = v.length;
  let i = 0;
  while (i < n && floatAt(v, i) > down && floatAt(v, i) < up) i++;
  let high = i < n && floatAt(v, i) >= up;
  let [leap, shortest, last, found] = [1, Infinity, i, 0];
  while (i < n) {
    const from = i;
    // Leaps as long as the signal rests, then back to the sample after the last that did.
    if (high) {
      while (i < n && floatAt(v, i) > down) i += leap;
      for (i = Math.max(from, Math.min(i, n) - leap + 1); i < n && floatAt(v, i) > down; ) i++;
      if (i < n) falling.add(crossedBefore(v, i, level));
    } else {
      while (i < n && floatAt(v, i) < up) i += leap;
      for (i = Math.max(from, Math.min(i, n) - leap + 1); i < n && floatAt(v, i) < up; ) i++;
      if (i < n) rising.add(crossedBefore(v, i, level));
    }
    high = !high;
    if (found < LEAPS.after && ++found > 1) shortest = Math.min(shortest, i - last);
    if (found === LEAPS.after) leap = Math.max(1, Math.min(LEAPS.most, Math.floor(shortest / LEAPS.part)));
    last = i;
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
