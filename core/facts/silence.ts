import type { Fact, FactValue } from './fact';
import type { Meaning } from './meaning';
import type { Place } from './place';

/** Why nothing is said: it was passed over on purpose, or looked at or asked for in vain. */
export type Why = 'notExamined' | 'unknown';
/** A look or a question that was filed and says nothing of the thing. It is no value, and no reader of values meets it. */
export type Silence = { meaning: Meaning; place?: Place | undefined; why: Why; facts: readonly Fact[] };

/** How a silence is written into a fact's value. */
const WRITTEN: Readonly<Record<Why, string>> = { notExamined: 'skipped', unknown: 'unknown' };
export const silent = (why: Why): FactValue => WRITTEN[why];

/** A step that was left out is a finding: its word for it was there before that of what was passed over. */
const SAYS_SKIPPED: ReadonlySet<string> = new Set(['step.done']);

/** Why a fact says nothing; undefined when it says something. */
export function whySilent({ key, value }: Pick<Fact, 'key' | 'value'>): Why | undefined {
  if (value === WRITTEN.notExamined) return SAYS_SKIPPED.has(key) ? undefined : 'notExamined';
  return value === WRITTEN.unknown ? 'unknown' : undefined;
}
