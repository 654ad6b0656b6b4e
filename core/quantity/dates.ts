import { nth } from './must';
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
 * Reads a day as people write it: "2026-03-12", "12.3.2026", "12/03/26", "12 Mar 2026", "Mar 2026" or "3/2026" (the first),
 * "today", "yesterday". Figures follow `order`; an ISO day is always read as such.
 */
export function parseDay(text: string, order: DateOrder, today: Day): Result<Day, DateError> {
  const typed = text.trim();
  const low = typed.toLowerCase();
  const fail = err({ code: 'not_a_date' as const, typed, order });
  if (low === 'today' || low === 'now') return ok(today);
  if (low === 'yesterday') return ok(addDays(today, -1));
  if (isDay(typed)) return ok(typed);
  const inFigures = /^(?:(\d{1,2})[./-](\d{4})|(\d{4})-(\d{2}))$/.exec(low);
  if (inFigures) {
    const found = day(Number(inFigures[2] ?? inFigures[3]), Number(inFigures[1] ?? inFigures[4]), 1);
    return found ? ok(found) : fail;
  }
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
    return month ? `${Number(d)} ${nth(month, 0).toUpperCase()}${month.slice(1)} ${y}` : iso;
  }
  return order === 'dmy' ? `${d}.${m}.${y}` : order === 'mdy' ? `${m}/${d}/${y}` : iso;
}

const DAY_MS = 86_400_000;
/** A day as its count since 1970-01-01: a calendar's arithmetic, in which no zone skips or doubles one. */
const countOf = (iso: Day): number => {
  const [y = 0, m = 1, d = 1] = iso.split('-').map(Number);
  return Math.round(Date.UTC(y, m - 1, d) / DAY_MS);
};
const atCount = (n: number): Day => new Date(n * DAY_MS).toISOString().slice(0, 10);

/** Days from a to b. */
export const daysBetween = (a: Day, b: Day): number => countOf(b) - countOf(a);
/** The day n days later. */
export const addDays = (a: Day, n: number): Day => atCount(countOf(a) + n);
/** The day n months later; end of month is kept inside the month. */
export function plusMonths(a: Day, n: number): Day {
  const [y = 0, m = 1, d = 1] = a.split('-').map(Number);
  const months = y * 12 + (m - 1) + n;
  const [year, month] = [Math.floor(months / 12), (((months % 12) + 12) % 12) + 1];
  const last = new Date(Date.UTC(year, month, 0)).getUTCDate();
  return day(year, month, Math.min(d, last)) ?? a;
}
/** Whole months from a to b: the most that can be added to a without passing b; negative when b is before a. */
export function monthsBetween(a: Day, b: Day): number {
  if (b < a) return -monthsBetween(b, a) + 0;
  const [ya = 0, ma = 1] = a.split('-').map(Number);
  const [yb = 0, mb = 1] = b.split('-').map(Number);
  const most = (yb - ya) * 12 + (mb - ma);
  return plusMonths(a, most) <= b ? most : most - 1;
}

/** The calendar day of an instant where the user sits. */
export function dayOf(instant: string | number | Date): Day {
  const t = new Date(instant);
  return day(t.getFullYear(), t.getMonth() + 1, t.getDate()) ?? '1970-01-01';
}

/** True for what names a month and no day: "Mar 2026", "3/2026". */
export const isMonthOnly = (text: string): boolean =>
  /^\s*(?:[a-z]{3,9}[\s.,\-/]*(?:\d{4}|\d{2})|(?:0?[1-9]|1[0-2])[./-]\d{4}|\d{4}-(?:0[1-9]|1[0-2]))\s*$/i.test(
    text,
  );

/** Uncertainty of a day of which only the month is known, days. */
export const MONTH_U = 30;
/** True for the uncertainty of such a day. */
export const isMonth = (u: number | undefined): boolean => u !== undefined && u >= MONTH_U;

/** The days that one may be: both the same where it is known. */
export type DaySpan = Readonly<{ first: Day; last: Day }>;
/** The days that a day may be: all of its month where only that is known, else so many days around it. @param u days */
export function daySpan(known: Day, u = 0): DaySpan {
  if (u === MONTH_U) {
    const first: Day = `${known.slice(0, 7)}-01`;
    return { first, last: addDays(plusMonths(first, 1), -1) };
  }
  const around = Math.round(u);
  return { first: addDays(known, -around), last: addDays(known, around) };
}

/** A month in words. @example formatMonth('2026-03-01') // "Mar 2026" */
export const formatMonth = (iso: Day): string => formatDay(iso, 'named').replace(/^\d+ /, '');

/** Uncertainty from which on only the year of a day is told, days. */
const YEAR_U = 150;
/** A day as roughly as it is known: its month, about its month, or its year. @example formatRough('2022-07-01', 183) // "2022" */
export function formatRough(day: Day, u: number): string {
  if (u >= YEAR_U) return day.slice(0, 4);
  return u > MONTH_U ? `about ${formatMonth(day)}` : formatMonth(day);
}
