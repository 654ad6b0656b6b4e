import { must, nth } from '@core/quantity/must';
import { findPhrases, hasPhrase, spanOf } from './phrases';
import type { Proposal, TextSpan } from './proposal';
import { negatedAt } from './read-choices';
import type { Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

/** Words of a heading that says what is in a box, and no more. */
const HEADING = 4;

/** Parts that were sent in: named in a sentence that says so, or in the list that it heads. */
export function readSent(said: Speech): Proposal[] {
  const { text } = said;
  const keys: string[] = [];
  const spans: TextSpan[] = [];
  const label = /\b(?:box|contents|parts returned|returned|enclosed|ret)\.?\s*:/i.exec(text);
  const listed = listedUnder(said);
  const returned = hasPhrase(said.tokens, WORDS.returns);
  said.sentences.forEach((sentence, i) => {
    const first = nth(sentence, 0);
    const before = said.sentences[i - 1];
    const labelled = label !== null && first.from <= label.index && label.index <= must(sentence.at(-1)).to;
    const heads =
      before !== undefined &&
      before.length <= HEADING &&
      hasPhrase(before, ['returned box', 'return box', 'box', 'goods in']);
    // What lies in the box of a new kit was not sent in.
    const cue = findPhrases(sentence, WORDS.sent).filter((f) => returned || !f.phrase.endsWith('box'));
    if (!labelled && !heads && !listed.has(i) && cue.length === 0) return;
    // Somebody else sent it, or it only may be: "the shop sent us", "nothing has been sent".
    if (hasPhrase(sentence, WORDS.notSent) || (said.clauses.get(first.clause)?.mood ?? 'stated') !== 'stated')
      return;
    const all = Object.entries(WORDS.parts).flatMap(([key, phrases]) =>
      findPhrases(sentence, phrases).map((f) => ({ key, ...f })),
    );
    for (const f of all) {
      // "guide roller" is no roller beside a guide; of two readings of one place the longer holds.
      if (all.some((g) => g !== f && g.at <= f.at && f.at + f.n <= g.at + g.n && g.n > f.n)) continue;
      if (named(sentence, f.at, f.n) || negatedAt(sentence, f.at, f.n) || stayed(sentence, f.at)) continue;
      if (!keys.includes(f.key)) keys.push(f.key);
      spans.push(spanOf(sentence, f.at, f.n));
    }
  });
  return keys.length === 0
    ? []
    : [{ key: 'parts.sent', value: keys, how: 'reported', sure: 'likely', spans }];
}

/** Sentences of a list under "In the box:". */
function listedUnder(said: Speech): ReadonlySet<number> {
  const out = new Set<number>();
  const head = /\b(?:in the box|enclosed|we send you|contents|parts sent)\b[^\n:]*:\s*\n/i.exec(said.text);
  if (!head) return out;
  const from = head.index + head[0].length;
  const end = from + (/\n\s*\n|\n(?!\s*[-–·•*\d])/.exec(said.text.slice(from))?.index ?? said.text.length);
  said.sentences.forEach((s, i) => {
    if (nth(s, 0).from >= from && nth(s, 0).from < end) out.add(i);
  });
  return out;
}

/** "Chain and rails stayed in the vehicle": they did not come. */
const stayed = (sentence: readonly Token[], at: number): boolean => {
  const clause = nth(sentence, at).clause;
  return hasPhrase(
    sentence.filter((t) => t.clause === clause),
    WORDS.stayed,
  );
};

/** "belt kit", "water pump bearing", "belt jump off": the part is named for something else. */
const named = (sentence: readonly Token[], at: number, n: number): boolean =>
  WORDS.partOf.includes(sentence[at + n]?.low ?? '') &&
  nth(sentence, at + n).from - nth(sentence, at + n - 1).to < 3;
