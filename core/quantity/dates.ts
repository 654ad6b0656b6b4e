// One function a file: the whole package would come along with the calendar that uses more of it.
import addMonths from 'date-fns/addMonths';
import differenceInCalendarDays from 'date-fns/differenceInCalendarDays';
import differenceInMonths from 'date-fns/differenceInMonths';
import { type Result, err, ok } from './result';

/** A calendar day "2026-03-12"; no time of day, no zone. */
export type Day = string;
/** Order in which a house writes day and month in figures. */
export type DateOrder = 'dmy' | 'mdy' | 'ymd';
export type DateError = { code: 'not_a_date'; typed: string; order: DateOrder };

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/** True for a real calendar day in ISO form. */
export function isDay(text: string): boolean {
  const m = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  return m !== null && day(Number(m[1]), Number(m[2]), Number(m[3])) !== undefined;
}

function day(y: number, m: number, d: number): Day | undefined {
  const t = new Date(Date.UTC(y, m - 1, d));
  if (t.getUTCFullYear() !== y || t.getUTCMonth() !== m - 1 || t.getUTCDate() !== d) return undefined;
  return `${String(y).padStart(4, '0')}-${String(m).padStart(2, '0')}-${String(d).padStart(2, '0')}`;
}

function year(text: string): number {
  const n = Number(text);
  return text.length <= 2 ? 2000 + n : n;
}

/**
 * Reads a day as people write it: "2026-03-12", "12.3.2026", "12/03/26", "12 Mar 2026", "Mar 2026" (the first),
 * "today", "yesterday". Figures follow `order`; an ISO day is always read as such.
 */
export function parseDay(text: string, order: DateOrder, today: Day): Result<Day, DateError> {
  const typed = text.trim();
  const low = typed.toLowerCase();
  const fail = err({ code: 'not_a_date' as const, typed, order });
  if (low === 'today' || low === 'now') return ok(today);
  if (low === 'yesterday') return ok(addDays(today, -1));
  if (isDay(typed)) return ok(typed);
  const named = /^(?:(\d{1,2})[\s.\-/]*)?([a-z]{3})[a-z]*[\s.,\-/]*(\d{4}|\d{2})$/.exec(low);
  if (named) {
    const m = MONTHS.indexOf(named[2] ?? '') + 1;
    const found = m > 0 ? day(year(named[3] ?? ''), m, Number(named[1] ?? '1')) : undefined;
    return found ? ok(found) : fail;
  }
  const figures = /^(\d{1,4})[./\-\s]+(\d{1,2})[./\-\s]+(\d{1,4})$/.exec(low);
  if (!figures) return fail;
  const [, a = '', b = '', c = ''] = figures;
  const [y, m, d] = a.length === 4 || order === 'ymd' ? [a, b, c] : order === 'mdy' ? [c, a, b] : [c, b, a];
  const found = day(year(y), Number(m), Number(d));
  return found ? ok(found) : fail;
}

/** How a day is written: in a house's order, or with the month as a word, which nobody can misread. */
export type DateForm = DateOrder | 'named';

/**
 * Writes a day. @example formatDay('2026-03-12', 'dmy') // "12.03.2026"
 * @example formatDay('2026-03-12', 'named') // "12 Mar 2026"
 */
export function formatDay(iso: Day, order: DateForm): string {
  const [y = '', m = '', d = ''] = iso.split('-');
  if (order === 'named') {
    const month = MONTHS[Number(m) - 1];
    return month ? `${Number(d)} ${month[0]!.toUpperCase()}${month.slice(1)} ${y}` : iso;
  }
  return order === 'dmy' ? `${d}.${m}.${y}` : order === 'mdy' ? `${m}/${d}/${y}` : iso;
}

const local = (iso: Day) => new Date(`${iso}T12:00:00`);
const back = (t: Date): Day => day(t.getFullYear(), t.getMonth() + 1, t.getDate()) ?? '1970-01-01';

/** Whole months from a to b; negative when b is before a. */
export const monthsBetween = (a: Day, b: Day): number => differenceInMonths(local(b), local(a));
/** Days from a to b. */
export const daysBetween = (a: Day, b: Day): number => differenceInCalendarDays(local(b), local(a));
/** The day n months later; end of month is kept inside the month. */
export const plusMonths = (a: Day, n: number): Day => back(addMonths(local(a), n));
/** The day n days later. */
export function addDays(a: Day, n: number): Day {
  const t = local(a);
  t.setDate(t.getDate() + n);
  return back(t);
}
