import type { Content } from 'pdfmake/interfaces';
import type { Answers } from '@core/answer/answers';
import { causeVerdict } from '@core/answer/verdict';
import { CAUSES, noCauseOf } from '@core/cause/cause-data';
import { standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { distance, findingWords, noCauseWords, percent } from '../messages/answers';
import { weightWords } from '../messages/weights';
import { sureWords } from '../messages/explain';
import { verdictWords } from '../messages/verdict';
import type { SentenceContext } from '../messages/sentence-context';

/** Causes in the table, and the least weight that is told, natural log. */
const [MOST, LEAST_NATS] = [5, 0.05];

/** The cause that was decided, or that none can be, with the reason that was given. */
export function decidedPart(state: State, a: Answers): Content[] {
  const cause = textOf(state, 'cause.decided');
  const note = standing(state, 'cause.decided')?.note;
  const none = noCauseOf(cause);
  if (none) return [{ text: [{ text: `Primary cause: ${noCauseWords(none)}. `, bold: true }, note ?? ''] }];
  const entry = a.ranking.causes.find((c) => c.cause.key === cause)?.cause;
  if (!entry) return [];
  const said = `${entry.mechanism} Consequence: ${entry.consequence}`;
  return [
    { text: [{ text: `Primary cause: ${entry.wording}. `, bold: true }, said] },
    ...(note ? [{ text: `Why this cause: ${note}` }] : []),
  ];
}

/** Causes by their shares, what speaks for and against the one decided, what the leader leaves unexplained. */
export function causePart(state: State, a: Answers, context: SentenceContext): Content[] {
  const [leader] = a.ranking.causes;
  const decided = textOf(state, 'cause.decided');
  // where no cause is decided, what speaks for and against is that of the leader
  const shown = a.ranking.causes.find((c) => c.cause.key === decided) ?? leader;
  const rows = a.ranking.causes.slice(0, MOST).map((c) => [c.cause.wording, percent(c.probability)]);
  const weights = [...(shown?.weights ?? [])]
    .filter((w) => Math.abs(w.nats) > LEAST_NATS)
    .sort((x, y) => Math.abs(y.nats) - Math.abs(x.nats));
  const unexplained = a.ranking.unexplained.map((f) => findingWords(f, context));
  // nothing is judged before something that weighs is known
  const sure =
    leader && a.ranking.weighed > 0
      ? `“${leader.cause.wording}” leads: ${sureWords(leader.probability, a.policy.sureFrom)}. `
      : '';
  const x = causeVerdict(a);
  const said = x && verdictWords(x, a.policy, context);
  return [
    {
      layout: 'lightHorizontalLines',
      table: { widths: ['*', 60], body: [...rows, [CAUSES.none.wording, percent(a.ranking.none)]] },
    },
    {
      text: `${sure}For and against “${shown?.cause.wording ?? ''}”: ${weights.map((w) => weightWords(w, context)).join('; ') || 'nothing filed'}.`,
      margin: [0, 4, 0, 0],
    },
    // faults that stand together, and that supplier and fitter are not told apart, belong to the answer
    ...[...(said?.together ?? []), ...(said?.tie === undefined ? [] : [said.tie])].map((text) => ({ text })),
    {
      text: unexplained.length
        ? `Not explained: ${unexplained.join('; ')}.`
        : 'No abnormal finding is left unexplained by the leading cause.',
    },
    ...(a.usage.distance === undefined
      ? []
      : [
          {
            text: `Distance since fitting ${distance(a.usage.distance.km, context.notation)} was weighed with each cause’s usual distance to failure.`,
          },
        ]),
  ];
}
