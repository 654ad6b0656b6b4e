import { isMarked, markKey } from '@core/catalogue/drive-observables';
import { judgeOffset, type OffsetPattern, offsetPattern, type OffsetVerdict } from '@core/drive/judge-offset';
import { markPhases, type Phase } from '@core/drive/phase';
import { solveDrive } from '@core/drive/solve-drive';
import type { Stage } from '@core/drive/stages';
import type { Fact } from '@core/facts/fact';
import type { State } from '@core/facts/state';

export type MarkAnswer = {
  stage: number;
  wheel: number;
  predicted: Phase;
  fact: Fact;
  verdict: OffsetVerdict;
};
export type MarksAnswer = {
  marks: MarkAnswer[];
  pattern: OffsetPattern;
  go: 'go' | 'no_go' | 'wait';
};

const TOLERANCE = 0.25;

/** Observed mark offsets against what each stage's geometry predicts; nothing when none was filed. */
export function marksAnswer(stages: readonly Stage[], state: State): MarksAnswer | undefined {
  const marks: MarkAnswer[] = [];
  stages.forEach(({ layout }, stage) => {
    const seen = layout.wheels.filter((w) => isMarked(w) && state.standing.has(markKey(w.id)));
    if (seen.length === 0) return;
    const solved = solveDrive(layout);
    if (!solved.ok) return;
    // In laying order: from the driving wheel along the tight side.
    const phases = markPhases(layout, solved.value).sort((a, b) => b.wheel - a.wheel);
    for (const predicted of phases) {
      const fact = state.standing.get(markKey(layout.wheels[predicted.wheel]!.id));
      if (!fact || typeof fact.value !== 'number') continue;
      const tolerance = layout.markToleranceTeeth ?? TOLERANCE;
      const verdict = judgeOffset(fact.value, fact.u ?? 0, predicted, tolerance);
      marks.push({ stage, wheel: predicted.wheel, predicted, fact, verdict });
    }
  });
  if (marks.length === 0) return undefined;
  const pattern = offsetPattern(marks.map((m) => ({ wheel: m.wheel, verdict: m.verdict })));
  const wrong = marks.some((m) => m.verdict.verdict === 'teeth_out' || m.verdict.verdict === 'fraction');
  const unsure = marks.some((m) => m.verdict.verdict === 'cannot_tell');
  return { marks, pattern, go: wrong ? 'no_go' : unsure ? 'wait' : 'go' };
}
