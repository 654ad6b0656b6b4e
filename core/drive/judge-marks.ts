import { nth } from '@core/quantity/must';
import { judgeOffset, type OffsetPattern, offsetPattern, type OffsetVerdict } from './judge-offset';
import { isFree, type Layout, type Wheel } from './layout';
import { drivenWheels } from './strands';
import type { CamPhase } from './phase';

export type JudgedMark = { wheel: number; predicted: CamPhase; verdict: OffsetVerdict };
/** Go is said of a drive whose every mark was looked at; so far: none of those looked at is wrong. */
export type Go = 'go' | 'so_far' | 'no_go' | 'wait';
export type JudgedMarks = {
  marks: JudgedMark[];
  pattern: OffsetPattern;
  go: Go;
  /** Marks that the stage has. */
  of: number;
};

/** Half-width of "as predicted", teeth, for a layout that does not give its own. */
const TOLERANCE = 0.25;
export const toleranceOf = (layout: Pick<Layout, 'markToleranceTeeth'>): number =>
  layout.markToleranceTeeth ?? TOLERANCE;

/**
 * Marks of one stage as seen against what its geometry predicts, in laying order: from the driving wheel along the tight
 * side. One wrong mark is no go, whatever else is unsure; an unsure one lets wait; it is not go before all were looked at.
 * @param seen offsets by wheel index, teeth, advanced positive, with standard uncertainty
 */
export function judgeMarks(
  layout: Layout,
  phases: readonly CamPhase[],
  seen: ReadonlyMap<number, { teeth: number; u: number }>,
): JudgedMarks {
  const tolerance = toleranceOf(layout);
  const marks = [...phases]
    .sort((a, b) => b.wheel - a.wheel)
    .flatMap((predicted) => {
      const s = seen.get(predicted.wheel);
      if (!s) return [];
      return [
        { wheel: predicted.wheel, predicted, verdict: judgeOffset(s.teeth, s.u, predicted, tolerance) },
      ];
    });
  const has = (v: OffsetVerdict['verdict']) => marks.some((m) => m.verdict.verdict === v);
  const wrong = has('teeth_out') || has('fraction') || has('teeth_and_rest') || has('outside');
  const of = markedWheels(layout).length;
  const go = wrong ? 'no_go' : has('cannot_tell') ? 'wait' : marks.length < of ? 'so_far' : 'go';
  return { marks, pattern: offsetPattern(marks), go, of };
}

const MARKED = new Set<Wheel['role']>(['cam', 'injection', 'balance']);

/** Wheels whose marks a fitter looks at. */
export const isMarked = (w: Wheel): boolean => MARKED.has(w.role) && w.markDeg !== undefined;

/** By what a marked wheel stands on its shaft so that, freed, it turns without it: its mark does not speak for the shaft. */
export type FreeSeat = { name: string; by: 'taper' | 'friction' | 'slots' };
export const freeSeats = (layout: Layout): FreeSeat[] =>
  layout.wheels.flatMap((w): FreeSeat[] => {
    if (!isMarked(w) || !isFree(w)) return [];
    return [{ name: w.name, by: w.slots ? 'slots' : w.seat === 'taper' ? 'taper' : 'friction' }];
  });

/** Indices of a layout's driven wheels whose marks are looked at, in belt order. */
export const markedWheels = (layout: Layout): number[] =>
  drivenWheels(layout).filter((i) => isMarked(nth(layout.wheels, i)));
