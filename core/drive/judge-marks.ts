import { judgeOffset, type OffsetPattern, offsetPattern, type OffsetVerdict } from './judge-offset';
import type { Layout } from './layout';
import type { Phase } from './phase';

export type JudgedMark = { wheel: number; predicted: Phase; verdict: OffsetVerdict };
export type Go = 'go' | 'no_go' | 'wait';
export type JudgedMarks = { marks: JudgedMark[]; pattern: OffsetPattern; go: Go };

/** Half-width of "as predicted", teeth, for a layout that does not give its own. */
const TOLERANCE = 0.25;

/**
 * Marks of one stage as seen against what its geometry predicts, in laying order: from the driving wheel along the tight
 * side. One wrong mark is no go, whatever else is unsure; an unsure one lets wait.
 * @param seen offsets by wheel index, teeth, advanced positive, with standard uncertainty
 */
export function judgeMarks(
  layout: Layout,
  phases: readonly Phase[],
  seen: ReadonlyMap<number, { teeth: number; u: number }>,
): JudgedMarks {
  const tolerance = layout.markToleranceTeeth ?? TOLERANCE;
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
  const go = has('teeth_out') || has('fraction') ? 'no_go' : has('cannot_tell') ? 'wait' : 'go';
  return { marks, pattern: offsetPattern(marks), go };
}
