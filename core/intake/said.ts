import { nth } from '@core/quantity/must';
import { type Figure, figuresOf } from './figures';
import { GRAMMAR } from './grammar';
import { layoutOf } from './mail-layout';
import { findPhrases, groupBy, hasPhrase } from './phrases';
import type { TextSpan } from './proposal';
import { type Token, tokensOf } from './text';
import { spelled } from './typos';

/** How a clause is meant: a finding is filed only of what is stated. */
export type Mood = 'stated' | 'asked' | 'if' | 'plan' | 'maybe';

type Clause = {
  mood: Mood;
  /** Of a state before another, by its own words. */
  earlier: boolean;
  /** Whose word it is, where it is not the writer's. */
  theirs?: string;
};

/** A message taken apart: who says what how, with its numbers; what every reader reads. */
export type Speech = {
  text: string;
  /** Tokens of the body, without quoted mail, headers and signature. */
  tokens: readonly Token[];
  sentences: readonly (readonly Token[])[];
  /** By the clause of a token. */
  clauses: ReadonlyMap<number, Clause>;
  figures: readonly Figure[];
  signature: string;
  /** Places at which something said before is put right. */
  fixes: readonly number[];
  /** Left and right were told the wrong way round. */
  swapped: boolean;
  topics: readonly { at: number; tokens: readonly Token[] }[];
  /** Where each sentence begins among the tokens, by its number. */
  begins: ReadonlyMap<number, number>;
  /** Figures by the token at which they begin. */
  figureAt: ReadonlyMap<number, Figure>;
};

/** Index of the first token that ends behind a place of the text; -1 behind the last. */
export function tokenAt(said: Pick<Speech, 'tokens'>, from: number): number {
  let [low, high] = [0, said.tokens.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (nth(said.tokens, middle).to > from) high = middle;
    else low = middle + 1;
  }
  return low < said.tokens.length ? low : -1;
}

/** Index among all tokens at which a sentence begins. */
export const beginOf = (said: Speech, sentence: readonly Token[]): number =>
  said.begins.get(nth(sentence, 0).sentence) ?? 0;

/** The sentence of a token, whole. */
export function sentenceOf(said: Speech, at: number): readonly Token[] {
  const { sentence } = nth(said.tokens, at);
  const from = said.begins.get(sentence) ?? 0;
  let to = at + 1;
  while (to < said.tokens.length && nth(said.tokens, to).sentence === sentence) to++;
  return said.tokens.slice(from, to);
}

/** Figures of a sentence. */
export function figuresIn(said: Speech, sentence: readonly Token[]): Figure[] {
  const first = beginOf(said, sentence);
  const out: Figure[] = [];
  for (let i = first; i < first + sentence.length; i++) {
    const f = said.figureAt.get(i);
    if (f) out.push(f);
  }
  return out;
}

export function saidOf(text: string): Speech {
  const layout = layoutOf(text);
  const tokens = repaired(heard(tokensOf(layout.body).map(spelled)));
  const sentences = groupBy(tokens, 'sentence');
  const clauses = new Map<number, Clause>();
  for (const s of sentences) moodsOf(s, text, clauses);
  const figures = figuresOf(tokens);
  const begins = new Map<number, number>();
  tokens.forEach((t, i) => {
    if (!begins.has(t.sentence)) begins.set(t.sentence, i);
  });
  return {
    text,
    tokens,
    sentences,
    clauses,
    begins,
    figureAt: new Map(figures.map((f) => [f.at, f])),
    figures,
    signature: layout.signature,
    fixes: [
      ...findPhrases(tokens, GRAMMAR.fixes)
        .filter((f) => !polite(tokens, f.at))
        .map((f) => nth(tokens, f.at).from),
      ...[...text.matchAll(/^\W*(?:p\.?\s?s\.?|edit|update)\b/gim)].map((m) => m.index),
    ].sort((a, b) => a - b),
    swapped: hasPhrase(tokens, GRAMMAR.swapped),
    topics: layout.asked.map((s: TextSpan) => ({ at: s.from, tokens: tokensOf(text.slice(s.from, s.to)) })),
  };
}

/** "Sorry to bother you", "sorry for the words": nothing is put right by it. */
const polite = (tokens: readonly Token[], at: number): boolean =>
  nth(tokens, at).low === 'sorry' && /^(to|for|about|but|if|that|everyone)$/.test(tokens[at + 1]?.low ?? '');

const HEARD = Object.entries(GRAMMAR.heard).map(([heard, meant]) => ({
  heard: heard.split(' '),
  meant: meant.split(' '),
}));

/** What a dictation heard instead of a word of the trade. */
function heard(tokens: readonly Token[]): Token[] {
  const out: Token[] = [];
  for (let i = 0; i < tokens.length; i++) {
    const hit = HEARD.find((h) => h.heard.every((w, k) => tokens[i + k]?.low === w));
    if (!hit) {
      out.push(nth(tokens, i));
      continue;
    }
    const [first, last] = [nth(tokens, i), nth(tokens, i + hit.heard.length - 1)];
    for (const word of hit.meant)
      out.push({
        ...first,
        ...tokensOf(word)[0],
        from: first.from,
        to: last.to,
        sentence: first.sentence,
        clause: first.clause,
        text: word,
      });
    i += hit.heard.length - 1;
  }
  return out;
}

const REPAIR = new Set([
  'no',
  'sorry',
  'hang',
  'on',
  'i',
  'mean',
  'make',
  'that',
  'rather',
  'wait',
  'er',
  'um',
]);
const REPAIRS = new Set(['sorry', 'mean', 'hang', 'rather', 'wait']);

/** A number taken back at once is no number: "seven no hang on five", "hundred and one no sorry a hundred and ten". */
function repaired(tokens: readonly Token[]): readonly Token[] {
  if (!tokens.some((t) => REPAIRS.has(t.low))) return tokens;
  const figures = figuresOf(tokens);
  const dead = new Set<number>();
  for (const f of figures) {
    const behind = f.at + f.n;
    let i = behind;
    while (i < tokens.length && REPAIR.has(nth(tokens, i).low) && i - behind < 6) i++;
    const between = tokens.slice(behind, i);
    if (!between.some((t) => REPAIRS.has(t.low))) continue;
    if (!figures.some((g) => g.at >= i && g.at <= i + 1)) continue;
    for (let k = f.at; k < i; k++) dead.add(k);
  }
  return tokens.filter((_, i) => !dead.has(i));
}

/** Words that make a question of what was said. */
const TAGS = /^(right|yeah|yes|no|ok|okay|correct|true|isnt|it|or|not|huh|eh)$/;

/** Mood of each clause of a sentence. */
function moodsOf(sentence: readonly Token[], text: string, out: Map<number, Clause>): void {
  const end = nth(sentence, sentence.length - 1).to;
  const asks = /^[^\p{L}\d.\n]*\?/u.test(text.slice(end, end + 8));
  const parts = groupBy(sentence, 'clause');
  const openers = parts.map((p) => opensAt(p));
  const first = openers.findIndex((o) => o !== undefined);
  // "M8, right?" asks what stands before it.
  const tag = parts.length > 1 && nth(parts, parts.length - 1).every((t) => TAGS.test(t.low));
  let condition = false;
  parts.forEach((p, i) => {
    const clause = nth(p, 0).clause;
    const own = openers[i];
    let mood: Mood = 'stated';
    // A question begins where it is opened; one that nothing opens is asked whole.
    const opened = first >= 0 && i >= first && (own !== undefined || isRestOf(openers, i));
    if (asks && (opened || (first < 0 && (i === parts.length - 1 || tag)))) mood = 'asked';
    else if (!asks && own !== undefined && i === first && own.sure) mood = 'asked';
    if (conditional(p)) condition = true;
    else if (condition && i > 0 && !conditional(p) && /^(but|however)$/.test(nth(p, 0).low))
      condition = false;
    if (mood === 'stated' && condition) mood = 'if';
    else if (mood === 'stated' && hasPhrase(p, GRAMMAR.maybe)) mood = 'maybe';
    else if (mood === 'stated' && hasPhrase(p, GRAMMAR.plan)) mood = 'plan';
    const theirs = theirsIn(p);
    out.set(clause, {
      mood,
      earlier: hasPhrase(p, GRAMMAR.earlier),
      ...(theirs === undefined ? {} : { theirs }),
    });
  });
  // Whose word it is goes on through the sentence.
  const who = parts.map((p) => out.get(nth(p, 0).clause)?.theirs).find((t) => t !== undefined);
  if (who === undefined) return;
  const from = parts.findIndex((p) => out.get(nth(p, 0).clause)?.theirs !== undefined);
  parts.forEach((p, i) => {
    const own = out.get(nth(p, 0).clause);
    if (own && own.theirs === undefined && (i > from || (i === from - 1 && parts.length === from + 1)))
      out.set(nth(p, 0).clause, { ...own, theirs: who });
  });
}

/** Clauses behind an opener that have none: they go on asking where the one that opened was answered by yes or no. */
const isRestOf = (openers: readonly (Opening | undefined)[], i: number): boolean => {
  for (let k = i - 1; k >= 0; k--) {
    const o = openers[k];
    if (o) return o.kind === 'yesno' && i - k <= 2;
  }
  return false;
};

type Opening = { kind: 'yesno' | 'which'; sure: boolean };
const OPENERS = new Set(GRAMMAR.openers);
const ASKERS = new Set(GRAMMAR.askers);
const SUBJECTS = /^(i|we|you|he|she|it|they|the|this|that|these|those|my|our|your|there|a|an|one|both|not)$/;

/** Whether a clause opens a question; sure: even without its mark. */
function opensAt(clause: readonly Token[]): Opening | undefined {
  const start =
    /^(and|or|so|but|also|now|then|well|question|please|ok|right|tell|is)$/.test(nth(clause, 0).low) &&
    clause.length > 1
      ? [0, 1]
      : [0];
  for (const at of start) {
    const [a, b] = [clause[at]?.low ?? '', clause[at + 1]?.low ?? ''];
    if (OPENERS.has(a) && SUBJECTS.test(b)) return { kind: 'yesno', sure: true };
    if (OPENERS.has(a) && at > 0 && b !== '') return { kind: 'yesno', sure: false };
    if (OPENERS.has(a) && clause.length > 2 && !/^(need|has|have|will|would|was|were|did|had)$/.test(a))
      return { kind: 'yesno', sure: false };
    if (ASKERS.has(a))
      return { kind: 'which', sure: !/^(when|who|where|which|whose)$/.test(a) || OPENERS.has(b) };
  }
  const inside = clause.findIndex(
    (t, i) => i > 0 && ASKERS.has(t.low) && !/^(who|where|which|whose|when|what)$/.test(t.low),
  );
  if (inside > 0) return { kind: 'which', sure: false };
  const turned = clause.findIndex(
    (t, i) =>
      i > 0 &&
      /^(do|does|is|are|can|may|should|must|could)$/.test(t.low) &&
      /^(i|we|he|they|you|it)$/.test(clause[i + 1]?.low ?? ''),
  );
  if (turned > 0) return { kind: 'yesno', sure: false };
  return undefined;
}

const conditional = (clause: readonly Token[]): boolean =>
  hasPhrase(clause, GRAMMAR.if) ||
  (GRAMMAR.ifOpens.includes(nth(clause, 0).low) &&
    /^(it|the|he|she|they|you|i|we|there)$/.test(clause[1]?.low ?? ''));

/** Whose word a clause is: the words before the verb of telling. */
function theirsIn(clause: readonly Token[]): string | undefined {
  const hit = findPhrases(clause, GRAMMAR.theirs)[0];
  if (!hit) return undefined;
  const before = clause.slice(Math.max(0, hit.at - 3), hit.at);
  if (
    before.some((t) =>
      /^(i|we|plate|sticker|label|book|sheet|slip|box|screen|gauge|dial|it|paper|papers|meter|list|receipt|clock|which|code|ticket)$/.test(
        t.low,
      ),
    )
  )
    return undefined;
  const who =
    hit.phrase === 'according to'
      ? clause.slice(hit.at + 2, hit.at + 4)
      : before.filter((t) => !/^(and|but|now|then|so|also)$/.test(t.low));
  return who.length === 0 ? hit.phrase : who.map((t) => t.text).join(' ');
}
