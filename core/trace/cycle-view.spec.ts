import { turnedOn, VIEW_STEP } from './cycle-view';

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
