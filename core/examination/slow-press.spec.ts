import * as fc from 'fast-check';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { pressAt, pressPlan } from './slow-press';

describe('a slow press', () => {
  it('has a screw turn its pitch for every turn, at the house’s turns a minute', () => {
    const plan = pressPlan(12, { press: { turnsPerMin: 2, pitchMm: 1.5, waitS: 90 } });
    expect(plan).toEqual({ strokeMm: 12, turns: 8, pressS: 240, waitS: 90 });
    expect(pressAt(plan, 0)).toEqual({ phase: 'press', turn: 1, inMm: 0, leftS: 240 });
    expect(pressAt(plan, 105)).toEqual({ phase: 'press', turn: 4, inMm: 5.25, leftS: 135 });
    expect(pressAt(plan, 240)).toEqual({ phase: 'wait', leftS: 90 });
    expect(pressAt(plan, 330)).toEqual({ phase: 'look' });
  });

  it('goes one way: in, then waiting, then looking, and never deeper than the stroke', () => {
    const order = ['press', 'wait', 'look'];
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 80, noNaN: true }),
        fc.nat(4000),
        fc.nat(600),
        (stroke, s, more) => {
          const plan = pressPlan(stroke, SHIPPED_POLICY);
          const [a, b] = [pressAt(plan, s), pressAt(plan, s + more)];
          expect(order.indexOf(b.phase)).toBeGreaterThanOrEqual(order.indexOf(a.phase));
          if (a.phase !== 'press') return;
          expect(a.inMm).toBeLessThanOrEqual(stroke);
          // the screw has come as far as its whole turns, and no further than the one it is in
          expect(a.inMm).toBeGreaterThanOrEqual((a.turn - 1) * SHIPPED_POLICY.press.pitchMm - 1e-9);
          expect(a.inMm).toBeLessThanOrEqual(a.turn * SHIPPED_POLICY.press.pitchMm + 1e-9);
          if (b.phase === 'press') expect(b.inMm).toBeGreaterThanOrEqual(a.inMm);
        },
      ),
    );
  });
});
