import fc from 'fast-check';
import { crossings, extremum, sample, zeroBetween } from './roots';

const seed = fc.readConfigureGlobal()?.seed ?? 11;
const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('roots of a sampled function', () => {
  it('are both found on a sine of any phase, as in closed form, to 1e-9', () => {
    fc.assert(
      fc.property(num(0, 6.28), num(-0.99, 0.99), (phase, level) => {
        const f = (t: number) => Math.sin(t + phase);
        const at = sample(f, 0, 2 * Math.PI, 90);
        const found = crossings(f, level, at, [extremum(f, at, 1), extremum(f, at, -1)]);
        // a root at the very beginning is found at the end as well: whoever goes round knows that they are one
        const apart = found.filter((t) => Math.abs(t - found[0]! - 2 * Math.PI) > 1e-9);
        expect(apart.length).toBe(2);
        for (const t of found) expect(Math.abs(f(t) - level)).toBeLessThan(1e-9);
      }),
      { seed },
    );
  });

  it('are found in a sweep that runs backwards, in its order', () => {
    const f = (t: number) => (t - 1) * (t + 2);
    const at = sample(f, 3, -6, 40);
    expect(crossings(f, 0, at, []).map((t) => Number(t.toFixed(9)))).toEqual([1, -2]);
  });

  it('do not take a jump for a crossing, and a touch at the top for what it is', () => {
    const step = (t: number) => (t < 1.003 ? -1 : 1);
    expect(crossings(step, 0, sample(step, 0, 2, 50), [])).toEqual([]);
    const hill = (t: number) => 1 - (t - 0.51) ** 2;
    const at = sample(hill, 0, 1, 10);
    const top = extremum(hill, at, 1);
    expect(top.t).toBeCloseTo(0.51, 6);
    expect(top.v).toBeCloseTo(1, 12);
    expect(crossings(hill, 1 - 1e-8, at, [top]).length).toBe(2);
  });

  it('leave gaps alone in which the function is not defined', () => {
    const f = (t: number) => (t > 0.4 && t < 0.6 ? NaN : t - 0.8);
    const at = sample(f, 0, 1, 20);
    expect(crossings(f, 0, at, []).map((t) => t.toFixed(9))).toEqual(['0.800000000']);
    expect(extremum(f, at, 1).v).toBeCloseTo(0.2, 12);
    expect(
      extremum(
        () => NaN,
        sample(() => NaN, 0, 1, 4),
        1,
      ).v,
    ).toBeNaN();
  });

  it('of a cubic agree with its closed form', () => {
    const f = (x: number) => x ** 3 - 2;
    expect(zeroBetween(f, 0, f(0), 2, f(2))).toBeCloseTo(Math.cbrt(2), 11);
  });
});
