import { must, nth } from '@core/quantity/must';
import { findPhrases, groupBy, hasPhrase, spanOf } from './phrases';
import type { Proposal, TextSpan } from './proposal';
import type { Said } from './said';
import type { Token } from './text';
import { WORDS } from './words';

/** Parts that were sent in: named in a sentence that says so. */
export function readSent(said: Said): Proposal[] {
  const { text, tokens } = said;
  const keys: string[] = [];
  const spans: TextSpan[] = [];
  const label = /\b(?:box|contents|parts returned|returned|enclosed)\s*:/i.exec(text);
  for (const sentence of groupBy(tokens, 'sentence')) {
    const first = nth(sentence, 0);
    const labelled = label !== null && first.from <= label.index && label.index <= must(sentence.at(-1)).to;
    const cue = findPhrases(sentence, WORDS.sent);
    if (!labelled && cue.length === 0) continue;
    // Somebody else sent it, or it only may be: "the shop sent us".
    if (hasPhrase(sentence, WORDS.notSent)) continue;
    const all = Object.entries(WORDS.parts).flatMap(([key, phrases]) =>
      findPhrases(sentence, phrases).map((f) => ({ key, ...f })),
    );
    for (const f of all) {
      // "guide roller" is no roller beside a guide; of two readings of one place the longer holds.
      if (all.some((g) => g !== f && g.at <= f.at && f.at + f.n <= g.at + g.n && g.n > f.n)) continue;
      if (named(sentence, f.at, f.n)) continue;
      if (!keys.includes(f.key)) keys.push(f.key);
      spans.push(spanOf(sentence, f.at, f.n));
    }
  }
  return keys.length === 0
    ? []
    : [{ key: 'parts.sent', value: keys, how: 'reported', sure: 'likely', spans }];
}

/** "belt kit", "water pump bearing", "belt jump off": the part is named for something else. */
const named = (sentence: readonly Token[], at: number, n: number): boolean =>
  WORDS.partOf.includes(sentence[at + n]?.low ?? '') &&
  nth(sentence, at + n).from - nth(sentence, at + n - 1).to < 3;

/** What they want to know, by how it is put. */
export function readAsked({ tokens }: Said): Proposal[] {
  const keys: string[] = [];
  const spans: TextSpan[] = [];
  for (const [key, phrases] of Object.entries(WORDS.asked)) {
    const found = findPhrases(tokens, phrases).filter((f) => !crosses(tokens, f.at, f.n));
    if (found.length === 0) continue;
    keys.push(key);
    spans.push(...found.map((f) => spanOf(tokens, f.at, f.n)));
  }
  return keys.length === 0
    ? []
    : [{ key: 'call.asked', value: keys, how: 'reported', sure: 'likely', spans }];
}

const crosses = (tokens: readonly Token[], at: number, n: number): boolean =>
  nth(tokens, at).sentence !== nth(tokens, at + n - 1).sentence;

