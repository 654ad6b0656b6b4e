import { meaningOf } from '@core/facts/meaning';
import { allStanding, listOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { type Advice, type AnsweredQuestion, type CallerQuestion, type Case, QUESTIONS } from './advice';
import { adviseFits, adviseKit } from './kits';
import { adviseMarks } from './marks';
import { adviseSetting, adviseTorque } from './setting';
import { adviseTools } from './tools';
import { adviseLost, adviseMeans } from './trouble';
import { adviseReuse } from './reuse';
import { adviseWhy } from './why';
import { adviseAlso, adviseDue } from './upkeep';

const ANSWERS: Record<CallerQuestion, (c: Case) => AnsweredQuestion> = {
  kit: adviseKit,
  fits: adviseFits,
  setting: adviseSetting,
  marks: adviseMarks,
  torque: adviseTorque,
  tools: adviseTools,
  also: adviseAlso,
  due: adviseDue,
  reuse: adviseReuse,
  lost: adviseLost,
  means: adviseMeans,
  why: adviseWhy,
};

/** Facts by which the design is told stand under every answer. */
const DESIGN = /^(engine\.code|feature\.|vehicle\.built|vehicle\.market|belt\.teeth_count)/;

/** The answer to one question, with the facts that it stands on, and what is missing, cheapest first. */
export function advise(asked: CallerQuestion, c: Case): Advice {
  const own = ANSWERS[asked](c);
  const { keys = [], ...answered } = atOdds(own, c) ?? own;
  const basis = allStanding(c.state)
    .flatMap((s) => s.facts)
    .filter((f) => {
      const { key } = meaningOf(f);
      return DESIGN.test(key) || keys.includes(key);
    })
    .map((f) => f.id);
  return { asked, ...answered, basis };
}

/** Contradictions on which no answer stands: one of the two is wrong, and which is asked first. */
const FIRST_ASKED = new Set(['days_reversed', 'odometer_back', 'in_the_future']);
function atOdds({ keys = [] }: AnsweredQuestion, { a }: Case): AnsweredQuestion | undefined {
  const contradiction = a.contradictions.find(
    (x) => FIRST_ASKED.has(x.code) && x.facts.some((f) => keys.includes(meaningOf(f).key)),
  );
  if (!contradiction) return undefined;
  const missing = contradiction.facts.map((f) => ({ key: meaningOf(f).key, minutes: 1 }));
  return { standing: 'open', lead: { code: 'at_odds', contradiction }, because: [], missing, keys };
}

/** What was asked, in the order in which it was told; the kinds of question are few and known. */
export const questionsAsked = (state: State): CallerQuestion[] =>
  listOf(state, 'call.asked').filter((k): k is CallerQuestion =>
    (QUESTIONS as readonly string[]).includes(k),
  );
