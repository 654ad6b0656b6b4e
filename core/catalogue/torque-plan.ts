import { nth } from '@core/quantity/must';
import { readNumber } from '@core/quantity/parse-quantity';
import { type Result, err, ok } from '@core/quantity/result';
import { findUnit, toBase } from '@core/quantity/units';

/** A torque as it was printed. `half`: half a unit of its last printed place, in its own unit. */
export type Printed = { value: number; unit: string; nm: number; half: number };
/** One stage of tightening: to a torque, on by an angle, or back by one. Angles in degrees, torques in N·m. */
export type TorqueStage =
  | { kind: 'torque'; nm: number; printed: Printed; also?: Printed }
  | { kind: 'angle'; deg: number }
  | { kind: 'back'; deg: number };
export type TorqueError =
  | { code: 'torque_unreadable'; typed: string }
  | { code: 'torque_no_unit'; typed: string }
  | { code: 'torque_pair'; typed: string; pair: TorquePair };

/** Ratio within which two printed torques are one, where rounding of the last place does not explain it already. */
const PAIR_RATIO = 0.015;

/** Two printed torques held against each other: each converted into the other's unit. */
export type TorquePair = {
  first: Printed;
  second: Printed;
  /** The first in the unit of the second, and the other way round. */
  firstInSecond: number;
  secondInFirst: number;
  agree: boolean;
  /** How far the second lies off the first, as a ratio. */
  off: number;
  /** Which one governs: the one in N·m, since tables are made in it; the first where neither or both are. */
  governs: 'first' | 'second';
};

/**
 * Holds a printed pair against itself: consistent when either converts into the other within half a unit of the last
 * printed place, or within 1.5 %. Factors: NIST SP 811.
 */
export function judgePair(first: Printed, second: Printed): TorquePair {
  const factor = (p: Printed) => p.nm / p.value;
  const firstInSecond = first.nm / factor(second);
  const secondInFirst = second.nm / factor(first);
  const off = second.nm / first.nm - 1;
  const agree =
    Math.abs(firstInSecond - second.value) <= second.half * (1 + 1e-9) ||
    Math.abs(secondInFirst - first.value) <= first.half * (1 + 1e-9) ||
    Math.abs(off) <= PAIR_RATIO;
  const governs = second.unit === 'N·m' && first.unit !== 'N·m' ? 'second' : 'first';
  return { first, second, firstInSecond, secondInFirst, agree, off, governs };
}

/** A torque with its unit: "31 lbf·ft", "42,5 Nm". */
export function readTorque(typed: string): Result<Printed, TorqueError> {
  const m = /^\s*(\d+(?:[.,]\d+)?)\s*(\D.*?)?\s*$/.exec(typed);
  const value = m && readNumber(nth(m, 1));
  if (!m || value === undefined || value === null || !(value > 0))
    return err({ code: 'torque_unreadable', typed });
  if (!m[2]) return err({ code: 'torque_no_unit', typed });
  const unit = findUnit('torque', m[2]);
  if (unit === undefined) return err({ code: 'torque_no_unit', typed });
  const places = /[.,](\d+)/.exec(nth(m, 1))?.[1]?.length ?? 0;
  return ok({ value, unit, nm: toBase('torque', value, unit), half: 0.5 * 10 ** -places });
}

/** One stage as catalogues write it: "42 N·m", "42 N·m / 31 lbf·ft", "+90°", "back 360°". */
export function readStage(typed: string): Result<TorqueStage, TorqueError> {
  const turn = /^\s*(\+|back)\s*(\d+(?:[.,]\d+)?)\s*°\s*$/i.exec(typed);
  if (turn) {
    const deg = readNumber(nth(turn, 2)) ?? 0;
    if (deg <= 0 || deg > 720) return err({ code: 'torque_unreadable', typed });
    return ok({ kind: turn[1] === '+' ? 'angle' : 'back', deg });
  }
  const [a = '', b, ...more] = typed.split('/');
  if (more.length > 0) return err({ code: 'torque_unreadable', typed });
  const first = readTorque(a);
  if (!first.ok) return first.error.code === 'torque_no_unit' ? err({ ...first.error, typed }) : first;
  if (b === undefined) return ok({ kind: 'torque', nm: first.value.nm, printed: first.value });
  const second = readTorque(b);
  if (!second.ok) return second;
  const pair = judgePair(first.value, second.value);
  if (!pair.agree) return err({ code: 'torque_pair', typed, pair });
  const nm = pair.governs === 'first' ? first.value.nm : second.value.nm;
  return ok({ kind: 'torque', nm, printed: first.value, also: second.value });
}

/** All stages of a plan, or the first that cannot be read. */
export function readPlan(stages: readonly string[]): Result<TorqueStage[], TorqueError> {
  const out: TorqueStage[] = [];
  for (const text of stages) {
    const stage = readStage(text);
    if (!stage.ok) return stage;
    out.push(stage.value);
  }
  return ok(out);
}

/** The torque that a wrench is set to last, N·m: before any angle, after any turning back. */
export const lastTorque = (stages: readonly TorqueStage[]): number | undefined =>
  stages.findLast((s) => s.kind === 'torque')?.nm;
