/** A word, number or code of a text, where it stands, and the sentence and clause that it belongs to. */
export type Token = {
  readonly text: string;
  /** Lower case without apostrophes. */
  readonly low: string;
  readonly stem: string;
  readonly from: number;
  readonly to: number;
  readonly sentence: number;
  readonly clause: number;
};

const WORD = /[+−-]?\d[\d.,]*\d|[+−-]?\d|[\p{L}\d]+(?:['’][\p{L}]+)*|[°%?!.;:,()\n–—/&=]/gu;
const ENDS_SENTENCE = /^[?!.;\n]$/;
const ENDS_CLAUSE = /^[,:()–—&]$/;
const JOINS = new Set(['but', 'because', 'when', 'while', 'although', 'only', 'so']);

/** The beginning that words of one family share: plural s, -ed and -ing left out. @example stemOf('screws') // "screw" */
export function stemOf(low: string): string {
  if (low.length > 5 && low.endsWith('ing')) return low.slice(0, -3);
  if (low.length > 4 && low.endsWith('ed')) return low.slice(0, -2);
  if (low.length > 3 && low.endsWith('s') && !low.endsWith('ss')) return low.slice(0, -1);
  return low;
}

/** Words and numbers of a text in order; punctuation only counts sentences and clauses. */
export function tokensOf(text: string): Token[] {
  const out: Token[] = [];
  let [sentence, clause] = [0, 0];
  for (const m of text.matchAll(WORD)) {
    const word = m[0];
    if (ENDS_SENTENCE.test(word)) {
      // A point inside "3.11." or behind one letter ends nothing.
      sentence++;
      clause++;
      continue;
    }
    if (ENDS_CLAUSE.test(word)) {
      clause++;
      continue;
    }
    if (word === '/' || word === '=') continue;
    const low = word.toLowerCase().replace(/['’]/g, '');
    if (JOINS.has(low)) clause++;
    out.push({
      text: word,
      low,
      stem: stemOf(low),
      from: m.index,
      to: m.index + word.length,
      sentence,
      clause,
    });
  }
  return out;
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
