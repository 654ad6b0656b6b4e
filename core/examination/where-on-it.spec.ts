import { Matrix, solve } from 'ml-matrix';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { normalFrom, randomFrom } from '@core/quantity/random';
import { alongOf, sideOf } from './where-on-it';

describe('damaged teeth of a wheel', () => {
  it('are as likely on one side by chance as teeth drawn at random say, within 0.025, and 0.01 where it is rare', () => {
    const random = randomFrom(17);
    const length = (teeth: readonly number[], count: number) =>
      Math.hypot(
        ...[Math.cos, Math.sin].map((f) => teeth.reduce((s, t) => s + f((2 * Math.PI * t) / count), 0)),
      );
    for (const n of [4, 6, 10]) {
      const count = 400;
      const draw = () => Array.from({ length: n }, () => 1 + Math.floor(random() * count));
      const drawn = Array.from({ length: 8000 }, () => length(draw(), count));
      for (let k = 0; k < 6; k++) {
        const teeth = [...new Set(draw())];
        if (teeth.length < n) continue;
        const a = sideOf(teeth, count, SHIPPED_POLICY);
        if (a.verdict === 'too_few') return fail('too few');
        const share = drawn.filter((r) => r >= length(teeth, count)).length / drawn.length;
        expect(Math.abs(a.p - share)).toBeLessThan(share < 0.1 ? 0.01 : 0.025);
      }
    }
  });

  it('are named by the tooth in their middle, over the first one too; spread evenly they name none', () => {
    expect(sideOf([41, 42, 1, 2, 3], 42, SHIPPED_POLICY)).toEqual(
      jasmine.objectContaining({ verdict: 'one_side', tooth: 1, marks: 5 }),
    );
    expect(sideOf([10, 12, 11, 9, 13], 42, SHIPPED_POLICY)).toEqual(
      jasmine.objectContaining({ verdict: 'one_side', tooth: 11 }),
    );
    expect(sideOf([1, 11, 21, 31], 40, SHIPPED_POLICY)).toEqual({ verdict: 'around', marks: 4, p: 1 });
    expect(sideOf([1, 2, 2, 60], 42, SHIPPED_POLICY)).toEqual({ verdict: 'too_few', marks: 2, least: 4 });
  });
});

describe('depth along a guide', () => {
  it('has the slope of a weighted least squares line solved otherwise, within 1e-9', () => {
    const random = randomFrom(23);
    for (let k = 0; k < 40; k++) {
      const readings = Array.from({ length: 3 + (k % 6) }, (_, i) => ({
        at: 10 + 25 * i + 5 * random(),
        value: 0.2 + random(),
        u: 0.02 + 0.05 * random(),
      }));
      const a = alongOf(readings, 0.05);
      if (a.verdict === 'too_few') return fail('too few');
      const rows = new Matrix(readings.map((r) => [1 / r.u, r.at / r.u]));
      const line = solve(rows, Matrix.columnVector(readings.map((r) => r.value / r.u)));
      expect(Math.abs(a.per100 / 100 - line.get(1, 0))).toBeLessThan(1e-9);
    }
  });

  it('covers the true slope in 93 to 99 of 100, and takes a side only when the readings do', () => {
    const random = randomFrom(29);
    let [inside, wrong] = [0, 0];
    const N = 1500;
    for (let k = 0; k < N; k++) {
      const slope = (k % 3) - 1;
      const readings = [10, 40, 70, 100, 130].map((at) => ({
        at,
        value: 1.5 + (slope * at) / 100 + 0.1 * normalFrom(random),
        u: 0.1,
      }));
      const a = alongOf(readings, 0.3);
      if (a.verdict === 'too_few') return fail('too few');
      if (a.low <= slope && slope <= a.high) inside++;
      if ((a.verdict === 'to_end' && slope <= 0) || (a.verdict === 'to_pivot' && slope >= 0)) wrong++;
    }
    expect(inside / N).toBeGreaterThan(0.93);
    expect(inside / N).toBeLessThan(0.995);
    expect(wrong / N).toBeLessThan(0.05);
  });

  it('is even only when it surely is, and asks for more stations where two are all', () => {
    const read = (u: number, ...values: number[]) => values.map((value, i) => ({ at: 40 * i, value, u }));
    expect(alongOf(read(0.01, 0.5, 0.51, 0.5, 0.5), 0.1).verdict).toBe('even');
    expect(alongOf(read(0.2, 0.5, 0.51, 0.5, 0.5), 0.1).verdict).toBe('cannot_tell');
    expect(alongOf(read(0.02, 0.2, 0.5, 0.8), 0.1).verdict).toBe('to_end');
    expect(alongOf(read(0.02, 0.8, 0.5, 0.2), 0.1).verdict).toBe('to_pivot');
    expect(alongOf(read(0.02, 0.8, 0.5), 0.1)).toEqual({ verdict: 'too_few', readings: 2, least: 3 });
  });
});
