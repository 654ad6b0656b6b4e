import type { Plan, Start } from '@core/catalogue/plan';
import { must } from '@core/quantity/must';
import { type Day, type DaySpan, daysBetween, monthsBetween, plusMonths } from '@core/quantity/dates';
import { judged } from '@core/quantity/judge';

/** What of a plan puts a claim in or out. */
export type Limits = Pick<Plan, 'months' | 'km' | 'from'>;
/** Days over the end of the terms, negative while they run; two figures where a date is only roughly known. */
type DaysOver = Readonly<{ least: number; most: number }>;
export type TermsAnswer =
  /** At least so many days are left; none are counted where no limit by time runs. */
  | {
      verdict: 'in';
      ends?: Day | undefined;
      kmLeft?: number | undefined;
      daysLeft?: number | undefined;
      roughly: boolean;
    }
  /** By at least so many days; `ends` is not known where the distance alone puts it out. */
  | { verdict: 'out'; ends?: Day | undefined; overKm: number; overDays: number; roughly: boolean }
  | { verdict: 'cannot_tell'; missing: Missing[]; ends?: Day | undefined; days?: DaysOver | undefined };
/**
 * What is missing; `start`, `sale`, `start_or_sale`: the day the plan begins on; `distance_back`: both readings are here, but the
 * later one is smaller; `distance_near`: the limit lies within what the distance is uncertain by; `date_near`: the end lies
 * within what the dates are.
 */
type Missing =
  | 'start'
  | 'sale'
  | 'start_or_sale'
  | 'failure'
  | 'distance'
  | 'distance_back'
  | 'distance_near'
  | 'date_near';
const START_MISSING: Record<Start, Missing> = {
  fitted: 'start',
  sold: 'sale',
  fitted_else_sold: 'start_or_sale',
};

/**
 * In or out of terms, by months or distance, whichever comes first. The last day still counts. A distance is judged at
 * v ± 2u, a date that is only roughly known at both its ends: only what is over wherever it lies is out, only what is within
 * wherever it lies is in. A distance that is not known leaves "in" undecided but can never turn "out by time" round; one that
 * is over is out whenever it began. A plan without limits is never out.
 * @param runsBack the later reading is smaller: nothing is in terms by such a distance
 */
export function judgeTerms(
  terms: Limits,
  start: DaySpan | undefined,
  failure: DaySpan | undefined,
  ran: { km: number; u: number } | undefined,
  runsBack = false,
): TermsAnswer {
  const { months, km } = terms;
  const missing: Missing[] = [];
  if (months !== undefined && start === undefined) missing.push(START_MISSING[terms.from ?? 'fitted']);
  if (months !== undefined && failure === undefined) missing.push('failure');
  // The earliest day on which they may have ended.
  const ends = months === undefined ? undefined : start && plusMonths(start.first, months);
  const over = months === undefined ? undefined : start && failure && daysOver(months, start, failure);
  const roughly = over !== undefined && over.least !== over.most;
  const overKm = ran === undefined || km === undefined ? undefined : ran.km - km;
  const far = ran && overKm !== undefined && judged(overKm, ran.u, (v) => v > 0);
  if ((over !== undefined && over.least > 0) || far === true)
    return {
      verdict: 'out',
      ends,
      overKm: far === true ? must(overKm) : 0,
      overDays: Math.max(0, over?.least ?? 0),
      roughly: roughly && over.least > 0,
    };
  if (over !== undefined && over.most > 0) missing.push('date_near');
  if (km !== undefined && overKm === undefined) missing.push(runsBack ? 'distance_back' : 'distance');
  else if (overKm !== undefined && far === undefined) missing.push('distance_near');
  if (missing.length > 0)
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
    daysLeft: over === undefined ? undefined : -over.most,
    roughly,
  };
}

const daysOver = (months: number, start: DaySpan, failure: DaySpan): DaysOver => ({
  least: daysBetween(plusMonths(start.last, months), failure.first),
  most: daysBetween(plusMonths(start.first, months), failure.last),
});

/** Whole months run, or undefined. */
export const monthsRun = (start: Day | undefined, end: Day | undefined): number | undefined =>
  start === undefined || end === undefined ? undefined : monthsBetween(start, end);
