import type { Fact, FactValue, SaidFact } from './fact';
import type { Meaning } from './meaning';
import type { Place } from './place';
import type { Silent, Why } from './value';

/** An inspection or a question that was filed and says nothing of the thing. It is no value, and no reader of values meets it. */
export type Silence = { meaning: Meaning; place?: Place | undefined; why: Why; facts: readonly Fact[] };

export const silent = (why: Why): Silent => ({ none: why });

/** How facts of earlier makes wrote it. A step that was left out is a finding, and had that word for it before. */
const WRITTEN: Readonly<Record<string, Why>> = { skipped: 'notExamined', unknown: 'unknown' };
const SAYS_SKIPPED: ReadonlySet<string> = new Set(['step.done']);

/** Why a fact says nothing; undefined when it says something. */
export function whySilent({ key, value }: { key: string; value: FactValue }): Why | undefined {
  if (isSilent(value)) return value.none;
  if (typeof value !== 'string' || !Object.hasOwn(WRITTEN, value)) return undefined;
  return value === 'skipped' && SAYS_SKIPPED.has(key) ? undefined : WRITTEN[value];
}

const isSilent = (value: FactValue): value is Silent => typeof value === 'object' && 'none' in value;

/** The answer that it is not known, as something to choose. */
export const UNKNOWN = { key: 'unknown', wording: 'Unknown', also: ['?'] };

/** A fact that says something. */
export const says = (f: Fact): f is SaidFact => whySilent(f) === undefined;
