import type { Lead } from '@core/advice/advice';
import type { Answers } from '@core/answer/answers';
import { toExplain } from '@core/answer/to-explain';
import type { CauseVerdict } from '@core/answer/verdict';
import type { ExaminedThing, LimitedInspection } from '@core/answer/examined';
import { sealedNow } from '@core/claim/seal';
import { textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Fitted } from '@core/fitting/fitted';
import type { Sheet } from '@core/fitting/sheet';
import { lower } from '../language/lower';
import { counted } from '../language/plural';
import { leadWords } from './advice';
import { findingWords, objectionWords } from './answers';
import { shownWords } from './fitting';
import { decisionWords } from './ledger';
import type { SentenceContext } from './sentence-context';
import { minutesWords, verdictWords } from './verdict';

/** What a station says first: so what; and what to do next, "" for nothing. */
export type OpeningWords = Readonly<{ says: string; next: string }>;

/** Findings that are named one by one; the rest are counted. */
const NAMED = 3;

/** Which kit, and what would tell the designs that are left apart. */
export function identifyOpening(lead: Lead, a: Answers, v: SentenceContext): OpeningWords {
  const [q] = a.asking.questions;
  return {
    says: leadWords(lead, v),
    next: q ? `Ask next: ${lower(q.feature.wording)}, ${minutesWords(q.minutes)}.` : '',
  };
}

/** What was told of the fitting shows; of a fitting that nobody told of nothing is judged. */
export function fitOpening(sheet: Pick<Sheet, 'steps'>, fitted: Fitted | undefined): OpeningWords {
  const steps = counted(sheet.steps.length, 'step', 'steps');
  if (!fitted)
    return {
      says: `No step of this fitting was told yet; its sheet has ${steps}.`,
      next: 'Send the sheet to the fitter’s phone, and read it in when it comes back.',
    };
  const told = `${fitted.said.size} of ${steps} told`;
  const off = [...fitted.said.values()].filter((s) => s.state === 'skipped' || s.state === 'wrong').length;
  const faults = fitted.faults.map((f) => shownWords(f, sheet).replace(/\.$/, ''));
  const open = fitted.unconfirmed.length;
  return {
    says:
      faults.length > 0
        ? `${firstFew(faults)}. ${told}.`
        : fitted.broken.length > 0
          ? `${told}; the order that was told breaks ${counted(fitted.broken.length, 'gate', 'gates')}.`
          : off > 0
            ? `${told}, ${off} of them not done or done otherwise.`
            : fitted.odd.length > 0
              ? `${told}; ${counted(fitted.odd.length, 'entry does', 'entries do')} not agree with the sheet.`
              : `${told}, and none of them against the sheet.`,
    next:
      open > 0 ? `Of ${counted(open, 'step', 'steps')} nothing is known: that is evidence of nothing.` : '',
  };
}

/**
 * What has to be explained of what was looked at. @param ran what it ran since the fitting, in words, "" where nobody told @param shown the value of an inspection as it stands in the list
 */
export function examineOpening(
  a: Pick<Answers, 'inspections' | 'ranking' | 'registry' | 'examination'>,
  state: State,
  v: SentenceContext,
  ran: string,
  shown: (thing: ExaminedThing, l: LimitedInspection) => string,
): OpeningWords {
  const { looked, open, notSent } = a.inspections.examine;
  const { findings, others } = toExplain(a, state);
  const bad = [
    ...findings.map((f) => lower(findingWords(f, v))),
    ...others.map(({ thing: t, inspection: l }) =>
      [partOf(t, lower(l.observable.wording)), lower(shown(t, l))].filter(Boolean).join(': '),
    ),
  ];
  const rest = [
    open.length > 0 ? `${open.length} not looked at` : '',
    notSent.length > 0 ? `${notSent.length} not sent` : '',
  ].filter(Boolean);
  const seen = counted(looked, 'inspection', 'inspections');
  return {
    says:
      looked === 0
        ? 'Nothing was looked at yet.'
        : bad.length > 0
          ? `To be explained: ${firstFew(bad)}.`
          : `${seen} made, and nothing that has to be explained.`,
    next:
      [
        ran === '' ? 'How far it ran is not known' : `Ran ${ran} since fitting`,
        ...(looked === 0 ? [] : [`${seen} made`, ...rest]),
      ].join(', ') + '.',
  };
}

/** "Edge, front" of a belt as "belt, edge, front"; what names its part already as it is. */
const partOf = (t: ExaminedThing, wording: string): string => {
  const part = lower(t.wording);
  return wording.includes(part) || t.kind === wording ? wording : `${part}, ${wording}`;
};

/** How far the claim is from an answer that can be issued, and what stands in the way. */
export function settleOpening(
  a: Answers,
  state: State,
  found: CauseVerdict | undefined,
  v: SentenceContext,
): OpeningWords {
  const chosen = textOf(state, 'claim.decision');
  if (a.kind === 'question')
    return {
      says: 'A question: there is nothing to settle.',
      next: 'It is settled once it is a return or a claim.',
    };
  if (chosen !== undefined) {
    const [first] = a.decision.objections;
    const name = decisionWords(chosen);
    if (sealedNow(a.seals)) return { says: `${name}: issued and sealed.`, next: '' };
    return first
      ? { says: `${name}: it cannot be issued yet.`, next: objectionWords(first) }
      : { says: `${name}: ready to be issued.`, next: '' };
  }
  const cause = a.lacks.cause.length > 0 ? 'The cause is to be decided first.' : '';
  const verdict = found && verdictWords(found, a.policy, v).title;
  return { says: verdict ? `${verdict}.` : 'Nothing is decided yet.', next: cause || 'Choose a decision.' };
}

const firstFew = (words: readonly string[]): string =>
  words.length <= NAMED + 1
    ? words.join('; ')
    : `${words.slice(0, NAMED).join('; ')}; and ${words.length - NAMED} more`;
