import fc from 'fast-check';
import { crossings, extreme, profile, zeroBetween } from './roots';

const seed = fc.readConfigureGlobal()?.seed ?? 11;
const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('roots of a sampled function', () => {
  it('are both found on a sine of any phase, also where they nearly touch, as in closed form, to 1e-9', () => {
    fc.assert(
      fc.property(num(0, 6.28), fc.oneof(num(-0.99, 0.99), num(0.999999, 0.99999999)), (phase, level) => {
        const f = (t: number) => Math.sin(t + phase);
        const found = crossings(f, level, profile(f, { from: 0, to: 2 * Math.PI }, 90, true));
        // a root at the very beginning is found at the end as well: whoever goes round knows that they are one
        const apart = found.filter((t) => Math.abs(t - found[0]! - 2 * Math.PI) > 1e-9);
        expect(apart.length).toBe(2);
        for (const t of found) expect(Math.abs(f(t) - level)).toBeLessThan(1e-9);
      }),
      { seed },
    );
  });

  it('have the top also where it lies over the seam of a turn, to 1e-14', () => {
    for (const phase of [0, 1e-3, -1e-3, 0.0349, -0.03]) {
      const f = (t: number) => Math.cos(t + phase);
      const points = profile(f, { from: 0, to: 2 * Math.PI }, 90, true);
      expect(extreme(points, 1)!.v).toBeCloseTo(1, 14);
      expect(points.every((p, i) => i === 0 || p.t > points[i - 1]!.t)).toBeTrue();
    }
  });

  it('do not take a jump for a crossing, and find a touch at the top once', () => {
    const step = (t: number) => (t < 1.003 ? -1 : 1);
    expect(crossings(step, 0, profile(step, { from: 0, to: 2 }, 50))).toEqual([]);
    const hill = (t: number) => 1 - (t - 0.51) ** 2;
    const points = profile(hill, { from: 0, to: 1 }, 10);
    expect(extreme(points, 1)!.v).toBeCloseTo(1, 12);
    expect(crossings(hill, 1 - 1e-8, points).length).toBe(2);
    expect(crossings(hill, 1, points).length).toBe(1);
    expect(crossings(hill, 1 + 1e-6, points).length).toBe(0);
  });

  it('are found hard by the end of where the function is defined, and not across a gap', () => {
    const f = (t: number) => (t > 0.4 && t < 0.6 ? NaN : t - 0.8);
    expect(crossings(f, 0, profile(f, { from: 0, to: 1 }, 20)).map((t) => t.toFixed(9))).toEqual([
      '0.800000000',
    ]);
    // √ ends at 0.4321 and passes 1e-5 a ten-thousand-millionth beside it
    const root = (t: number) => Math.sqrt(t - 0.4321);
    const [t] = crossings(root, 1e-5, profile(root, { from: 0, to: 1 }, 20));
    expect(t! - 0.4321).toBeCloseTo(1e-10, 12);
    const across = (t: number) => (t < 0.3 ? -1 : t > 0.7 ? 1 : NaN);
    expect(crossings(across, 0, profile(across, { from: 0, to: 1 }, 20))).toEqual([]);
    expect(profile(() => NaN, { from: 0, to: 1 }, 4)).toEqual([]);
  });

  it('of a cubic agree with its closed form', () => {
    const f = (x: number) => x ** 3 - 2;
    expect(zeroBetween(f, 0, f(0), 2, f(2))).toBeCloseTo(Math.cbrt(2), 11);
  });
});
