import type { WhyAsked } from '@core/answer/why-asked';
import type { CaseKind } from '@core/facts/observable';
import { list } from '../language/list';
import { lower } from '../language/lower';
import { counted } from '../language/plural';

const KINDS: Readonly<Record<CaseKind, string>> = { question: 'question', return: 'return', claim: 'claim' };

/** Why something is asked, in a sentence for each use; nothing where it is only kept. */
export const whyAskedWords = (why: readonly WhyAsked[]): string => why.map(sentence).join(' ');

function sentence(w: WhyAsked): string {
  switch (w.use) {
    case 'designs':
      return `It tells apart ${list(w.designs)}.`;
    case 'causes': {
      const named = w.causes.map((c) => `“${c}”`);
      const causes = list(w.more > 0 ? [...named, counted(w.more, 'more cause', 'more causes')] : named);
      const together = w.together.length > 0 ? `, together with ${list(w.together.map(lower))}` : '';
      return `${w.open ? 'Once the design is known it' : 'It'} speaks for or against ${causes}${together}.`;
    }
    case 'every_cause':
      return 'It weighs on every cause.';
    case 'terms':
      return 'The terms of this kit ask for it.';
    case 'needed':
      return `No ${list(
        w.kinds.map((k) => KINDS[k]),
        'or',
      )} is settled without it.`;
  }
}
