import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { oncePer } from '@core/quantity/keep';
import { nth } from '@core/quantity/must';
import { type Observable, optionsOf, type Registry } from '@core/facts/observable';
import data from './data/states.json';
import type { TaughtWord } from './taught-words';
import { stemsOf, type Token } from './text';
import { WORDS } from './words';

const Words = z.array(z.string().min(1));
const ByOption = z.record(z.string(), Words);

/**
 * How people say what can be seen, by observable: names of what it is about (`of`), what says an option beside such a name
 * (`says`), what says it alone, words one of which has to stand nearby, and what a denied option means. "*" stands for up to
 * three words.
 */
const StatesSchema = z.record(
  z.string(),
  z.strictObject({
    of: Words.optional(),
    near: Words.optional(),
    says: ByOption.optional(),
    alone: ByOption.optional(),
    denied: z.record(z.string(), z.string()).optional(),
  }),
);
export const STATES = StatesSchema.parse(data);

/** What a phrase means where it stands. */
type Meaning = { key: string; as: 'of' | 'near' | 'says' | 'alone'; option?: string; plural?: true };
export type PhraseHit = Meaning & { at: number; n: number };
type Entry = { stems: readonly string[]; meanings: Meaning[] };
/** A name of one word in the plural means several: "edges" are both, "edge" is one. */
const PLURAL = /^[a-z]+[^s]s$/;
/** What is said of which observables, by first words. */
export type Lexicon = {
  byFirst: ReadonlyMap<string, readonly Entry[]>;
  observables: ReadonlyMap<string, Observable>;
};

/** Words of the house, learned from what was corrected. */
export type Taught = readonly TaughtWord[];
const NONE: Taught = [];

/** Words a gap in a phrase stands for at most. */
const GAP = 3;

/** Words of an option's wording that stand for it: up to the first comma, colon or "or". */
const heads = (wording: string): string[] => {
  const first = nth(wording.split(/[,:;(]| or /), 0).trim();
  return first.split(' ').length <= 4 ? [first] : [];
};
const EMPTY_HEAD =
  /^(yes|no|none|never|one|both|several|some|other|elsewhere|right|low|high|whole|hot|cold|new|good|nothing)$/i;

const readable = (o: Observable): boolean =>
  o.type.kind === 'choice' &&
  !o.key.startsWith('feature.') &&
  o.part !== 'old' &&
  o.part !== 'drive' &&
  o.part !== 'bank' &&
  o.part !== 'step' &&
  (!o.hidden || o.line === true) &&
  o.place === undefined &&
  o.key !== 'case.kind' &&
  o.key !== 'claim.decision';

/** Stems of a phrase, "*" for its gaps. */
const gappedStems = (phrase: string): readonly string[] =>
  phrase
    .split('*')
    .map((part) => stemsOf(part))
    .flatMap((s, i) => (i === 0 ? s : ['*', ...s]));
const gappedOf = oncePer(
  (phrases: readonly string[]): ReadonlyMap<string, readonly (readonly string[])[]> => {
    const out = new Map<string, (readonly string[])[]>();
    for (const phrase of phrases) {
      const stems = gappedStems(phrase);
      const [first] = stems;
      if (first !== undefined) out.set(first, [...(out.get(first) ?? []), stems]);
    }
    return out;
  },
);

const lexicons = oncePer((registry: Registry) =>
  oncePer((taught: Taught): Lexicon => {
    const byFirst = new Map<string, Entry[]>();
    const observables = new Map<string, Observable>();
    const put = (phrase: string, meaning: Meaning) => {
      const stems = gappedStems(phrase);
      const [first] = stems;
      if (first === undefined || first === '*') return;
      const list = byFirst.get(first) ?? [];
      const same = list.find(
        (e) => e.stems.length === stems.length && e.stems.every((s, i) => s === stems[i]),
      );
      if (same) {
        if (
          !same.meanings.some(
            (m) =>
              m.key === meaning.key &&
              m.as === meaning.as &&
              m.option === meaning.option &&
              m.plural === meaning.plural,
          )
        )
          same.meanings.push(meaning);
      } else list.push({ stems, meanings: [meaning] });
      byFirst.set(first, list);
    };
    for (const o of registry.values()) {
      if (!readable(o)) continue;
      observables.set(o.key, o);
      const own = STATES[o.key];
      for (const name of own?.of ?? [o.wording, ...o.aliases.filter((a) => a.length > 2)])
        put(name, { key: o.key, as: 'of', ...(PLURAL.test(name) ? { plural: true as const } : {}) });
      for (const word of own?.near ?? []) put(word, { key: o.key, as: 'near' });
      const common = optionsOf(o).flatMap((x) => heads(x.wording));
      for (const x of optionsOf(o)) {
        // What begins the wording of two options tells neither.
        const wording = heads(x.wording).filter((h) => common.filter((c) => c === h).length === 1);
        const said = [...(own?.says?.[x.key] ?? []), ...(x.also ?? []), ...wording];
        for (const word of said)
          if (!EMPTY_HEAD.test(word) || own?.says?.[x.key]?.includes(word))
            put(word, { key: o.key, as: 'says', option: x.key });
        for (const word of own?.alone?.[x.key] ?? []) put(word, { key: o.key, as: 'alone', option: x.key });
      }
    }
    for (const t of taught)
      if (observables.has(t.key)) put(t.phrase, { key: t.key, as: 'alone', option: t.option });
    for (const list of byFirst.values()) list.sort((a, b) => b.stems.length - a.stems.length);
    return { byFirst, observables };
  }),
);

/** The lexicon of a registry, with what the house taught. */
export const lexiconOf = (registry: Registry, taught: Taught = NONE): Lexicon => lexicons(registry)(taught);

/** Every phrase of the lexicon in a text: for each observable and meaning the longest at a place. */
export function hitsIn(tokens: readonly Token[], lexicon: Lexicon): PhraseHit[] {
  const out: PhraseHit[] = [];
  for (let at = 0; at < tokens.length; at++) {
    const taken = new Set<string>();
    for (const e of lexicon.byFirst.get(nth(tokens, at).stem) ?? []) {
      const n = lengthAt(tokens, at, e.stems);
      if (n === 0) continue;
      for (const m of e.meanings) {
        const slot = `${m.key} ${m.as}`;
        if (taken.has(slot) || (m.plural === true && !nth(tokens, at).low.endsWith('s'))) continue;
        taken.add(slot);
        out.push({ ...m, at, n });
      }
    }
  }
  return out;
}

/** Tokens that a phrase with gaps takes from a place on, in one sentence; 0 where it does not stand there. */
function lengthAt(tokens: readonly Token[], at: number, stems: readonly string[]): number {
  const sentence = nth(tokens, at).sentence;
  let i = at;
  for (let k = 0; k < stems.length; k++) {
    const wanted = nth(stems, k);
    if (wanted === '*') {
      const next = stems[k + 1];
      let skipped = 0;
      while (skipped <= GAP && tokens[i]?.stem !== next) {
        i++;
        skipped++;
      }
      if (skipped > GAP) return 0;
      continue;
    }
    const t = tokens[i];
    if (t?.stem !== wanted || t.sentence !== sentence) return 0;
    i++;
  }
  return i - at;
}

/** Places of phrases with gaps among tokens: "swap * what". */
export function gapped(tokens: readonly Token[], phrases: readonly string[]): { at: number; n: number }[] {
  const index = gappedOf(phrases);
  const out: { at: number; n: number }[] = [];
  for (let at = 0; at < tokens.length; at++) {
    let n = 0;
    for (const s of index.get(nth(tokens, at).stem) ?? []) n = Math.max(n, lengthAt(tokens, at, s));
    if (n > 0) out.push({ at, n });
  }
  return out;
}

const NOUNS: ReadonlyMap<string, string> = new Map(
  Object.entries(WORDS.nouns).flatMap(([kind, words]) =>
    words.flatMap((w) => stemsOf(w).map((s) => [s, kind] as const)),
  ),
);
/** Kind of part that a word names; undefined for other words. */
export const kindNamed = (t: Token): string | undefined => NOUNS.get(t.stem);
