import * as fc from 'fast-check';
import { highest, judgeBand, judged, judgedAbove, lowest, surelyAbove, surelyBelow, uOfHalf } from './judge';
import { normalCdf, normalDensity, normalQuantile } from './normal';

const value = fc.double({ min: -1000, max: 1000, noNaN: true });
const u = fc.double({ min: 0, max: 200, noNaN: true });

describe('a measured value against a limit', () => {
  it('is what all of v − 2u, v and v + 2u say alike, or cannot be told', () => {
    const band = { from: 2, to: 5 };
    expect(judgeBand(3.5, 0.74, band)).toBe('within');
    expect(judgeBand(3.5, 0.76, band)).toBe('cannot_tell');
    expect(judgeBand(5.5, 0.24, band)).toBe('outside');
    expect(judgeBand(1.5, 0.26, band)).toBe('cannot_tell');
    // one edge of the uncertainty in the band, the other beyond it on the far side
    expect(judgeBand(4.5, 0.5, band)).toBe('cannot_tell');
    expect(judgeBand(2.5, 0.5, band)).toBe('cannot_tell');
    // out on both sides is not out: it may lie within
    expect(judgeBand(6, 3, band)).toBe('cannot_tell');
    // edges belong to the band; without an uncertainty the value speaks for itself
    for (const v of [2, 5]) expect(judgeBand(v, 0, band)).toBe('within');
    expect(judged(7, NaN, (v) => v > 5)).toBeTrue();
  });

  it('is surely above or below only where no v within 2u says otherwise', () => {
    fc.assert(
      fc.property(value, u, value, (v, s, limit) => {
        const m = { value: v, u: s };
        const ends = [v - 2 * s, v + 2 * s];
        expect([lowest(m), highest(m)]).toEqual(ends);
        expect(surelyAbove(m, limit)).toBe(ends.every((x) => x > limit));
        expect(surelyBelow(m, limit)).toBe(ends.every((x) => x < limit));
        const said = judgedAbove(m, limit, { above: 'a', below: 'b' });
        expect(said).toBe(
          ends.every((x) => x >= limit) ? 'a' : ends.every((x) => x < limit) ? 'b' : 'cannot_tell',
        );
      }),
    );
    expect(surelyAbove({ value: 60_001, u: 707 }, 60_000)).toBeFalse();
    expect(judgedAbove({ value: 3, u: 0 }, 3, { above: 'a', below: 'b' })).toBe('a');
    expect(uOfHalf(3)).toBe(1.5);
  });
});

describe('the normal distribution', () => {
  it('agrees with the published table (Abramowitz and Stegun 26.1), 1e-9, and with the sum of its density', () => {
    for (const [z, p] of [
      [0, 0.5],
      [0.5, 0.6914624612740131],
      [1, 0.8413447460685429],
      [1.959963984540054, 0.975],
      [3, 0.9986501019683699],
      [4.5, 0.9999966023268753],
      [-6, 9.865876450376981e-10],
    ] as const) {
      expect(Math.abs(normalCdf(z) - p))
        .withContext(String(z))
        .toBeLessThan(1e-9);
      expect(Math.abs(normalCdf(z) + normalCdf(-z) - 1)).toBeLessThan(1e-15);
    }
    // far in the tail the share is small, not the error: relative 1e-9
    expect(normalCdf(-6) / 9.865876450376981e-10).toBeCloseTo(1, 9);
    expect(normalCdf(-39)).toBe(0);
    let sum = 0;
    for (let z = -8; z < 1.3; z += 1e-3) sum += normalDensity(z + 5e-4) * 1e-3;
    expect(sum).toBeCloseTo(normalCdf(1.3), 6);
  });

  it('has a quantile that leads back', () => {
    for (const q of [1e-6, 0.025, 0.5, 0.9, 0.999]) expect(normalCdf(normalQuantile(q))).toBeCloseTo(q, 11);
    expect(normalQuantile(0.975)).toBeCloseTo(1.959963984540054, 10);
  });
});
