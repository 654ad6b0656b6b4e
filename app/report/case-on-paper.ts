import type { Answers } from '@core/answer/answers';
import type { WorldName } from '@core/answer/world';
import { type SealCheck, sealedNow } from '@core/claim/seal';
import { onPaper } from '@core/facts/read-value';
import { standing } from '@core/facts/read';
import type { Namer } from '@core/facts/show-value';
import type { State } from '@core/facts/state';
import { type Day, dayOf, formatDay } from '@core/quantity/dates';
import { valueWords } from '../messages/facts';
import type { SentenceContext } from '../messages/sentence-context';

/** A case as it goes onto paper: what is known, what follows, and how this house writes. */
export type CaseOnPaper = {
  tag: string;
  state: State;
  answers: Answers;
  world: WorldName;
  voice: SentenceContext;
  name: Namer;
  today: Day;
  /** As the house signs, line by line; may be empty. */
  house: string;
};

/** The same as sentences for paper: days that nobody can misread. */
export const writtenFor = (c: CaseOnPaper): CaseOnPaper => ({
  ...c,
  voice: { ...c.voice, notation: onPaper(c.voice.notation) },
});

/** What is filed of an observable, or a dash. */
export function said({ state, voice, name }: CaseOnPaper, key: string): string {
  const f = standing(state, key);
  return f ? valueWords(f, voice, name) : '—';
}

/** The issue that covers all that is known; none for a draft. */
export const issueOf = (c: CaseOnPaper): SealCheck | undefined => sealedNow(c.answers.seals);

/** "Issue 2, 25 Nov 2026", or that it is a draft. */
export function issueWords(c: CaseOnPaper): { text: string; style: 'sub' | 'draft' } {
  const issue = issueOf(c);
  return issue
    ? { text: `Issue ${issue.issue}, ${formatDay(dayOf(issue.seal.at), 'named')}`, style: 'sub' }
    : { text: `DRAFT, not issued, ${formatDay(c.today, 'named')}`, style: 'draft' };
}
