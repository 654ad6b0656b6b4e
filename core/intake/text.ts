import { stemOf } from '@core/quantity/stem';
import { GRAMMAR } from './grammar';

/** A word, number or code of a text, where it stands, and the sentence and clause that it belongs to. */
export type Token = {
  readonly text: string;
  /** Lower case without apostrophes, short forms written out. */
  readonly low: string;
  readonly stem: string;
  readonly from: number;
  readonly to: number;
  readonly sentence: number;
  readonly clause: number;
};

const WORD =
  /(?<![\p{L}\d])[+−-](?=[\d½¼¾.])(?:\d+(?:[.,]\d+)*|[½¼¾]|\.\d+)|(?<![\p{L}\d.])\.\d+|\d{1,2}\/\d{1,2}(?![\d/])|\d+(?:[.,]\d+)*(?=[^\p{L}\d]|$|k\b|[\p{L}°%½¼¾"″])|[½¼¾]|[\p{L}\d]+(?:['’][\p{L}]+)*|(?<=\d)[-–](?=\d)|[°%@?!.;:,()\n–—&="″+]/gu;
const ENDS_SENTENCE = /^[?!;\n]$/;
const ENDS_CLAUSE = /^[,:()–—&]$/;
const JOINS: ReadonlySet<string> = new Set(GRAMMAR.joins);
const SHORT: ReadonlyMap<string, string> = new Map(Object.entries(GRAMMAR.short));
const ABBREVIATED: ReadonlySet<string> = new Set(GRAMMAR.abbreviations);
/** Words after which a sentence without an end is cut: nobody reads on so far for what belongs together. */
const LONGEST_SENTENCE = 240;
/** Signs of a line from which it was broken by its width, not by its writer. */
const FULL_LINE = 55;

/** Words and numbers of a text in order; punctuation only counts sentences and clauses. */
export function tokensOf(text: string): Token[] {
  const out: Token[] = [];
  let [sentence, clause, line, length] = [0, 0, 0, 0];
  for (const m of text.matchAll(WORD)) {
    const word = m[0];
    const end = m.index + word.length;
    if (word === '\n' && !breaks(text, m.index, line)) {
      line = end;
      continue;
    }
    if (ENDS_SENTENCE.test(word) || (word === '.' && stops(text, m.index, out.at(-1)))) {
      if (word === '\n') line = end;
      sentence++;
      clause++;
      continue;
    }
    const range =
      (word === '–' || word === '-') && /\d/.test(text[m.index - 1] ?? '') && /\d/.test(text[end] ?? '');
    if ((ENDS_CLAUSE.test(word) && !range) || (word === '.' && !/[\p{L}\d]/u.test(text[end] ?? ''))) {
      clause++;
      continue;
    }
    if (word === '=' || word === '.' || word === '+') continue;
    // " - " parts like a dash; "go-no-go" does not.
    if (text[m.index - 1] === ' ' && text[m.index - 2] === '-' && text[m.index - 3] === ' ') clause++;
    const said = word.toLowerCase().replace(/['’]/g, '');
    const low = SHORT.get(said) ?? said;
    if (JOINS.has(low)) clause++;
    if (sentence !== out.at(-1)?.sentence) length = 0;
    if (++length > LONGEST_SENTENCE) {
      length = 1;
      sentence++;
      clause++;
    }
    out.push({ text: word, low, stem: stemOf(low), from: m.index, to: end, sentence, clause });
  }
  return out;
}

/** A point ends a sentence unless it ends a short form or stands inside a figure. */
function stops(text: string, at: number, before: Token | undefined): boolean {
  if (/[\p{L}\d]/u.test(text[at + 1] ?? '')) return false;
  if (before?.to !== at) return true;
  if (before.text.length === 1 && /[a-z]/i.test(before.text))
    return text[at + 1] !== ' ' || /^\s*\n/.test(text.slice(at + 1, at + 3));
  return !ABBREVIATED.has(before.text.toLowerCase());
}

/** A new line ends a sentence unless the line was full and the next goes on in small letters. */
function breaks(text: string, at: number, line: number): boolean {
  return at - line < FULL_LINE || !/^\p{Ll}/u.test(text.slice(at + 1, at + 2));
}

/** The stems of a phrase. */
export const stemsOf = (phrase: string): string[] => tokensOf(phrase).map((t) => t.stem);

/** Where a phrase of stems stands among tokens from `at` on, all words side by side; the number of tokens, or 0. */
export function phraseAt(tokens: readonly Token[], at: number, stems: readonly string[]): number {
  for (let k = 0; k < stems.length; k++) {
    const t = tokens[at + k];
    if (t === undefined || t.stem !== stems[k]) return 0;
  }
  return stems.length;
}
