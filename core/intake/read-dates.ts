import { nth } from '@core/quantity/must';
import { addDays, type Day, parseDay, plusMonths, MONTH_U } from '@core/quantity/dates';
import type { IntakeContext } from './context';
import { groupBy, hasPhrase } from './phrases';
import type { Proposal, TextSpan } from './proposal';
import type { Token } from './text';
import { WORDS } from './words';

const MONTHS = 'january february march april may june july august september october november december'.split(
  ' ',
);
const DAYS = 'sunday monday tuesday wednesday thursday friday saturday'.split(' ');
const month = `(?:${MONTHS.map((m) => `${m}|${m.slice(0, 3)}`).join('|')}|sept)`;

type Told = {
  day: Day;
  span: TextSpan;
  /** "a week ago" is of a day, "last March" of a month. */ rough: boolean;
};
type Form = { re: RegExp; read: (m: RegExpExecArray, ctx: IntakeContext) => Day | undefined; rough: boolean };

const monthNo = (name: string): number =>
  MONTHS.findIndex((m) => m.startsWith(name.toLowerCase().slice(0, 3))) + 1;
const pad = (n: number): string => String(n).padStart(2, '0');
/** The latest such day that is not to come. */
const latest = (month: number, day: number, today: Day): Day => {
  const year = Number(today.slice(0, 4));
  const own = `${year}-${pad(month)}-${pad(day)}`;
  return own <= today ? own : `${year - 1}-${pad(month)}-${pad(day)}`;
};
const read = (text: string, ctx: IntakeContext): Day | undefined => {
  const day = parseDay(text, ctx.notation.dateOrder, ctx.today);
  return day.ok ? day.value : undefined;
};

/** Ways in which a day is told, the fullest first. */
const FORMS: readonly Form[] = [
  { re: /\b\d{4}-\d{2}-\d{2}\b/g, read: (m, c) => read(m[0], c), rough: false },
  {
    re: /\b\d{1,2}[./]\s?\d{1,2}[./]\s?(?:\d{4}|\d{2})\b/g,
    read: (m, c) => read(m[0].replace(/\s/g, ''), c),
    rough: false,
  },
  {
    re: new RegExp(`\\b\\d{1,2}(?:st|nd|rd|th)?\\.?\\s+(?:of\\s+)?${month}\\s+\\d{4}\\b`, 'gi'),
    read: (m, c) => read(m[0].replace(/(\d)(st|nd|rd|th)/i, '$1').replace(/\bof\s+/i, ''), c),
    rough: false,
  },
  {
    re: new RegExp(`\\b(${month})\\s+(\\d{1,2}),?\\s+(\\d{4})\\b`, 'gi'),
    read: (m, c) => read(`${m[2]} ${m[1]} ${m[3]}`, c),
    rough: false,
  },
  {
    re: new RegExp(`\\blast\\s+year,?\\s+(?:in\\s+)?(${month})\\b`, 'gi'),
    read: (m, c) => `${Number(c.today.slice(0, 4)) - 1}-${pad(monthNo(nth(m, 1)))}-01`,
    rough: true,
  },
  {
    re: new RegExp(`\\b(${month})\\s+last\\s+year\\b`, 'gi'),
    read: (m, c) => `${Number(c.today.slice(0, 4)) - 1}-${pad(monthNo(nth(m, 1)))}-01`,
    rough: true,
  },
  { re: new RegExp(`\\b(${month})\\.?\\s+(\\d{4})\\b`, 'gi'), read: (m, c) => read(m[0], c), rough: true },
  {
    re: /\b(\d{1,2})\.(\d{1,2})\.(?!\d)/g,
    read: (m, c) =>
      Number(m[2]) <= 12 && Number(m[1]) <= 31 ? latest(Number(m[2]), Number(m[1]), c.today) : undefined,
    rough: false,
  },
  {
    re: new RegExp(`\\b(?:last|in|since)\\s+(${month})\\b`, 'gi'),
    read: (m, c) => latest(monthNo(nth(m, 1)), 1, c.today),
    rough: true,
  },
  {
    re: /\b(a|an|one|two|three|four|five|six|several|\d{1,2})\s+(day|week|month|year)s?\s+(?:ago|back)\b/gi,
    read: (m, c) => ago(countOf(nth(m, 1)), nth(m, 2).toLowerCase(), c.today),
    rough: true,
  },
  { re: /\b(yesterday|today)\b/gi, read: (m, c) => read(nth(m, 1), c), rough: false },
  {
    re: /\blast\s+(week|month|year)\b/gi,
    read: (m, c) => ago(1, nth(m, 1).toLowerCase(), c.today),
    rough: true,
  },
  {
    re: new RegExp(`\\b(?:on|since|last)\\s+(${DAYS.join('|')})\\b`, 'gi'),
    read: (m, c) => weekday(DAYS.indexOf(nth(m, 1).toLowerCase()), c.today),
    rough: false,
  },
  {
    re: /\b(?:in|done|of|from|since|built|fitted|replaced)\s+((?:19|20)\d{2})\b/gi,
    read: (m) => `${m[1]}-01-01`,
    rough: true,
  },
];

/** "a", "two", "3". */
const countOf = (said: string): number =>
  /^an?$/i.test(said) ? 1 : (WORDS.numbers[said.toLowerCase()] ?? Number(said));

function ago(n: number, unit: string, today: Day): Day {
  if (unit === 'day') return addDays(today, -n);
  if (unit === 'week') return addDays(today, -7 * n);
  return plusMonths(today, unit === 'month' ? -n : -12 * n);
}

function weekday(wanted: number, today: Day): Day {
  const own = new Date(`${today}T12:00:00Z`).getUTCDay();
  return addDays(today, -(((own - wanted + 6) % 7) + 1));
}

/** Days as people tell them against today: "last March", "3.11.", "two weeks ago", "12 March 2024". */
function daysTold(text: string, ctx: IntakeContext): Told[] {
  const out: Told[] = [];
  for (const { re, read: readDay, rough } of FORMS)
    for (const m of text.matchAll(re)) {
      const span = { from: m.index, to: m.index + m[0].length };
      if (out.some((o) => o.span.from < span.to && span.from < o.span.to)) continue;
      const day = readDay(m, ctx);
      if (day !== undefined) out.push({ day, span, rough });
    }
  return out.sort((a, b) => a.span.from - b.span.from);
}

/** What each day told is of: the last word before it, in its sentence, that says so. Days of nothing in particular stay words. */
export function readDates(text: string, tokens: readonly Token[], ctx: IntakeContext): Proposal[] {
  const out: Proposal[] = [];
  for (const d of daysTold(text, ctx)) {
    const sentence = groupBy(tokens, 'sentence').find((s) =>
      s.some((t) => t.to > d.span.from && t.from < d.span.to),
    );
    const own = sentence ?? [];
    const first = own.findIndex((t) => t.to > d.span.from);
    const before = own.slice(0, first < 0 ? own.length : first);
    const key = roleOf(before) ?? roleOf(own.slice(first, first + 8));
    if (key !== undefined)
      out.push({
        key,
        value: d.day,
        how: 'reported',
        sure: d.rough ? 'likely' : 'sure',
        spans: [d.span],
        ...(d.rough && d.day.endsWith('-01') ? { month: true as const, u: MONTH_U } : {}),
      });
  }
  return out;
}

const ROLES = [
  ['vehicle.built', WORDS.built],
  ['case.date', WORDS.failed],
  ['kit.fitted', WORDS.fitted],
] as const;

function roleOf(words: readonly Token[]): string | undefined {
  for (let i = words.length - 1; i >= 0; i--) {
    const from = words.slice(i);
    // A vehicle's first use is not its making, and a purchase no fitting.
    if (hasPhrase(from, WORDS.otherDays)) return undefined;
    for (const [key, cues] of ROLES) if (hasPhrase(from, cues)) return key;
  }
  return undefined;
}
