import type { CaseSummary, Waits } from '@core/answer/case-summary';
import type { CaseKind } from '@core/facts/observable';
import { type Day, daysBetween } from '@core/quantity/dates';

/** What a case waits for, as its tag on the rack says it. */
const WAITS_WORDS: Record<Waits, string> = {
  call: 'waits: Call',
  identify: 'waits: Identify',
  fit: 'waits: Fit',
  examine: 'waits: Examine',
  cause: 'waits: Cause',
  settle: 'waits: Settle',
  answer: 'ready to answer',
  told: 'told them',
  issue: 'ready to issue',
  sealed: 'settled, sealed',
  set_aside: '▲ set aside',
};

/** A call that was promised, as a tag says it. */
export function callBackWords(by: Day, today: Day): string {
  const days = daysBetween(today, by);
  if (days < 0) return `▲ call back, ${-days} d late`;
  return days === 0 ? '▲ call back today' : `call back in ${days} d`;
}

/** What a case waits for; a call that was promised goes before everything. */
export const waitsWords = (h: Pick<CaseSummary, 'back' | 'waits'>, today: Day): string =>
  h.back === undefined ? WAITS_WORDS[h.waits] : callBackWords(h.back, today);

/** What kind of case it is. */
export const KIND_WORDS: Record<CaseKind, string> = {
  question: 'question',
  return: 'return',
  claim: 'claim',
};
