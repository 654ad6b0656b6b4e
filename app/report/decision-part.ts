import type { Content } from 'pdfmake/interfaces';
import { causeVerdict } from '@core/answer/verdict';
import { textOf } from '@core/facts/read';
import { percent } from '../messages/answers';
import { factWords } from '../messages/facts';
import { SEVERITY_WORDS } from '../messages/faults';
import { verdictWords } from '../messages/verdict';
import type { CaseOnPaper } from './case-on-paper';
import { decidedPart } from './cause-part';
import { heading } from './parts';

/** What was decided, as the first word of a letter. */
export const DECISIONS: Record<string, string> = {
  accept: 'The claim is accepted.',
  part: 'The claim is accepted in part.',
  goodwill: 'The claim is settled as goodwill.',
  decline: 'The claim is declined.',
  wait: 'The decision waits for more.',
};

/** What was found and decided, the faults recorded with their evidence, who signed with. */
export function decisionPart({ state, answers: a, voice: context, name }: CaseOnPaper): Content[] {
  const decision = textOf(state, 'claim.decision');
  const out: Content[] = [heading('Finding and decision'), ...decidedPart(state, a)];
  for (const f of a.faults.filter((x) => x.recorded)) {
    const basis = f.recorded?.basis ?? [];
    const facts = state.log.filter((x) => basis.includes(x.id)).map((x) => factWords(x, context, name));
    out.push({
      margin: [0, 4, 0, 0],
      text: [
        { text: `Installation fault ${f.fault.code}: ${f.fault.wording}. `, bold: true },
        f.step ? `Step ${f.step.number}: ${f.step.text} ` : '',
        `Evidence: ${facts.join('; ')}. `,
        `Severity: ${SEVERITY_WORDS[f.severity]}. `,
        f.share === undefined ? '' : `Share of the claim laid to it: ${percent(f.share)}. `,
        { text: `Advice: ${f.fault.advice}`, italics: false },
      ],
    });
  }
  if (decision)
    out.push({
      margin: [0, 4, 0, 0],
      text: [
        { text: `${DECISIONS[decision] ?? decision} `, bold: true },
        textOf(state, 'claim.reason') ?? '',
      ],
    });
  out.push(...tiePart({ state, answers: a, voice: context }));
  const second = textOf(state, 'claim.second');
  if (second) out.push({ text: `Second signature: ${second}` });
  const alternative = textOf(state, 'claim.alternative');
  if (alternative) out.push({ text: `Alternative considered: ${alternative}` });
  if (!decision) out.push({ text: 'No decision has been made yet.', style: 'quiet' });
  return out;
}

/** What supplier and fitter are not told apart by belongs beside a decline. */
export function tiePart({
  state,
  answers: a,
  voice,
}: Pick<CaseOnPaper, 'state' | 'answers' | 'voice'>): Content[] {
  const found = textOf(state, 'claim.decision') === 'decline' ? causeVerdict(a) : undefined;
  const tie = found && verdictWords(found, a.policy, voice).tie;
  return tie ? [{ text: tie }] : [];
}
