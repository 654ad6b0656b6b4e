import { stemOf } from '@core/quantity/stem';
import { oncePerName } from '@core/quantity/keep';
import { must, nth } from '@core/quantity/must';
import { optionsOf, type Observable } from '@core/facts/observable';
import { featuresOf, type IntakeContext } from './context';
import { GRAMMAR } from './grammar';
import { findPhrases, groupBy, hasPhrase, spanOf } from './phrases';
import type { Proposal } from './proposal';
import { moodOf, negatedAt } from './read-choices';
import type { Speech } from './said';
import { type Token } from './text';
import { WORDS } from './words';

/** "7" → "seven", as values are worded. */
const NUMBERS = new Map(
  Object.entries(GRAMMAR.numbers)
    .map(([word, n]) => [String(n), word] as const)
    .reverse(),
);
const EMPTY = new Set(WORDS.empty.map(stemOf));
/** Words between a telling word and one of the feature's name at most. */
const REACH = 7;
/** Least letters by which one word may begin another. */
const BEGINS = 4;

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter((w) => w !== '')
    .map(stemOf)
    .filter((w) => !EMPTY.has(w));

/** Two words of one family: equal, or one begins the other by four letters ("slot", "slotted"; "alu", "aluminium"). */
const alike = (said: string, own: string): boolean =>
  said === own ||
  (GRAMMAR.numbers[own] === undefined &&
    Math.min(said.length, own.length) >= BEGINS &&
    (own.startsWith(said) || said.startsWith(own)));

type Option = { key: string; telling: readonly string[]; phrases: readonly string[] };
type Feature = {
  o: Observable;
  topic: readonly string[];
  options: readonly Option[];
  /** It is there or not. */
  presence: boolean;
  /** Words one of which it takes to speak of it at all. */
  first: readonly string[];
  /** What its question names as signs of it: "(coloured hub, lock screws)". */
  signs: readonly string[];
};

const kept = oncePerName<IntakeContext['catalogue'], readonly Feature[]>();

/** Features of an engine with the words that tell their values apart, from the catalogue's own wording. */
const featuresWith = (ctx: IntakeContext, engine: string | undefined): readonly Feature[] =>
  kept(ctx.catalogue, engine ?? '', () => {
    const list = featuresOf(ctx, engine);
    const topics = new Map(list.map((o) => [o, wordsOf(o.wording)] as const));
    return list.map((o): Feature => {
      const topic = must(topics.get(o));
      const others = list.filter((x) => x !== o).flatMap((x) => must(topics.get(x)));
      const all = optionsOf(o).map((x) => ({
        key: x.key,
        words: [...new Set([...wordsOf(x.wording), ...wordsOf(x.key)])],
      }));
      const options = all.map((x) => ({
        key: x.key,
        telling: x.words.filter(
          (w) =>
            (!all.some((y) => y !== x && y.words.includes(w)) && !topic.includes(w) && !others.includes(w)) ||
            /^[a-z]$/.test(w),
        ),
        phrases: x.words.flatMap((w) => WORDS.alike[w] ?? []),
      }));
      const signs = [...(o.observe ?? '').matchAll(/\(([^)]+)\)/g)].flatMap((m) => nth(m, 1).split(','));
      return {
        o,
        topic,
        options,
        presence: all.some((x) => x.key === 'yes') && all.some((x) => x.key === 'no'),
        first: [
          ...options.flatMap((x) => [...x.telling, ...x.phrases.flatMap((p) => wordsOf(p).slice(0, 1))]),
          ...signs.flatMap(wordsOf),
          ...(all.some((x) => x.key === 'yes') ? topic : []),
        ],
        signs: signs.map((s) => s.trim()).filter((s) => s !== ''),
      };
    });
  });

/**
 * What tells an engine's designs apart, from the catalogue's own words: a word that only one value of a feature has, beside a
 * word of the feature's name; alone where no other feature of the engine has such a word. Both values in one clause say nothing.
 */
export function readFeatures(said: Speech, ctx: IntakeContext, engine: string | undefined): Proposal[] {
  const features = featuresWith(ctx, engine);
  const out: Proposal[] = [];
  const clauses = groupBy(said.tokens, 'clause');
  const stems = new Set(said.tokens.map(stemSaid));
  for (const f of features) {
    const tells = alikeAny(stems, f.first);
    if (tells.size === 0) continue;
    const names = alikeAny(stems, f.topic);
    let before: readonly Token[] = [];
    for (const clause of clauses) {
      const topics = clause.filter((t) => names.has(t.stem)).length;
      // "the screws of the cover: five", "count the screws ... Five by the way": the clause before named what is counted
      const gap = nth(clause, 0).sentence - (before[0]?.sentence ?? -9);
      let read: Proposal[] = [];
      // What the new part shows is not what the engine had.
      const fresh = topics > 0 && hasPhrase(clause, WORDS.newPart) && !hasPhrase(clause, WORDS.oldPart);
      if (!fresh && clause.some((t) => tells.has(stemSaid(t)))) {
        const carried =
          gap <= 1 &&
          topics === 0 &&
          clause.length <= 6 &&
          named(before, f.topic) >= (gap === 0 ? Math.min(2, f.topic.length) : 1);
        const words = carried ? [...before, ...clause] : clause;
        read = f.presence ? presence(f, words, engine) : inClause(f, words, clause, engine, features);
        out.push(...read.map((p) => moodOf(p, said)));
      }
      // What named the topic last is kept over what did not.
      if (read.length > 0) before = [];
      else if (topics > 0 || gap > 1) before = clause;
    }
  }
  return out;
}

const stemSaid = (t: Token): string => NUMBERS.get(t.low) ?? t.stem;

/** Of the words of a message those that are like any of a list. */
function alikeAny(stems: ReadonlySet<string>, list: readonly string[]): ReadonlySet<string> {
  const out = new Set<string>();
  for (const s of stems) if (list.some((w) => alike(s, w))) out.add(s);
  return out;
}

/** Words of a clause that name the topic. */
const named = (clause: readonly Token[], topic: readonly string[]): number =>
  clause.filter((t) => topic.some((own) => alike(t.stem, own))).length;

function inClause(
  f: Feature,
  words: readonly Token[],
  clause: readonly Token[],
  engine: string | undefined,
  features: readonly Feature[],
): Proposal[] {
  const said = words.map(stemSaid);
  const about = said.flatMap((w, i) => (f.topic.some((own) => alike(w, own)) ? [i] : []));
  const hits = f.options.flatMap((x) => {
    const at = said.findIndex((w, i) => x.telling.some((own) => tells(w, own, nth(words, i))));
    if (at >= 0) return [{ key: x.key, at, n: 1, phrase: false }];
    const hit = findPhrases(words, x.phrases)[0];
    return hit ? [{ key: x.key, at: hit.at, n: hit.n, phrase: true }] : [];
  });
  if (hits.length !== 1) return [];
  const hit = nth(hits, 0);
  const word = nth(said, hit.at);
  const plain = !hit.phrase && /^[a-z]$|^(two|three|four|five|six|seven|eight|nine)$/.test(word);
  const near = about.some((i) => (i < hit.at || i >= hit.at + hit.n) && Math.abs(i - hit.at) <= REACH);
  const own =
    engine !== undefined &&
    !plain &&
    !WORDS.plain.includes(word) &&
    (hit.phrase ||
      features.every((g) => g === f || !g.options.some((x) => x.telling.some((w) => alike(word, w)))));
  // A letter that stands alone behind the engine's name, or behind a word of where it is written.
  const letter =
    engine !== undefined &&
    /^[a-z]$/.test(word) &&
    /^[A-Z]$/.test(nth(words, hit.at).text) &&
    (clause.length <= 2 || hasPhrase(words.slice(Math.max(0, hit.at - 5), hit.at), WORDS.letters));
  if (!near && !own && !letter) return [];
  const negated = negatedAt(words, hit.at, hit.n);
  const key = negated
    ? f.options.length === 2
      ? must(f.options.find((x) => x.key !== hit.key)).key
      : undefined
    : hit.key;
  if (key === undefined) return [];
  const places = near
    ? [hit.at, hit.at + hit.n - 1, ...about.filter((i) => Math.abs(i - hit.at) <= REACH)]
    : [hit.at, hit.at + hit.n - 1];
  return [propose(f.o, key, words, places)];
}

/** A short word must be whole, a letter written large: "m8" is no beginning of anything, "a k" no letter of a plate. */
const tells = (w: string, own: string, t: Token): boolean =>
  own.length < BEGINS || w.length < BEGINS
    ? w === own && (own.length > 1 || /^[A-Z]$/.test(t.text) || t.low === own)
    : alike(w, own);

/** A thing that is there or not: its name, the word that a value adds ("converted"), or a sign that its question names. */
function presence(f: Feature, words: readonly Token[], engine: string | undefined): Proposal[] {
  const yes = must(f.options.find((x) => x.key === 'yes'));
  const denied = (at: number) => (negatedAt(words, at, 1) ? 'no' : 'yes');
  const said = words.map((t) => t.stem);
  const added = said.findIndex((w) => yes.telling.some((own) => w.length >= BEGINS && alike(w, own)));
  if (added >= 0 && nth(said, added) !== 'ye') return [propose(f.o, denied(added), words, [added])];
  if (engine === undefined) return [];
  const about = words.flatMap((t, i) => (f.topic.some((own) => alike(t.stem, own)) ? [i] : []));
  const topics = new Set(about.map((i) => f.topic.find((own) => alike(nth(words, i).stem, own))));
  const sole =
    f.topic.length === 1 &&
    about.length > 0 &&
    words.some((t) => /^(without|with|no|not|has|yes)$/.test(t.low));
  if (sole)
    return [
      propose(f.o, words.some((t) => /^(no|not|without|none)$/.test(t.low)) ? 'no' : 'yes', words, about),
    ];
  const where = hasPhrase(words, WORDS.farEnd);
  if (
    f.topic.length > 1 &&
    (topics.size >= f.topic.length || (topics.size >= 1 && where && about.length > 0))
  ) {
    const negated = words.some((t) => /^(no|not|without|none|only|just)$/.test(t.low));
    return [propose(f.o, negated ? 'no' : 'yes', words, about)];
  }
  for (const sign of f.signs) {
    const own = wordsOf(sign);
    const at = own.map((w) => said.findIndex((s) => alike(s, w)));
    // "red hub": the colour is any, the thing is named.
    const thing = at.at(-1) ?? -1;
    if (thing >= 0 && (at.every((i) => i >= 0) || WORDS.colours.includes(words[thing - 1]?.low ?? '')))
      return [propose(f.o, denied(thing), words, [thing])];
  }
  return [];
}

function propose(o: Observable, value: string, words: readonly Token[], places: readonly number[]): Proposal {
  const [from, to] = [Math.min(...places), Math.max(...places)];
  return { key: o.key, value, how: 'reported', sure: 'likely', spans: [spanOf(words, from, to - from + 1)] };
}
