import { randomFrom } from '@core/quantity/random';
import { overviewOf, stretchOf } from './overview';

describe('a recording drawn in columns', () => {
  it('has in each column the least and most of its samples, by a second walk over them, wherever it begins and ends', () => {
    const random = randomFrom(4);
    const samples = Float32Array.from({ length: 20_000 }, () => random() - 0.5);
    samples[7777] = 40;
    const overview = overviewOf(samples);
    for (const [from, to, columns] of [
      [0, 20_000, 50],
      [0, 20_000, 7],
      [513, 9_021, 31],
      [7_700, 7_800, 100],
      [7_770, 7_780, 40],
      [19_990, 20_010, 20],
    ] as const) {
      const got = stretchOf(overview, from, to, columns);
      for (let c = 0; c < columns; c++) {
        const begin = Math.floor(from + (c * (to - from)) / columns);
        const end = Math.max(begin + 1, Math.floor(from + ((c + 1) * (to - from)) / columns));
        const mine = samples.subarray(begin, end);
        const expected = mine.length === 0 ? [NaN, NaN] : [Math.min(...mine), Math.max(...mine)];
        expect([got[2 * c], got[2 * c + 1]])
          .withContext(`${from} to ${to}, column ${c}`)
          .toEqual(expected);
      }
      if (from <= 7777 && to > 7777) expect(Math.max(...got.filter(Number.isFinite))).toBe(40);
    }
  });
});
