import { must } from '@core/quantity/must';
import { type Day, daysBetween, monthsBetween, plusMonths } from '@core/quantity/dates';
import { judged } from '@core/quantity/judge';

export type Terms = { months: number; km: number };
export type TermsAnswer =
  | { verdict: 'in'; ends: Day; kmLeft?: number | undefined; daysLeft: number }
  /** `ends` is not known where the distance alone puts it out. */
  | { verdict: 'out'; ends?: Day | undefined; overKm: number; overDays: number }
  | { verdict: 'cannot_tell'; missing: Missing[]; ends?: Day | undefined };
/**
 * What is missing; `distance_back`: both readings are here, but the later one is smaller; `distance_near`: the limit lies
 * within what the distance is uncertain by.
 */
type Missing = 'start' | 'failure' | 'distance' | 'distance_back' | 'distance_near';

/**
 * In or out of terms, by months or distance, whichever comes first. The last day still counts. A distance is judged at
 * v ± 2u: only one that is over wherever it lies is out, only one that is within wherever it lies is in. A distance that is
 * not known leaves "in" undecided but can never turn "out by time" round; one that is over is out whenever it began.
 * @param runsBack the later reading is smaller: nothing is in terms by such a distance
 */
export function judgeTerms(
  terms: Terms,
  start: Day | undefined,
  failure: Day | undefined,
  ran: { km: number; u: number } | undefined,
  runsBack = false,
): TermsAnswer {
  const missing: Missing[] = [];
  if (start === undefined) missing.push('start');
  if (failure === undefined) missing.push('failure');
  const ends = start === undefined ? undefined : plusMonths(start, terms.months);
  const overDays = ends !== undefined && failure !== undefined ? daysBetween(ends, failure) : undefined;
  const overKm = ran === undefined ? undefined : ran.km - terms.km;
  const far = ran && judged(must(overKm), ran.u, (km) => km > 0);
  if ((overDays ?? 0) > 0 || far === true)
    return {
      verdict: 'out',
      ends,
      overKm: far === true ? must(overKm) : 0,
      overDays: Math.max(0, overDays ?? 0),
    };
  if (overKm === undefined) missing.push(runsBack ? 'distance_back' : 'distance');
  else if (far === undefined) missing.push('distance_near');
  if (missing.length > 0 || ends === undefined || overDays === undefined)
    return { verdict: 'cannot_tell', missing, ends };
  return { verdict: 'in', ends, kmLeft: overKm === undefined ? undefined : -overKm, daysLeft: -overDays };
}

/** Whole months run, or undefined. */
export const monthsRun = (start: Day | undefined, end: Day | undefined): number | undefined =>
  start === undefined || end === undefined ? undefined : monthsBetween(start, end);
