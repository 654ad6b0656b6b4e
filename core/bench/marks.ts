import { isMarked, markKey } from '@core/catalogue/drive-observables';
import { type Go, type JudgedMark, judgeMarks } from '@core/drive/judge-marks';
import type { OffsetPattern } from '@core/drive/judge-offset';
import { markPhases } from '@core/drive/phase';
import { solveDrive } from '@core/drive/solve-drive';
import type { Stage } from '@core/drive/stages';
import type { Fact } from '@core/facts/fact';
import type { State } from '@core/facts/state';

export type MarkAnswer = JudgedMark & { stage: number; fact: Fact };
export type MarksAnswer = {
  marks: MarkAnswer[];
  /** What the marks of each stage that was looked at say together. */
  patterns: { stage: number; pattern: OffsetPattern }[];
  go: Go;
};

const WORST: readonly Go[] = ['no_go', 'wait', 'go'];

/** Observed mark offsets against what each stage's geometry predicts; nothing when none was filed. */
export function marksAnswer(stages: readonly Stage[], state: State): MarksAnswer | undefined {
  const answer: MarksAnswer = { marks: [], patterns: [], go: 'go' };
  stages.forEach(({ layout }, stage) => {
    const facts = new Map<number, Fact>();
    const seen = new Map<number, { teeth: number; u: number }>();
    layout.wheels.forEach((w, i) => {
      const fact = isMarked(w) ? state.standing.get(markKey(w.id)) : undefined;
      if (typeof fact?.value !== 'number') return;
      facts.set(i, fact);
      seen.set(i, { teeth: fact.value, u: fact.u ?? 0 });
    });
    const solved = seen.size > 0 ? solveDrive(layout) : undefined;
    if (!solved?.ok) return;
    const judged = judgeMarks(layout, markPhases(layout, solved.value), seen);
    for (const m of judged.marks) answer.marks.push({ ...m, stage, fact: facts.get(m.wheel)! });
    answer.patterns.push({ stage, pattern: judged.pattern });
    if (WORST.indexOf(judged.go) < WORST.indexOf(answer.go)) answer.go = judged.go;
  });
  return answer.marks.length > 0 ? answer : undefined;
}
