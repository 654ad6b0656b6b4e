import { oncePer, oncePerName } from '@core/quantity/keep';
import { nth } from '@core/quantity/must';
import { stemsOf, phraseAt, type Token } from './text';

/** Where one of several phrases stands. */
export type FoundPhrase = { at: number; n: number; phrase: string };

/** Phrases come from data and from the catalogue: there are so many and no more. */
const stemsKept = oncePerName<typeof stemsOf, readonly string[]>();
const stems = (phrase: string): readonly string[] => stemsKept(stemsOf, phrase, () => stemsOf(phrase));

type Entry = { phrase: string; own: readonly string[] };
/** Phrases of a list by their first word, the longest first; made once for a list. */
const indexOf = oncePer((phrases: readonly string[]): ReadonlyMap<string, readonly Entry[]> => {
  const made = new Map<string, Entry[]>();
  for (const phrase of phrases) {
    const own = stems(phrase);
    const [first] = own;
    if (first === undefined) continue;
    const list = made.get(first) ?? [];
    list.push({ phrase, own });
    made.set(first, list);
  }
  for (const list of made.values()) list.sort((a, b) => b.own.length - a.own.length);
  return made;
});

/** Every place where a phrase stands, the longest phrase at each place. */
export function findPhrases(tokens: readonly Token[], phrases: readonly string[]): FoundPhrase[] {
  const out: FoundPhrase[] = [];
  const index = indexOf(phrases);
  for (let at = 0; at < tokens.length; at++) {
    const hit = index.get(nth(tokens, at).stem)?.find((e) => phraseAt(tokens, at, e.own) > 0);
    if (hit) out.push({ at, n: hit.own.length, phrase: hit.phrase });
  }
  return out;
}

export const hasPhrase = (tokens: readonly Token[], phrases: readonly string[]): boolean =>
  findPhrases(tokens, phrases).length > 0;

/** Tokens of a group, and where they stand in the text. */
export const groupBy = (tokens: readonly Token[], by: 'sentence' | 'clause'): Token[][] => {
  const out = new Map<number, Token[]>();
  for (const t of tokens) {
    const own = out.get(t[by]);
    if (own) own.push(t);
    else out.set(t[by], [t]);
  }
  return [...out.values()];
};

export const spanOf = (tokens: readonly Token[], at: number, n: number): { from: number; to: number } => ({
  from: nth(tokens, at).from,
  to: nth(tokens, at + n - 1).to,
});
