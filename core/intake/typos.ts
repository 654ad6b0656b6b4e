import { stemOf } from '@core/quantity/stem';
import { distance } from 'fastest-levenshtein';
import { GRAMMAR } from './grammar';
import { STATES } from './lexicon';
import { stemsOf, type Token } from './text';
import { WORDS } from './words';

/** Letters from which on a word is long enough that one wrong letter does not make it another. */
const LONG = 7;

const wordsIn = (data: unknown): string[] =>
  typeof data === 'string'
    ? data.toLowerCase().split(/[^a-z]+/)
    : typeof data === 'object' && data !== null
      ? Object.entries(data).flatMap(([key, value]) => [...wordsIn(key), ...wordsIn(value)])
      : [];

/** Long words of the trade by their first letter; and the stems of all words, which are no mistakes. */
const LONG_WORDS = new Map<string, string[]>();
const KNOWN = new Set<string>();
for (const word of wordsIn([STATES, WORDS, GRAMMAR])) for (const stem of stemsOf(word)) KNOWN.add(stem);
for (const word of new Set(wordsIn([STATES, WORDS]))) {
  if (word.length < LONG) continue;
  const first = word.charAt(0);
  LONG_WORDS.set(first, [...(LONG_WORDS.get(first) ?? []), word]);
}

/** A word with one letter wrong, missing or too many, as the trade writes it, where only one can be meant: "tensionner" is "tensioner". */
export function spelled(t: Token): Token {
  if (t.low.length < LONG - 1 || KNOWN.has(t.stem) || !/^[a-z]+$/.test(t.low)) return t;
  const near = (LONG_WORDS.get(t.low.charAt(0)) ?? []).filter(
    (w) => Math.abs(w.length - t.low.length) < 2 && distance(w, t.low) === 1,
  );
  const stems = new Set(near.map(stemOf));
  const [low] = near;
  return stems.size === 1 && low !== undefined ? { ...t, low, stem: stemOf(low) } : t;
}
