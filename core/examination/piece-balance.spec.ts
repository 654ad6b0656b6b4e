import { balanceOf } from './piece-balance';

/** A generator of the tests' own. */
function lcg(seed: number): () => number {
  let s = seed;
  return () => (s = (s * 1103515245 + 12345) % 2147483648) / 2147483648;
}
const random = lcg(3);
const normal = (): number => Math.sqrt(-2 * Math.log(random() + 1e-12)) * Math.cos(2 * Math.PI * random());

/** New one, its tolerance, pieces, spread of one reading, bias on each, least piece that matters, share that all are off by. */
const CASES: readonly [number, number, number[], number, number, number, number?][] = [
  [80, 0.8, [80], 0.1, 0.05, 0.5],
  [80, 0.1, [79.9], 0.02, 0.01, 0.5],
  [80, 0.1, [50.2, 22.1], 0.02, 0.01, 0.5],
  [80, 0.8, [60, 12], 0.1, 0.05, 0.5],
  [80, 0.8, [40, 20, 10, 5, 4], 0.1, 0.05, 0.5],
  [142, 1.5, [142.4], 0.1, 0.05, 0.5],
  [142, 0.3, [100, 41], 0.1, 0.05, 0.5],
  [142, 0.3, [100, 20, 10, 5, 3], 0.1, 0.2, 0.5],
  [30, 0.05, [29.2], 0.02, 0.01, 0.5],
  [30, 0.05, [29.9], 0.02, 0.01, 0.5],
  [30, 0.05, [10, 10, 9.7], 0.02, 0.05, 0.5],
  [210, 2, [190], 0.5, 0.1, 1],
  [210, 2, [207], 0.5, 0.1, 1],
  // outlines, mm²
  [2400, 30, [1500, 880], 12, 0, 40, 0.004],
  [2400, 10, [1500, 700], 12, 0, 40, 0.004],
  [2400, 4, [2395], 4, 0, 40, 0.002],
];

describe('pieces', () => {
  CASES.forEach(([fresh, tolerance, pieces, repeat, bias, least, share = 0], i) =>
    it(`agrees with a sum of random weighings, case ${i + 1}`, () => {
      const b = balanceOf(
        { value: fresh, u: tolerance },
        pieces.map((value) => ({ value, u: repeat })),
        { bias, share },
        least,
      );
      // second method: what may be missing, drawn ten thousand times; one bias for all pieces of a drawing
      const drawn = Array.from({ length: 10_000 }, () => {
        const [all, scale] = [bias * normal(), 1 + share * normal()];
        return (
          fresh + tolerance * normal() - pieces.reduce((s, p) => s + p * scale + repeat * normal() + all, 0)
        );
      });
      const mean = drawn.reduce((s, x) => s + x, 0) / drawn.length;
      const sd = Math.sqrt(drawn.reduce((s, x) => s + (x - mean) ** 2, 0) / drawn.length);
      expect(Math.abs(b.missing - mean)).toBeLessThan(5 * (sd / 100));
      expect(Math.abs(b.u / sd - 1)).toBeLessThan(0.05);
      const sorted = drawn.sort((x, y) => x - y);
      const [low, high] = [sorted[228]!, sorted[9772]!];
      const edge = Math.min(Math.abs(low - least), Math.abs(high - least)) < 0.05 * sd;
      const want = low >= least ? 'missing' : high < least ? 'complete' : 'cannot_tell';
      if (!edge) expect(b.verdict).toBe(want);
    }),
  );

  it('grows its doubt with every further piece by what the scale has on all alike', () => {
    const of = (n: number) =>
      balanceOf(
        { value: 100, u: 0 },
        Array.from({ length: n }, () => ({ value: 1, u: 0 })),
        { bias: 0.1, share: 0 },
        0.5,
      ).u;
    expect([1, 2, 10].map(of).map((u) => Math.round(u * 1e9) / 1e9)).toEqual([0.1, 0.2, 1]);
  });
});
