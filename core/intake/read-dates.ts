import { nth } from '@core/quantity/must';
import { MONTH_U } from '@core/quantity/dates';
import type { DayTold } from './days';
import { findPhrases, hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import { beginOf, sentenceOf, tokenAt, type Speech } from './said';
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
export function readDates(said: Speech, days: readonly DayTold[]): Proposal[] {
  const out: Proposal[] = [];
  // A word that told what one day is of tells nothing of the next.
  const taken = new Set<Token>();
  for (const d of days) {
    const at = tokenAt(said, d.span.from);
    if (at < 0 || nth(said.tokens, at).from >= d.span.to) continue;
    const sentence = sentenceOf(said, at);
    const first = at - beginOf(said, sentence);
    const clause = nth(sentence, first).clause;
    const mood = said.clauses.get(clause);
    // What is planned or may be is no day of something done.
    if (mood?.mood === 'plan' || mood?.mood === 'if') continue;
    const role = roleOf(sentence, first, d, taken);
    if (role === undefined) continue;
    for (const t of role.by) taken.add(t);
    if (role.key === OTHER) continue;
    const stated = mood === undefined || mood.mood === 'stated' || role.key === 'vehicle.built';
    out.push({
      key: role.key,
      value: d.day,
      how: 'reported',
      sure: !stated ? 'ask' : d.u === undefined ? 'sure' : 'likely',
      spans: [d.span],
      ...(d.u === undefined ? {} : { u: d.u }),
      ...(d.u === MONTH_U && d.day.endsWith('-01') ? { month: true as const } : {}),
    });
  }
  return out;
}

type DayRole = { key: string; by: readonly Token[] };

/** The role of a day: told in its own words, before it in its clause, behind it, or before it in its sentence. */
function roleOf(
  sentence: readonly Token[],
  first: number,
  d: DayTold,
  taken: ReadonlySet<Token>,
): DayRole | undefined {
  const behindAt = sentence.findIndex((t) => t.from >= d.span.to);
  const behind = sentence.slice(behindAt < 0 ? sentence.length : behindAt);
  const { clause } = nth(sentence, first);
  const inside = sentence.filter((t) => t.from >= d.span.from && t.from < d.span.to);
  const before = sentence.slice(0, first);
  const own = before.filter((t) => t.clause === clause);
  const next = behind
    .filter((t) => t.clause === clause || (t.clause === clause + 1 && behind.length < 9))
    .slice(0, 8);
  return (
    cueIn(inside, false, taken) ??
    cueIn(own, true, taken) ??
    cueIn(next, false, taken) ??
    cueIn(
      before.filter((t) => t.clause !== clause),
      true,
      taken,
    ) ??
    cueIn(behind.slice(0, 10), false, taken) ??
    fallback(sentence, first, behind)
  );
}

/** "Belt spring 2022", "the chain in October", "belt new on Sunday": a belt or chain and a day, and nothing else said. */
function fallback(sentence: readonly Token[], first: number, behind: readonly Token[]): DayRole | undefined {
  const { clause } = nth(sentence, first);
  const near = [...sentence.slice(Math.max(0, first - 5), first), ...behind.slice(0, 3)].filter(
    (t) => Math.abs(t.clause - clause) <= 0 || /^(new)$/.test(t.low),
  );
  const part = near.find(
    (t) =>
      t.low === 'belt' || t.low === 'belts' || t.low === 'chain' || t.low === 'kit' || t.low === 'timing',
  );
  return part && near.length <= 9 && !hasPhrase(near, WORDS.otherDays) && !hasPhrase(sentence, WORDS.failed)
    ? { key: 'kit.fitted', by: [part] }
    : undefined;
}

/** The last cue of the words before a day, the first of those behind. */
function cueIn(words: readonly Token[], back: boolean, taken: ReadonlySet<Token>): DayRole | undefined {
  if (words.length === 0) return undefined;
  const hits = [...ROLES, [OTHER, WORDS.otherDays] as const].flatMap(([key, cues]) =>
    findPhrases(words, cues)
      .map((f) => ({ key, at: back ? f.at + f.n : -f.at, by: words.slice(f.at, f.at + f.n) }))
      .filter((h) => !h.by.some((t) => taken.has(t))),
  );
  if (hits.length === 0) return undefined;
  const best = hits.reduce((a, b) => (b.at > a.at || (b.at === a.at && b.by.length > a.by.length) ? b : a));
  return best.key === 'kit.fitted' && hasPhrase(words, WORDS.notFitting) ? { key: OTHER, by: best.by } : best;
}
