import { must } from '@core/quantity/must';
import { type Day, type DaySpan, daysBetween, monthsBetween, plusMonths } from '@core/quantity/dates';
import { judged } from '@core/quantity/judge';

export type Terms = { months: number; km: number };
/** Days over the end of the terms, negative while they run; two figures where a date is only roughly known. */
type DaysOver = Readonly<{ least: number; most: number }>;
export type TermsAnswer =
  /** At least so many days are left. */
  | { verdict: 'in'; ends: Day; kmLeft?: number | undefined; daysLeft: number; roughly: boolean }
  /** By at least so many days; `ends` is not known where the distance alone puts it out. */
  | { verdict: 'out'; ends?: Day | undefined; overKm: number; overDays: number; roughly: boolean }
  | { verdict: 'cannot_tell'; missing: Missing[]; ends?: Day | undefined; days?: DaysOver | undefined };
/**
 * What is missing; `distance_back`: both readings are here, but the later one is smaller; `distance_near`: the limit lies
 * within what the distance is uncertain by; `date_near`: the end lies within what the dates are.
 */
type Missing = 'start' | 'failure' | 'distance' | 'distance_back' | 'distance_near' | 'date_near';

/**
 * In or out of terms, by months or distance, whichever comes first. The last day still counts. A distance is judged at
 * v ± 2u, a date that is only roughly known at both its ends: only what is over wherever it lies is out, only what is within
 * wherever it lies is in. A distance that is not known leaves "in" undecided but can never turn "out by time" round; one that
 * is over is out whenever it began.
 * @param runsBack the later reading is smaller: nothing is in terms by such a distance
 */
export function judgeTerms(
  terms: Terms,
  start: DaySpan | undefined,
  failure: DaySpan | undefined,
  ran: { km: number; u: number } | undefined,
  runsBack = false,
): TermsAnswer {
  const missing: Missing[] = [];
  if (start === undefined) missing.push('start');
  if (failure === undefined) missing.push('failure');
  // The earliest day on which they may have ended.
  const ends = start && plusMonths(start.first, terms.months);
  const over = start && failure && daysOver(terms, start, failure);
  const roughly = over !== undefined && over.least !== over.most;
  const overKm = ran === undefined ? undefined : ran.km - terms.km;
  const far = ran && judged(must(overKm), ran.u, (km) => km > 0);
  if ((over !== undefined && over.least > 0) || far === true)
    return {
      verdict: 'out',
      ends,
      overKm: far === true ? must(overKm) : 0,
      overDays: Math.max(0, over?.least ?? 0),
      roughly: roughly && over.least > 0,
    };
  if (over !== undefined && over.most > 0) missing.push('date_near');
  if (overKm === undefined) missing.push(runsBack ? 'distance_back' : 'distance');
  else if (far === undefined) missing.push('distance_near');
  if (missing.length > 0 || ends === undefined || over === undefined)
    return {
      verdict: 'cannot_tell',
      missing,
      ends,
      ...(missing.includes('date_near') ? { days: over } : {}),
    };
  return {
    verdict: 'in',
    ends,
    kmLeft: overKm === undefined ? undefined : -overKm,
    daysLeft: -over.most,
    roughly,
  };
}

const daysOver = ({ months }: Terms, start: DaySpan, failure: DaySpan): DaysOver => ({
  least: daysBetween(plusMonths(start.last, months), failure.first),
  most: daysBetween(plusMonths(start.first, months), failure.last),
});

/** Whole months run, or undefined. */
export const monthsRun = (start: Day | undefined, end: Day | undefined): number | undefined =>
  start === undefined || end === undefined ? undefined : monthsBetween(start, end);
