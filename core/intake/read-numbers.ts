import { type Catalogue, foldCode } from '@core/catalogue/find-records';
import { oncePer } from '@core/quantity/keep';
import { must, nth } from '@core/quantity/must';
import type { IntakeContext } from './context';
import { findPhrases, hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import { code, JOINED } from './read-codes';
import { KIND_OF_PART } from './read-label';
import { beginOf, sentenceOf, tokenAt, type Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

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
