import { floatAt } from '@core/quantity/must';

/** Least and most of each block of a channel's samples, so that any stretch of it can be drawn at once. */
export type Overview = { samples: Float32Array; low: Float32Array; high: Float32Array };

/** Samples of a block. */
const BLOCK = 256;

export function overviewOf(samples: Float32Array): Overview {
  const n = Math.ceil(samples.length / BLOCK);
  const [low, high] = [new Float32Array(n), new Float32Array(n)];
  for (let b = 0; b < n; b++) {
    let [least, most] = [Infinity, -Infinity];
    const to = Math.min(samples.length, (b + 1) * BLOCK);
    for (let i = b * BLOCK; i < to; i++) {
      const v = floatAt(samples, i);
      if (v < least) least = v;
      if (v > most) most = v;
    }
    low[b] = least;
    high[b] = most;
  }
  return { samples, low, high };
}

/**
 * A stretch of a channel in so many columns, least and most of each in turn, so that no edge and no spike is lost however much falls into a column.
 * @param from first sample, @param to the one behind the last
 */
export function stretchOf(
  { samples, low, high }: Overview,
  from: number,
  to: number,
  columns: number,
): Float32Array {
  const out = new Float32Array(2 * columns).fill(Number.NaN);
  const wide = (to - from) / columns;
  for (let c = 0; c < columns; c++) {
    const begin = Math.max(0, Math.floor(from + c * wide));
    // A column is a sample at least: zoomed in further than samples are, each stands where it was.
    const end = Math.min(samples.length, Math.max(begin + 1, Math.floor(from + (c + 1) * wide)));
    let [least, most] = [Infinity, -Infinity];
    const take = (a: number, b: number) => {
      if (a < least) least = a;
      if (b > most) most = b;
    };
    for (let i = begin; i < end; ) {
      if (i % BLOCK === 0 && i + BLOCK <= end) {
        take(floatAt(low, i / BLOCK), floatAt(high, i / BLOCK));
        i += BLOCK;
      } else {
        take(floatAt(samples, i), floatAt(samples, i));
        i++;
      }
    }
    if (begin < end) out.set([least, most], 2 * c);
  }
  return out;
}
