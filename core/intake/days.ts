import { nth } from '@core/quantity/must';
import { addDays, type Day, MONTH_U, parseDay, plusMonths } from '@core/quantity/dates';
import type { IntakeContext } from './context';
import { GRAMMAR } from './grammar';
import type { TextSpan } from './proposal';

/** A day as it is told, as sharp as it is told: `u` days, none where the day itself is named. */
export type DayTold = { day: Day; span: TextSpan; u?: number; /** It may be a figure. */ weak?: true };

type Form = {
  re: RegExp;
  read: (m: RegExpMatchArray, ctx: IntakeContext) => Day | undefined;
  u?: number;
  weak?: true;
};

const MONTHS = 'january february march april may june july august september october november december'.split(
  ' ',
);
const DAYS = 'sunday monday tuesday wednesday thursday friday saturday'.split(' ');
const ORDINALS =
  'first second third fourth fifth sixth seventh eighth ninth tenth eleventh twelfth thirteenth fourteenth fifteenth sixteenth seventeenth eighteenth nineteenth twentieth'.split(
    ' ',
  );
const SEASONS: Readonly<Record<string, number>> = { spring: 4, summer: 7, autumn: 10, fall: 10, winter: 1 };
const FEASTS: readonly (readonly [RegExp, string])[] = [
  [/valentine['’]?s(?: day)?/i, '02-14'],
  [/michaelmas/i, '09-29'],
  [/christmas(?: day)?/i, '12-25'],
  [/new year['’]?s(?: day)?/i, '01-01'],
];
/** Half a season, and half a year, days. */
const SEASON_U = 45;
const YEAR_U = 183;
const WEEK_U = 4;

const month = `(?:${MONTHS.map((m) => `${m}|${m.slice(0, 3)}`).join('|')}|sept)\\.?`;
const ordinal = `(?:(?:twenty|thirty)[- ])?(?:${ORDINALS.join('|')})|thirtieth`;
const count = `a|an|one|two|three|four|five|six|seven|eight|nine|ten|twelve|several|\\d{1,2}`;
const re = (body: string, flags = 'gi') => new RegExp(body, flags);

const monthNo = (name: string): number =>
  MONTHS.findIndex((m) => m.startsWith(name.toLowerCase().slice(0, 3))) + 1;
const pad = (n: number): string => String(n).padStart(2, '0');
const real = (y: number, m: number, d: number): Day | undefined => {
  const t = new Date(Date.UTC(y, m - 1, d));
  return t.getUTCMonth() === m - 1 && t.getUTCDate() === d ? `${y}-${pad(m)}-${pad(d)}` : undefined;
};
const yearOf = (text: string): number => (text.length <= 2 ? 2000 + Number(text) : Number(text));
const thisYear = (today: Day): number => Number(today.slice(0, 4));
/** The latest such day that is not to come. */
const latest = (m: number, d: number, today: Day): Day | undefined => {
  const own = real(thisYear(today), m, d);
  return own !== undefined && own <= today ? own : real(thisYear(today) - 1, m, d);
};
const countOf = (told: string): number =>
  /^an?$/i.test(told)
    ? 1
    : (GRAMMAR.numbers[told.toLowerCase()] ?? (told.toLowerCase() === 'several' ? 3 : Number(told)));
function ordinalOf(text: string): number {
  const low = text.toLowerCase();
  if (low === 'thirtieth') return 30;
  const tens = low.startsWith('twenty') ? 20 : low.startsWith('thirty') ? 30 : 0;
  return tens + ORDINALS.findIndex((o) => low.endsWith(o)) + 1;
}
function figures(m: RegExpMatchArray, ctx: IntakeContext): Day | undefined {
  const text = m[0].replace(/\s/g, '');
  const own = parseDay(text, ctx.notation.dateOrder, ctx.today);
  if (own.ok) return own.value;
  // What cannot be read in the order of the house may be of another: 4/22/2025.
  const other = parseDay(text, ctx.notation.dateOrder === 'mdy' ? 'dmy' : 'mdy', ctx.today);
  return other.ok ? other.value : undefined;
}
function ago(n: number, unit: string, today: Day): Day {
  if (unit.startsWith('day')) return addDays(today, -n);
  if (unit.startsWith('week')) return addDays(today, -7 * n);
  if (unit.startsWith('fortnight')) return addDays(today, -14 * n);
  return plusMonths(today, unit.startsWith('month') ? -n : -12 * n);
}
function weekday(wanted: number, today: Day): Day {
  const own = new Date(`${today}T12:00:00Z`).getUTCDay();
  return addDays(today, -(((own - wanted + 6) % 7) + 1));
}
/** The weekday of the week before this one. */
function lastWeeks(wanted: number, today: Day): Day {
  const own = (new Date(`${today}T12:00:00Z`).getUTCDay() + 6) % 7;
  return addDays(today, -own - 7 + ((wanted + 6) % 7));
}
/** Thursday of a calendar week. */
function weekNo(n: number, today: Day): Day | undefined {
  if (n < 1 || n > 53) return undefined;
  const at = (year: number): Day => {
    const first = new Date(Date.UTC(year, 0, 4));
    return addDays(`${year}-01-04`, 7 * (n - 1) + 3 - ((first.getUTCDay() + 6) % 7));
  };
  return at(thisYear(today)) <= today ? at(thisYear(today)) : at(thisYear(today) - 1);
}

/** Ways in which a day is told, the fullest first. */
const FORMS: readonly Form[] = [
  { re: /\b\d{4}-\d{2}-\d{2}\b/g, read: figures },
  {
    re: /\b(20\d{2})(0[1-9]|1[0-2])([0-2]\d|3[01])\b/g,
    read: (m) => real(Number(m[1]), Number(m[2]), Number(m[3])),
  },
  { re: /(?<![\d.,/-])\d{1,2}[./-]\s?\d{1,2}[./-]\s?(?:\d{4}|\d{2})(?![\d/])/g, read: figures },
  {
    re: re(`\\b(\\d{1,2})(?:st|nd|rd|th)?\\.?\\s+(?:of\\s+)?(${month})[\\s,]+(\\d{4})\\b`),
    read: (m) => real(Number(m[3]), monthNo(nth(m, 2)), Number(m[1])),
  },
  {
    re: re(`\\b(${month})\\s+(\\d{1,2})(?:st|nd|rd|th)?,?\\s+(?:(\\d{4})\\b|['’](\\d{2})\\b)`),
    read: (m) => real(yearOf(m[3] ?? nth(m, 4)), monthNo(nth(m, 1)), Number(m[2])),
  },
  {
    re: re(`\\b(${ordinal})\\s+(?:of\\s+)?(${month})(?:\\s+(\\d{4}))?(?:\\s+(last year))?`),
    read: (m, c) =>
      m[3]
        ? real(Number(m[3]), monthNo(nth(m, 2)), ordinalOf(nth(m, 1)))
        : m[4]
          ? real(thisYear(c.today) - 1, monthNo(nth(m, 2)), ordinalOf(nth(m, 1)))
          : latest(monthNo(nth(m, 2)), ordinalOf(nth(m, 1)), c.today),
  },
  {
    re: re(`\\b(\\d{1,2})(?:st|nd|rd|th)?\\s+(?:of\\s+)?(${month})(?:\\s+(last year))?(?![\\w])`),
    read: (m, c) =>
      m[3]
        ? real(thisYear(c.today) - 1, monthNo(nth(m, 2)), Number(m[1]))
        : latest(monthNo(nth(m, 2)), Number(m[1]), c.today),
  },
  {
    re: re(`\\blast\\s+year,?\\s+(?:in\\s+)?(${month})`),
    read: (m, c) => real(thisYear(c.today) - 1, monthNo(nth(m, 1)), 1),
    u: MONTH_U,
  },
  {
    re: re(`\\b(${month})\\s+last\\s+year\\b`),
    read: (m, c) => real(thisYear(c.today) - 1, monthNo(nth(m, 1)), 1),
    u: MONTH_U,
  },
  {
    re: re(`\\b(${month})\\s+(?:of\\s+)?(?:(\\d{4})\\b|['’](\\d{2})\\b)`),
    read: (m) => real(yearOf(m[2] ?? nth(m, 3)), monthNo(nth(m, 1)), 1),
    u: MONTH_U,
  },
  {
    re: /\b(0?[1-9]|1[0-2])\/((?:19|20)\d{2})\b/g,
    read: (m) => real(Number(m[2]), Number(m[1]), 1),
    u: MONTH_U,
  },
  {
    re: re(`\\b(${month})\\s+(\\d{1,2})(?:st|nd|rd|th)\\b`),
    read: (m, c) => latest(monthNo(nth(m, 1)), Number(m[2]), c.today),
  },
  {
    re: /\b(\d{1,2})\.(\d{1,2})\.(?!\d)/g,
    weak: true,
    read: (m, c) =>
      Number(m[2]) <= 12 && Number(m[1]) <= 31 ? latest(Number(m[2]), Number(m[1]), c.today) : undefined,
  },
  {
    re: re(`\\b(spring|summer|autumn|winter)\\s+(?:of\\s+)?(\\d{4})\\b`),
    read: (m) => real(Number(m[2]), SEASONS[nth(m, 1).toLowerCase()] ?? 1, 1),
    u: SEASON_U,
  },
  {
    re: re(`\\b(?:last|this)\\s+(spring|summer|autumn|winter)\\b`),
    read: (m, c) => latest(SEASONS[nth(m, 1).toLowerCase()] ?? 1, 1, c.today),
    u: SEASON_U,
  },
  {
    re: re(`\\b(?:last|in|since|early|late|mid|done)\\s+(?:in\\s+)?(${month})(?![\\w])`),
    read: (m, c) => latest(monthNo(nth(m, 1)), 1, c.today),
    u: MONTH_U,
  },
  { re: /\b(?:the )?night before last\b/gi, read: (_, c) => addDays(c.today, -2) },
  { re: /\bday before yesterday\b/gi, read: (_, c) => addDays(c.today, -2) },
  {
    re: re(`\\b(?:on\\s+)?(${DAYS.join('|')})\\s+(?:of\\s+)?last\\s+week\\b`),
    read: (m, c) => lastWeeks(DAYS.indexOf(nth(m, 1).toLowerCase()), c.today),
  },
  {
    re: re(`\\b(${count})\\s+(day|week|fortnight|month)s?\\s+(?:ago|back)(?:\\s+to the day)?\\b`),
    read: (m, c) => ago(countOf(nth(m, 1)), nth(m, 2).toLowerCase(), c.today),
    u: WEEK_U,
  },
  {
    re: re(`\\b(?:before|since)\\s+(${count})\\s+(day|week|month)s\\b`),
    read: (m, c) => ago(countOf(nth(m, 1)), nth(m, 2).toLowerCase(), c.today),
    u: WEEK_U,
  },
  {
    re: re(`\\b(${count})\\s+(years?|yrs?)\\s+(?:ago|back)\\b`),
    read: (m, c) => ago(countOf(nth(m, 1)), 'year', c.today),
    u: YEAR_U,
  },
  {
    re: /\b(?:week|wk|kw)\s?(\d{1,2})\b(?!\s*(?:days|km))/gi,
    read: (m, c) => weekNo(Number(m[1]), c.today),
    u: WEEK_U,
  },
  { re: /\b(yesterday|yday)\b/gi, read: (_, c) => addDays(c.today, -1) },
  { re: /\blast night\b/gi, read: (_, c) => addDays(c.today, -1) },
  { re: /\b(today|this morning)\b/gi, read: (_, c) => c.today },
  {
    re: /\blast\s+(week|month|year)\b/gi,
    read: (m, c) => ago(1, nth(m, 1).toLowerCase(), c.today),
    u: MONTH_U,
  },
  {
    re: re(`\\b(?:on|since|last|came)\\s+(${DAYS.join('|')})\\b`),
    read: (m, c) => weekday(DAYS.indexOf(nth(m, 1).toLowerCase()), c.today),
  },
  {
    re: re(`\\b(?:done|fitted|changed|replaced)(?:\\s+\\w+){0,2}\\s+(${month})(?![\\w])`),
    read: (m, c) => latest(monthNo(nth(m, 1)), 1, c.today),
    u: MONTH_U,
  },
  {
    re: /\b(?:in|done|of|from|since|built|fitted|replaced|year|renewed|changed)\s+(?:in\s+)?((?:19|20)\d{2})\b(?!\s*(?:km|mi|miles|rpm))/gi,
    read: (m) => `${nth(m, 1)}-07-01`,
    u: YEAR_U,
  },
];

/** Days as people tell them against today: "last March", "3.11.", "two weeks ago", "the fourteenth of August", "week 20". */
export function daysTold(body: string, ctx: IntakeContext): DayTold[] {
  const out: DayTold[] = [];
  const put = (day: Day | undefined, from: number, to: number, u?: number, weak?: true) => {
    if (day === undefined || out.some((o) => o.span.from < to && from < o.span.to)) return;
    out.push({ day, span: { from, to }, ...(u === undefined ? {} : { u }), ...(weak ? { weak } : {}) });
  };
  for (const [feast, day] of FEASTS) {
    const m = re(`${feast.source}(\\s+(?:day\\s+)?last\\s+year|\\s+this\\s+year|\\s+(\\d{4}))?`).exec(body);
    if (!m) continue;
    const [mo, d] = day.split('-').map(Number);
    const year = m[2] ? Number(m[2]) : (m[1] ?? '').includes('last') ? thisYear(ctx.today) - 1 : undefined;
    put(
      year === undefined ? latest(mo ?? 1, d ?? 1, ctx.today) : real(year, mo ?? 1, d ?? 1),
      m.index,
      m.index + m[0].length,
    );
  }
  for (const { re: form, read, u, weak } of FORMS)
    for (const m of body.matchAll(form)) put(read(m, ctx), m.index, m.index + m[0].length, u, weak);
  return out.sort((a, b) => a.span.from - b.span.from);
}
