import { type Result, err, ok } from '@core/quantity/result';
import type { Eccentric, Point } from './carrier';

/** Marks of an eccentric tensioner's scale, degrees from its start mark, in the order in which the pointer meets them. */
export type EccentricMarks = {
  turn: 'cw' | 'ccw';
  from: number;
  nominal: number;
  to: number;
  end: number;
  manual?: boolean;
};
export type EccentricFault = { code: 'not_eccentric' } | { code: 'marks_out_of_order' };

/** Less than this between pivot and centre is nothing that tensions, mm. */
const LEAST_ARM_MM = 0.1;

/**
 * The eccentric on which a wheel sits that stands at its nominal mark where it was measured: arm and start angle follow from the pivot.
 * @param centre of the wheel; @param pivot about which it is turned; mm
 */
export function onEccentric(
  centre: Point,
  pivot: Point,
  m: EccentricMarks,
): Result<Eccentric, EccentricFault> {
  const [dx, dy] = [centre.x - pivot.x, centre.y - pivot.y];
  const arm = Math.hypot(dx, dy);
  if (!(arm > LEAST_ARM_MM)) return err({ code: 'not_eccentric' });
  if (!(m.from <= m.nominal && m.nominal <= m.to && m.to <= m.end))
    return err({ code: 'marks_out_of_order' });
  const at = (Math.atan2(dy, dx) * 180) / Math.PI;
  return ok({
    kind: 'eccentric',
    pivot,
    arm,
    startDeg: at - (m.turn === 'ccw' ? 1 : -1) * m.nominal,
    turn: m.turn,
    keyTurn: m.turn,
    window: { from: m.from, nominal: m.nominal, to: m.to },
    endDeg: m.end,
    ...(m.manual ? { manual: true } : {}),
  });
}
