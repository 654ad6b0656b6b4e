import { must, nth } from '@core/quantity/must';
import { oncePer } from '@core/quantity/keep';
import { type Catalogue, foldCode } from '@core/catalogue/find-records';
import { distance } from 'fastest-levenshtein';
import type { IntakeContext } from './context';
import { knownOf } from './context';
import { hasPhrase } from './phrases';
import type { Proposal, TextSpan } from './proposal';
import { beginOf, type Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

/** Words joined into one code at most. */
export const JOINED = 5;

export type CodesRead = { proposals: Proposal[]; used: Set<number> };

/** Engines, kits, parts and cross numbers, however they are spaced or dashed, whole or by their ends. */
export function readCodes(said: Speech, ctx: IntakeContext): CodesRead {
  const { codes, longest } = knownOf(ctx.catalogue);
  const { tokens } = said;
  const proposals: Proposal[] = [];
  const used = new Set<number>();
  const folds = tokens.map((t) => foldCode(t.text));
  for (let i = 0; i < tokens.length; i++) {
    if (used.has(i)) continue;
    // Codes hold no blanks of their own wider than one character.
    let most = 1;
    while (
      most < JOINED &&
      i + most < tokens.length &&
      nth(tokens, i + most).from - nth(tokens, i + most - 1).to <= 2
    )
      most++;
    for (let n = most; n > 0; n--) {
      const folded = n === 1 ? nth(folds, i) : folds.slice(i, i + n).join('');
      const entry = folded.length < 5 || folded.length > longest + 1 ? undefined : codes.get(folded);
      if (!entry || !/\d/.test(folded)) continue;
      const run = tokens.slice(i, i + n);
      const span = { from: nth(run, 0).from, to: must(run.at(-1)).to };
      for (let k = i; k < i + n; k++) used.add(k);
      if (entry.kind !== 'part' && !denied(said, i, i + n))
        proposals.push(
          code(
            entry.kind === 'engine' ? 'engine.code' : 'kit.number',
            entry.means,
            entry.kind !== 'engine' && meantFor(said, i) ? 'ask' : 'sure',
            span,
          ),
        );
      break;
    }
  }
  proposals.push(...halfKits(said, used, ctx));
  if (!proposals.some((p) => p.key === 'engine.code' || p.key === 'kit.number'))
    proposals.push(...nearCodes(tokens, used, codes));
  return { proposals, used };
}

/** A code told where it stands. */
export const code = (key: string, value: string, sure: Proposal['sure'], span: TextSpan): Proposal => ({
  key,
  value,
  how: 'reported',
  sure,
  spans: [span],
});

/** "The kit is not A but B": A is none. */
const denied = (said: Speech, from: number, to: number): boolean =>
  nth(said.tokens, Math.max(0, from - 1)).low === 'not' ||
  (said.tokens[to]?.low === 'not' && said.tokens[to]?.clause === said.tokens[from]?.clause);

/** "The kit meant for truck 7": where it went is another matter. */
const meantFor = (said: Speech, at: number): boolean => {
  const { sentence } = nth(said.tokens, at);
  return hasPhrase(
    said.tokens.slice(Math.max(0, at - 14), at).filter((t) => t.sentence === sentence),
    ['meant for', 'intended for', 'ordered for'],
  );
};

/** Kits by the ends of their numbers, as people read them out: "K302B-1", "314A", "121". */
const endsOf = oncePer((cat: Catalogue): ReadonlyMap<string, readonly string[]> => {
  const out = new Map<string, string[]>();
  const put = (end: string, number: string) => out.set(end, [...(out.get(end) ?? []), number]);
  for (const k of cat.pack.kits) {
    const folded = foldCode(k.number);
    const tail = /^[A-Z]*?([A-Z]?)(\d+[A-Z]?)(\d?)$/.exec(folded);
    if (!tail) continue;
    const [, letter = '', body = '', edition = ''] = tail;
    // The last figure is an edition only behind a letter: MF-K302B-1.
    for (const end of new Set([letter + body + edition, body + edition])) put(end, k.number);
    const base = k.number.replace(/-\d$/, '');
    const short = foldCode(base).replace(/^[A-Z]*?(?=[A-Z]?\d)/, '');
    for (const end of new Set([short, short.replace(/^[A-Z]/, '')])) put(end, k.number);
  }
  return out;
});

function halfKits(said: Speech, used: ReadonlySet<number>, ctx: IntakeContext): Proposal[] {
  const ends = endsOf(ctx.catalogue);
  const out: Proposal[] = [];
  said.sentences.forEach((s) => {
    if (!hasPhrase(s, WORDS.kits)) return;
    const first = beginOf(said, s);
    for (let i = 0; i < s.length; i++) {
      const at = first + i;
      if (used.has(at)) continue;
      for (let n = Math.min(4, s.length - i); n > 0; n--) {
        const run = s.slice(i, i + n);
        if (run.some((t, k) => k > 0 && t.from - nth(run, k - 1).to > 1)) continue;
        const folded = foldCode(run.map((t) => t.text).join(''));
        if (folded.length < 4 || !/\d{3}/.test(folded)) continue;
        const kits = [...new Set(ends.get(folded) ?? [])];
        if (kits.length === 0) continue;
        const span = { from: nth(run, 0).from, to: must(run.at(-1)).to };
        for (const k of kits)
          out.push({
            ...code('kit.number', k, kits.length === 1 ? 'likely' : 'ask', span),
            doubt: 'half_code',
          });
        i += n - 1;
        break;
      }
    }
  });
  return out;
}

/** A code with one stroke wrong, or two changed for each other: asked, not guessed. */
function nearCodes(
  tokens: readonly Token[],
  used: ReadonlySet<number>,
  codes: ReturnType<typeof knownOf>['codes'],
): Proposal[] {
  const out: Proposal[] = [];
  tokens.forEach((t, i) => {
    const next = tokens[i + 1];
    const joined = next !== undefined && next.from - t.to <= 1 ? [t.text, t.text + next.text] : [t.text];
    for (const typed of joined) {
      const folded = foldCode(typed);
      if (used.has(i) || folded.length < 7 || !/\d/.test(typed) || !/[a-z]/i.test(typed)) continue;
      for (const [known, e] of codes)
        if (
          e.kind !== 'part' &&
          Math.abs(known.length - folded.length) < 2 &&
          (distance(known, folded) === 1 || changed(known, folded))
        )
          out.push({
            key: e.kind === 'engine' ? 'engine.code' : 'kit.number',
            value: e.means,
            how: 'reported',
            sure: 'ask',
            doubt: 'near_code',
            spans: [{ from: t.from, to: typed === t.text ? t.to : must(next).to }],
          });
    }
  });
  return out;
}

/** Two characters side by side changed for each other. */
function changed(a: string, b: string): boolean {
  if (a.length !== b.length) return false;
  const i = [...a].findIndex((c, k) => c !== b[k]);
  return i >= 0 && a[i] === b[i + 1] && a[i + 1] === b[i] && a.slice(i + 2) === b.slice(i + 2);
}
