import { must, nth } from '@core/quantity/must';
import {
  freeSeats,
  type FreeSeat,
  type Go,
  isMarked,
  type JudgedMark,
  judgeMarks,
  toleranceOf,
} from '@core/drive/judge-marks';
import { judgeOffset, type OffsetPattern, type OffsetVerdict } from '@core/drive/judge-offset';
import type { Stage } from '@core/drive/stages';
import type { Fact } from '@core/facts/fact';
import { measuredOf } from '@core/facts/read';
import type { Registry } from '@core/facts/observable';
import type { State } from '@core/facts/state';
import { chancesOf } from '@core/quantity/judge';
import { wheelThing } from '@core/facts/thing';
import { predictedPhases } from './found-drive';

/** Key of the observed mark offset of a wheel. */
export const MARK = 'mark';

/** What a mark can show, read without any doubt. */
export type SureVerdict = Exclude<OffsetVerdict['verdict'], 'outside' | 'cannot_tell'>;
export type MarkAnswer = JudgedMark & {
  stage: number;
  about: string;
  /** Bank that its wheel sits on. */
  bank?: string;
  teeth: number;
  /** How likely each verdict is, by the reading's uncertainty. */
  chances: Readonly<Partial<Record<SureVerdict, number>>>;
  facts: readonly Fact[];
};
export type MarksAnswer = {
  marks: MarkAnswer[];
  /** What the marks of each stage that was looked at say together. */
  patterns: { stage: number; pattern: OffsetPattern }[];
  go: Go;
  /** Marks that the drive has, all stages together. */
  of: number;
  /** Marked wheels that can turn on their shafts: what their marks say is not yet said of the shafts. */
  free: FreeSeat[];
};

const WORST: readonly Go[] = ['no_go', 'wait', 'so_far', 'go'];

/** Observed mark offsets against what each stage's geometry predicts; nothing when none was filed. */
export function marksAnswer(
  stages: readonly Stage[],
  state: State,
  registry: Registry,
): MarksAnswer | undefined {
  const answer: MarksAnswer = { marks: [], patterns: [], go: 'go', of: 0, free: [] };
  stages.forEach(({ layout }, stage) => {
    const facts = new Map<number, readonly Fact[]>();
    const seen = new Map<number, { teeth: number; u: number }>();
    layout.wheels.forEach((w, i) => {
      if (!isMarked(w)) return;
      const m = measuredOf(state, registry, MARK, wheelThing(w.id));
      if (!m) return;
      facts.set(i, m.facts);
      seen.set(i, { teeth: m.value, u: m.u });
    });
    const phases = seen.size > 0 ? predictedPhases(state, layout) : [];
    const judged = judgeMarks(layout, phases, seen);
    answer.of += judged.of;
    answer.free.push(...freeSeats(layout));
    for (const m of judged.marks) {
      const { id, bank } = nth(layout.wheels, m.wheel);
      const { teeth, u } = must(seen.get(m.wheel));
      answer.marks.push({
        ...m,
        stage,
        about: wheelThing(id),
        ...(bank === undefined ? {} : { bank }),
        teeth,
        chances: chancesOf({ value: teeth, u }, (v) =>
          sure(judgeOffset(v, 0, m.predicted, toleranceOf(layout))),
        ),
        facts: must(facts.get(m.wheel)),
      });
    }
    if (judged.marks.length > 0) answer.patterns.push({ stage, pattern: judged.pattern });
    if (WORST.indexOf(judged.go) < WORST.indexOf(answer.go)) answer.go = judged.go;
  });
  return answer.marks.length > 0 ? answer : undefined;
}

const sure = ({ verdict }: OffsetVerdict): SureVerdict | undefined =>
  verdict === 'outside' || verdict === 'cannot_tell' ? undefined : verdict;

/**
 * What can be said of marks while several designs are possible: the answer of the first, of it only the marks that every
 * design judges alike, and go or no go only when all agree.
 */
export function agreedMarks(answers: readonly (MarksAnswer | undefined)[]): MarksAnswer | undefined {
  const [first, ...rest] = answers;
  if (!first) return undefined;
  const alike = (m: MarkAnswer) =>
    rest.every((other) => {
      const twin = other?.marks.find((x) => x.about === m.about);
      return twin !== undefined && sameVerdict(twin, m);
    });
  const marks = first.marks.filter(alike);
  if (marks.length === 0) return undefined;
  const go = rest.every((r) => r?.go === first.go && r.of === first.of) ? first.go : 'wait';
  const patterns = marks.length === first.marks.length && go !== 'wait' ? first.patterns : [];
  const free = [first, ...rest].find((r) => (r?.free.length ?? 0) > 0)?.free ?? [];
  return { marks, patterns, go, of: first.of, free };
}

function sameVerdict(a: MarkAnswer, b: MarkAnswer): boolean {
  const [x, y] = [a.verdict, b.verdict];
  if (x.verdict !== y.verdict) return false;
  return !('teeth' in x) || !('teeth' in y) || (x.teeth === y.teeth && x.sense === y.sense);
}
