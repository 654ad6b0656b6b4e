import { nth } from '@core/quantity/must';
import { judged, surelyAbove } from '@core/quantity/judge';
import type { CamPhase } from './phase';

type Sense = 'advanced' | 'retarded';
export type OffsetVerdict =
  | { verdict: 'as_predicted'; offTeeth: number }
  | { verdict: 'teeth_out'; offTeeth: number; teeth: number; sense: Sense }
  /** Whole teeth, and what is left over, advanced positive: the rest needs a reason of its own. */
  | { verdict: 'teeth_and_rest'; offTeeth: number; teeth: number; restTeeth: number; sense: Sense }
  | { verdict: 'fraction'; offTeeth: number; sense: Sense }
  /** Outside the tolerance wherever within its uncertainty it lies, though not by how much. */
  | { verdict: 'outside'; offTeeth: number; sense: Sense }
  | { verdict: 'cannot_tell'; offTeeth: number };

/**
 * An observed mark offset against the predicted one, in teeth. Judged at v and v ± 2u: as predicted within the tolerance,
 * whole teeth out within it of a whole number, else whole teeth and a rest, or below one tooth a fraction (stack height,
 * seat, elongation). Where these disagree and no value within ± 2u lies within the tolerance of the prediction it is outside
 * all the same; else it cannot be told.
 * Near one half there are two positions that a correct belt may take.
 */
export function judgeOffset(
  observedTeeth: number,
  u: number,
  predicted: Pick<CamPhase, 'teeth' | 'alternative'>,
  toleranceTeeth: number,
): OffsetVerdict {
  const origins = [predicted.teeth, ...(predicted.alternative === undefined ? [] : [predicted.alternative])];
  const origin = origins.reduce((a, b) =>
    Math.abs(observedTeeth - b) < Math.abs(observedTeeth - a) ? b : a,
  );
  const off = observedTeeth - origin;
  const classify = (d: number): string => {
    const k = Math.round(d);
    return Math.abs(d - k) <= toleranceTeeth + ROUNDING ? `whole ${k + 0}` : `rest ${Math.floor(d)}`;
  };
  const said = judged(off, u, classify);
  const sense = off >= 0 ? ('advanced' as const) : ('retarded' as const);
  if (said === undefined)
    return surelyAbove({ value: Math.abs(off), u }, toleranceTeeth + ROUNDING)
      ? { verdict: 'outside', offTeeth: off, sense }
      : { verdict: 'cannot_tell', offTeeth: off };
  if (said.startsWith('rest')) {
    if (Math.abs(off) < 1) return { verdict: 'fraction', offTeeth: off, sense };
    const whole = nearestWhole(off);
    return {
      verdict: 'teeth_and_rest',
      offTeeth: off,
      teeth: Math.abs(whole),
      restTeeth: off - whole,
      sense,
    };
  }
  const teeth = Math.abs(Math.round(off));
  return teeth === 0
    ? { verdict: 'as_predicted', offTeeth: off }
    : { verdict: 'teeth_out', offTeeth: off, teeth, sense };
}

/** Nearest whole number, a half towards zero: one and a half teeth are one tooth and a half. */
const nearestWhole = (d: number): number => Math.sign(d) * Math.ceil(Math.abs(d) - 0.5 - ROUNDING) + 0;

/** Far below what anybody reads at a mark, far above what a solver leaves: no edge of a band lies in between, teeth. */
const ROUNDING = 1e-4;

/** What several wheels say together. */
export type OffsetPattern =
  /** Every wheel as predicted. */
  | { pattern: 'as_predicted' }
  /** All the same whole teeth, same sense: the belt sits wrong at the driving wheel. */
  | { pattern: 'at_driver'; teeth: number; sense: 'advanced' | 'retarded' }
  /** From this wheel on, counted from the driving wheel along the tight side. */
  | { pattern: 'from_wheel'; wheel: number }
  /** Fractions: distances or lengths changed, not teeth. */
  | { pattern: 'fractions' }
  /** A jump, and a rest with a reason of its own. */
  | { pattern: 'teeth_and_rest' }
  | { pattern: 'inconsistent' }
  | { pattern: 'cannot_tell' };

/** @param seen verdicts in the order in which the belt is laid on: from the driving wheel along the tight side */
export function offsetPattern(seen: readonly { wheel: number; verdict: OffsetVerdict }[]): OffsetPattern {
  if (seen.length === 0 || seen.some((s) => s.verdict.verdict === 'cannot_tell'))
    return { pattern: 'cannot_tell' };
  if (seen.every((s) => s.verdict.verdict === 'as_predicted')) return { pattern: 'as_predicted' };
  const has = (v: OffsetVerdict['verdict']) => seen.some((s) => s.verdict.verdict === v);
  if (has('outside')) return { pattern: 'cannot_tell' };
  if (has('teeth_and_rest')) return { pattern: 'teeth_and_rest' };
  if (has('fraction')) return has('teeth_out') ? { pattern: 'inconsistent' } : { pattern: 'fractions' };
  const signed = seen.map((s) => ('teeth' in s.verdict ? Math.round(s.verdict.offTeeth) : 0));
  const k = signed.find((x) => x !== 0) ?? 0;
  if (signed.every((x) => x === k) && seen.length > 1)
    return { pattern: 'at_driver', teeth: Math.abs(k), sense: k > 0 ? 'advanced' : 'retarded' };
  const first = signed.findIndex((x) => x !== 0);
  const after = signed.slice(first);
  const run = after.findIndex((x) => x !== k);
  const tail = run < 0 ? [] : after.slice(run);
  return tail.every((x) => x === 0)
    ? { pattern: 'from_wheel', wheel: nth(seen, first).wheel }
    : { pattern: 'inconsistent' };
}
