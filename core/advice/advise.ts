import { meaningOf } from '@core/facts/meaning';
import { allStanding, listOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { type Advice, type AnsweredQuestion, type CallerQuestion, type Case, QUESTIONS } from './advice';
import { adviseFits, adviseKit } from './kits';
import { adviseMarks } from './marks';
import { adviseSetting, adviseTorque } from './setting';
import { adviseLost, adviseMeans } from './trouble';
import { adviseReuse } from './reuse';
import { adviseAlso, adviseDue } from './upkeep';

const ANSWERS: Record<CallerQuestion, (c: Case) => AnsweredQuestion> = {
  kit: adviseKit,
  fits: adviseFits,
  setting: adviseSetting,
  marks: adviseMarks,
  torque: adviseTorque,
  also: adviseAlso,
  due: adviseDue,
  reuse: adviseReuse,
  lost: adviseLost,
  means: adviseMeans,
};

/** Facts by which the design is told stand under every answer. */
const DESIGN = /^(engine\.code|feature\.|vehicle\.built|vehicle\.market|belt\.teeth_count)/;

/** The answer to one question, with the facts that it stands on, and what is missing, cheapest first. */
export function advise(asked: CallerQuestion, c: Case): Advice {
  const { keys = [], ...answered } = ANSWERS[asked](c);
  const basis = allStanding(c.state)
    .flatMap((s) => s.facts)
    .filter((f) => {
      const { key } = meaningOf(f);
      return DESIGN.test(key) || keys.includes(key);
    })
    .map((f) => f.id);
  return { asked, ...answered, basis };
}

/** What was asked, in the order in which it was told; the kinds of question are few and known. */
export const questionsAsked = (state: State): CallerQuestion[] =>
  listOf(state, 'call.asked').filter((k): k is CallerQuestion =>
    (QUESTIONS as readonly string[]).includes(k),
  );
