import { CYCLE } from './cycle';
import { gapsOver, squareWave, teethOver, turnedOn, VIEW_STEP } from './cycle-view';
import { readWheel, USUAL_WHEELS } from './wheel';

describe('a cycle turned on', () => {
  const steps = 720 / VIEW_STEP;
  const cycle = Float32Array.from({ length: 2 * steps }, (_, k) => k);

  it('shows at a degree what stood so far before it, pairs together, and comes back after a whole cycle', () => {
    const by = turnedOn(cycle, 90);
    const at = (deg: number) => [by[(2 * deg) / VIEW_STEP], by[(2 * deg) / VIEW_STEP + 1]];
    expect(at(90)).toEqual([0, 1]);
    expect(at(0)).toEqual([(2 * 630) / VIEW_STEP, (2 * 630) / VIEW_STEP + 1]);
    expect(turnedOn(cycle, 720)).toEqual(cycle);
    expect(turnedOn(turnedOn(cycle, 360), -360)).toEqual(cycle);
  });
});

describe('what a wheel and edges look like over a cycle', () => {
  it('has every tooth of both turns, numbered anew in each, and gaps that fill what the teeth leave', () => {
    for (const notation of [...USUAL_WHEELS, '001111011110']) {
      const wheel = readWheel(notation);
      if (!wheel.ok) return fail(notation);
      const { teeth } = wheel.value;
      const there = teeth.filter(Boolean).length;
      const [marks, gaps] = [teethOver(teeth), gapsOver(teeth)];
      expect(marks.map((m) => m.n)).toEqual([...Array(2 * there).keys()].map((i) => (i % there) + 1));
      const pitch = 360 / teeth.length;
      const wide = gaps.reduce((s, g) => s + g.to - g.from, 0);
      expect(wide)
        .withContext(notation)
        .toBeCloseTo(2 * pitch * (teeth.length - there), 9);
      for (const g of gaps)
        for (const m of marks)
          for (const at of [m.at, m.at + CYCLE])
            expect(at > g.from && at < g.to)
              .withContext(`${notation} ${at}`)
              .toBeFalse();
    }
  });

  it('is high from each rising edge to the next falling one, over the end of the cycle too', () => {
    const edges = [
      { deg: 600, rising: true },
      { deg: 100, rising: false },
      { deg: 300, rising: true },
      { deg: 400, rising: false },
    ].map((e) => ({ ...e, sd: 0, cycles: 1 }));
    const wave = squareWave({ edges }, 0, 5);
    const at = (deg: number) => wave[(2 * deg) / VIEW_STEP];
    expect([0, 99, 101, 299, 301, 399, 401, 599, 601, 719].map(at)).toEqual([5, 5, 0, 0, 5, 5, 0, 0, 5, 5]);
    expect(wave.length).toBe((2 * CYCLE) / VIEW_STEP);
  });
});
