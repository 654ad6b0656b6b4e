import { must, nth } from '@core/quantity/must';
import { oncePer } from '@core/quantity/keep';
import { type Catalogue, foldCode } from '@core/catalogue/find-records';
import { distance } from 'fastest-levenshtein';
import type { IntakeContext } from './context';
import { knownOf } from './context';
import { KIND_OF_PART } from './read-label';
import { findPhrases, hasPhrase } from './phrases';
import type { Proposal, TextSpan } from './proposal';
import { beginOf, sentenceOf, tokenAt, type Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

/** Words joined into one code at most. */
const JOINED = 5;

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

const code = (key: string, value: string, sure: Proposal['sure'], span: TextSpan): Proposal => ({
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

/** Numbers stamped on parts, whole or without the maker's letters: "tensioner (stamped ET58-B)". */
export function readStamped(said: Speech, ctx: IntakeContext): Proposal[] {
  const ends = partEndsOf(ctx.catalogue);
  return said.sentences.flatMap((s): Proposal[] => {
    const cue = findPhrases(s, WORDS.stamped)[0];
    if (!cue) return [];
    for (let i = cue.at + cue.n; i < s.length; i++)
      for (let n = Math.min(JOINED, s.length - i); n > 0; n--) {
        const run = s.slice(i, i + n);
        if (run.some((t, k) => k > 0 && t.from - nth(run, k - 1).to > 1)) continue;
        const folded = foldCode(run.map((t) => t.text).join(''));
        const numbers = folded.length < 4 || !/\d/.test(folded) ? [] : (ends.get(folded) ?? []);
        const part = numbers.length === 1 ? ctx.catalogue.parts.get(nth(numbers, 0)) : undefined;
        const about = part && KIND_OF_PART[part.kind];
        if (!part || about === undefined) continue;
        const span = { from: nth(run, 0).from, to: must(run.at(-1)).to };
        return [{ ...code('thing.number', part.number, 'likely', span), about }];
      }
    return [];
  });
}

/** Parts by their numbers, with and without the letters of the maker before them. */
const partEndsOf = oncePer((cat: Catalogue): ReadonlyMap<string, readonly string[]> => {
  const out = new Map<string, string[]>();
  for (const p of cat.pack.parts)
    for (const end of new Set([foldCode(p.number), foldCode(p.number.replace(/^[A-Z]+-/, ''))]))
      out.set(end, [...(out.get(end) ?? []), p.number]);
  return out;
});

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

/** Fault codes; that none were stored is told as well. */
export function readFaultCodes(said: Speech): Proposal[] {
  const found = said.tokens.flatMap((t): Proposal[] => {
    const m = /^([PCBU])([0-3O][0-9A-FO]{3})$/i.exec(t.text);
    if (!m || !/\d/.test(t.text)) return [];
    const value = `${nth(m, 1)}${nth(m, 2).replace(/O/gi, '0')}`.toUpperCase();
    return [
      {
        key: 'fault.codes',
        value: [value],
        how: 'reported',
        sure: 'sure',
        spans: [{ from: t.from, to: t.to }],
      },
    ];
  });
  if (found.length > 0) return found;
  const m = /\bno (?:fault |stored |error )?codes?\b(?! yet)/i.exec(said.text);
  return m
    ? [
        {
          key: 'fault.codes',
          value: [],
          how: 'reported',
          sure: 'likely',
          spans: [{ from: m.index, to: m.index + m[0].length }],
        },
      ]
    : [];
}

const CLAIM = [
  /\b(C-\d{3,6})\b/g,
  /\b(?:claim|clm)s?(?:\s+(?:number|no|nr|ref))?[.:\s#]+((?=[A-Z\d/-]*\d)[A-Z]{0,3}-?\d[\w/-]{2,15})/gi,
];

/** Claim numbers, with the word or in the form that claims here have; a reference where it is of money. */
export function readClaimNumbers(said: Speech): Proposal[] {
  const out: Proposal[] = [];
  const put = (m: RegExpMatchArray) => {
    const value = nth(m, 1);
    const from = (m.index ?? 0) + m[0].lastIndexOf(value);
    if (
      !out.some((p) => p.spans.some((s) => s.from < from + value.length && from < s.to)) &&
      !out.some((p) => p.value === value)
    )
      out.push(code('claim.number', value, 'sure', { from, to: from + value.length }));
  };
  for (const re of CLAIM) for (const m of said.text.matchAll(re)) put(m);
  if (out.length === 0 && hasPhrase(said.tokens, WORDS.money))
    for (const m of said.text.matchAll(/^\s*re\.?:\s*([A-Z]{0,3}-?\d[\w/-]{3,15})/gim)) put(m);
  return out;
}

/** Marks of a lot: of the part named in their clause, else of the box. */
export function readLots(said: Speech): Proposal[] {
  const out: Proposal[] = [];
  const text = said.text;
  const forms = [
    /\blot(?:\s+(?:mark|no|nr|number|on carton|is))?[.:;\s]+([A-Z]{0,3}-?\d[\w-]{1,12})/gi,
    /(?<![\w-])(L\d{4})\b/g,
  ];
  for (const re of forms)
    for (const m of text.matchAll(re)) {
      const value = nth(m, 1);
      const from = m.index + m[0].length - value.length;
      if (out.some((p) => p.spans[0]?.from === from)) continue;
      const at = tokenAt(said, from);
      if (at < 0 || nth(said.tokens, at).from > from) continue;
      const own = sentenceOf(said, at);
      const before = said.tokens
        .slice(Math.max(0, at - 5), at)
        .filter((t) => t.sentence === said.tokens[at]?.sentence);
      const span = { from, to: from + value.length };
      if (hasPhrase(own, ['back']) && hasPhrase(own, ['belt']) && !hasPhrase(before, WORDS.kits))
        out.push(code('belt.lot_code', value, 'sure', span));
      else {
        const begin = beginOf(said, own);
        const last = begin > 0 ? sentenceOf(said, begin - 1) : [];
        const part = hasPhrase(own, [...WORDS.kits, 'label', 'carton', 'box', 'boxes'])
          ? undefined
          : (partIn(before) ?? (hasPhrase(last, WORDS.kits) ? undefined : partIn(last)));
        out.push({
          ...code(part === undefined ? 'kit.lot' : 'thing.lot', value, 'sure', span),
          ...(part === undefined ? {} : { about: part }),
        });
      }
    }
  return out;
}

/** Kind of the last part that is named before. */
const partIn = (tokens: readonly Token[]): string | undefined => {
  for (const t of [...tokens].reverse()) {
    const kind = Object.entries(WORDS.parts).find(
      ([, names]) => names.includes(t.stem) || names.includes(t.low),
    )?.[0];
    if (kind !== undefined) return kind === 'guide' ? 'roller' : kind === 'rail' ? 'guide' : kind;
  }
  return undefined;
};
