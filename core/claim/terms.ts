import { type Day, daysBetween, monthsBetween, plusMonths } from '@core/quantity/dates';

export type Terms = { months: number; km: number };
export type TermsAnswer =
  | { verdict: 'in'; ends: Day; kmLeft?: number | undefined; daysLeft: number }
  | { verdict: 'out'; ends: Day; overKm: number; overDays: number }
  | { verdict: 'cannot_tell'; missing: Missing[]; ends?: Day | undefined };
/** What is missing; `distance_back`: both readings are here, but the later one is smaller. */
type Missing = 'start' | 'failure' | 'distance' | 'distance_back';

/**
 * In or out of terms, by months or distance, whichever comes first. The last day still counts.
 * A distance that is not known leaves "in" undecided but can never turn "out by time" round.
 */
export function judgeTerms(
  terms: Terms,
  start: Day | undefined,
  failure: Day | undefined,
  ranKm: number | undefined,
  runsBack = false,
): TermsAnswer {
  const missing: Missing[] = [];
  if (start === undefined) missing.push('start');
  if (failure === undefined) missing.push('failure');
  const ends = start === undefined ? undefined : plusMonths(start, terms.months);
  const overDays = ends !== undefined && failure !== undefined ? daysBetween(ends, failure) : undefined;
  const overKm = ranKm === undefined ? undefined : ranKm - terms.km;
  if (ends !== undefined && ((overDays ?? 0) > 0 || (overKm ?? 0) > 0)) {
    return { verdict: 'out', ends, overKm: Math.max(0, overKm ?? 0), overDays: Math.max(0, overDays ?? 0) };
  }
  if (overKm === undefined) missing.push(runsBack ? 'distance_back' : 'distance');
  if (missing.length > 0 || ends === undefined || overDays === undefined)
    return { verdict: 'cannot_tell', missing, ends };
  return { verdict: 'in', ends, kmLeft: overKm === undefined ? undefined : -overKm, daysLeft: -overDays };
}

/** Whole months run, or undefined. */
export const monthsRun = (start: Day | undefined, end: Day | undefined): number | undefined =>
  start === undefined || end === undefined ? undefined : monthsBetween(start, end);
