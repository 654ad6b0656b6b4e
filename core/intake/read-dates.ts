import { nth } from '@core/quantity/must';
import { MONTH_U } from '@core/quantity/dates';
import type { IntakeContext } from './context';
import type { DayTold } from './days';
import { findPhrases, hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import type { Said } from './said';
import type { Token } from './text';
import { WORDS } from './words';

const ROLES = [
  ['vehicle.built', WORDS.built],
  ['kit.fitted', WORDS.fitted],
  ['case.date', WORDS.failed],
] as const;
/** Days of nothing that is filed. */
const OTHER = 'other';

/** What each day told is of, by what is said of it in its clause and before. Days of nothing in particular stay words. */
export function readDates(said: Said, days: readonly DayTold[], _ctx: IntakeContext): Proposal[] {
  return days.flatMap((d): Proposal[] => {
    const sentence = said.sentences.find((s) => s.some((t) => t.to > d.span.from && t.from < d.span.to)) ?? [];
    const first = sentence.findIndex((t) => t.to > d.span.from);
    if (first < 0) return [];
    const last = sentence.findIndex((t) => t.from >= d.span.to);
    const behind = sentence.slice(last < 0 ? sentence.length : last);
    const clause = nth(sentence, first).clause;
    const inside = sentence.filter((t) => t.from >= d.span.from && t.from < d.span.to);
    const own = sentence.slice(0, first).filter((t) => t.clause === clause);
    const before = sentence.slice(0, first).filter((t) => t.clause !== clause);
    const next = behind.filter((t) => t.clause === clause || (t.clause === clause + 1 && behind.length < 9));
    const mood = said.clauses.get(clause);
    // What is planned or may be is no day of something done.
    if (mood?.mood === 'plan' || mood?.mood === 'if') return [];
    const key = roleOf(inside, false) ?? roleOf(own, true) ?? roleOf(next.slice(0, 8), false) ?? roleOf(before, true) ?? roleOf(behind.slice(0, 10), false);
    if (key === undefined || key === OTHER) return [];
    return [
      {
        key,
        value: d.day,
        how: 'reported',
        sure: mood?.mood === 'stated' || mood === undefined ? (d.u === undefined ? 'sure' : 'likely') : key === 'vehicle.built' ? 'likely' : 'ask',
        spans: [d.span],
        ...(d.u === undefined ? {} : { u: d.u }),
        ...(d.u === MONTH_U && d.day.endsWith('-01') ? { month: true as const } : {}),
      },
    ];
  });
}

/** The role told nearest: the last cue of the words before a day, the first of those behind. */
function roleOf(words: readonly Token[], back: boolean): string | undefined {
  if (words.length === 0) return undefined;
  const hits = [...ROLES, [OTHER, WORDS.otherDays] as const].flatMap(([key, cues]) =>
    findPhrases(words, cues).map((f) => ({ key, at: back ? f.at + f.n : -f.at })),
  );
  if (hits.length === 0) return undefined;
  const best = hits.reduce((a, b) => (b.at > a.at || (b.at === a.at && b.key === OTHER) ? b : a));
  return best.key === 'kit.fitted' && hasPhrase(words, WORDS.notFitting) ? OTHER : best.key;
}
