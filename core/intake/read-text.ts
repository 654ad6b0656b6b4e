import { must, nth } from '@core/quantity/must';
import type { FactValue } from '@core/facts/fact';
import { type IntakeContext, usualSpread } from './context';
import { groupBy, hasPhrase } from './phrases';
import { type Proposal, slotOf } from './proposal';
import { readChoices } from './read-choices';
import { readCodes, readFamily, readVehicle } from './read-codes';
import { readDates } from './read-dates';
import { readLabelled } from './read-labelled';
import { readFeatures } from './read-features';
import { readAsked, readLots, readSent } from './read-lists';
import { readMarks } from './read-marks';
import { readOffset } from './read-offset';
import { readBare, readDistances, readMeasured } from './read-numbers';
import { readPeople } from './read-people';
import { type Token, tokensOf } from './text';
import { WORDS } from './words';
import { plainText } from '@core/facts/value';

/** Signs of one message that are read at most. */
export const LONGEST_MESSAGE = 20_000;
/** Share of common words below which a text is in a language that is not read here; and words from which that is judged. */
const FOREIGN = { share: 0.12, words: 12 };

export type TextRead = {
  proposals: Proposal[];
  /** Sentences of which nothing was taken: what is left of the complaint. */
  left: string;
  /** The words are of a language that is not read: only codes, figures and days were looked for. */
  foreign: boolean;
};
export type TextError = { code: 'too_long'; length: number; most: number } | { code: 'empty' };

/**
 * Reads a message into proposed facts. Deterministic: the same text, catalogue and day give the same proposals.
 * Nothing is filed; two values for one thing are both proposed, and asked.
 */
export function readText(text: string, ctx: IntakeContext): TextRead | TextError {
  if (text.trim() === '') return { code: 'empty' };
  if (text.length > LONGEST_MESSAGE) return { code: 'too_long', length: text.length, most: LONGEST_MESSAGE };
  const tokens = tokensOf(text);
  const codes = readCodes(text, tokens, ctx);
  const vehicle = readVehicle(text, tokens, ctx);
  const engines = namedEngine(codes.proposals, vehicle, tokens, ctx);
  const engine = engines.sole;
  const words = tokens.filter((_, i) => !codes.used.has(i));
  const foreign = isForeign(words);
  const found = [
    ...codes.proposals,
    ...vehicle.proposals,
    ...engines.proposals,
    ...readLabelled(text, ctx),
    ...readDistances(tokens, ctx),
    ...readMeasured(words, ctx),
    ...readDates(text, tokens, ctx),
    ...readPeople(text),
    ...readLots(text, tokens),
    ...(foreign
      ? []
      : [
          ...readMarks(words, ctx, engine),
          ...readOffset(text, tokens, ctx, engine),
          ...readFeatures(words, ctx, engine),
          ...readChoices(words, ctx),
          ...readSent(text, words),
          ...readAsked(words),
        ]),
  ];
  const proposals = settleSlots(withHearsay([...found, ...readBare(words, found)], tokens)).map((p) => {
    const u = p.u ?? usualSpread(ctx.registry.get(p.key));
    return u === undefined ? p : { ...p, u };
  });
  return { proposals, left: leftOver(text, tokens, proposals), foreign };
}

/** The engine that is meant: by its code, else by vehicle and family where they leave one. */
function namedEngine(
  codes: readonly Proposal[],
  vehicle: { engines: ReadonlySet<string>; proposals: readonly Proposal[] },
  tokens: readonly Token[],
  ctx: IntakeContext,
): { sole: string | undefined; proposals: Proposal[] } {
  const coded = codes.filter((p) => p.key === 'engine.code');
  const own = new Set(coded.filter((p) => p.sure !== 'ask').map((p) => plainText(p.value)));
  if (own.size > 0) return { sole: own.size === 1 ? [...own][0] : undefined, proposals: [] };
  const family = readFamily(tokens, ctx);
  const both =
    family && vehicle.engines.size > 0 ? [...family.engines].filter((e) => vehicle.engines.has(e)) : [];
  const meant = both.length > 0 ? both : [...(family?.engines ?? vehicle.engines)];
  if (meant.length !== 1 || coded.length > 0) return { sole: ctx.engine, proposals: [] };
  const engine = nth(meant, 0);
  if (engine === ctx.engine) return { sole: engine, proposals: [] };
  const span = family?.span ?? vehicle.proposals[0]?.spans[0];
  return {
    sole: engine,
    proposals: span
      ? [
          {
            key: 'engine.code',
            value: engine,
            how: 'reported',
            sure: 'likely',
            doubt: 'implied',
            spans: [span],
          },
        ]
      : [],
  };
}

function isForeign(tokens: readonly Token[]): boolean {
  const words = tokens.filter((t) => /^\p{L}+$/u.test(t.low));
  if (words.length < FOREIGN.words) return false;
  const common = words.filter((t) => WORDS.common.includes(t.low)).length;
  return common / words.length < FOREIGN.share;
}

/** What stands in a clause that quotes somebody bears their words as its source. */
function withHearsay(list: readonly Proposal[], tokens: readonly Token[]): Proposal[] {
  const clauses = groupBy(tokens, 'clause').filter((c) => hasPhrase(c, WORDS.hearsay));
  return list.map((p) => {
    const clause = clauses.find((c) =>
      p.spans.some((s) => s.from >= nth(c, 0).from && s.from <= must(c.at(-1)).to),
    );
    if (!clause || p.key === 'call.asked' || p.key === 'call.who') return p;
    const at = clause.findIndex((t) => hasPhrase([t], WORDS.hearsay));
    const who = clause
      .slice(Math.max(0, at - 2), at + 1)
      .map((t) => t.text)
      .join(' ');
    return { ...p, hearsay: who, sure: p.sure === 'sure' ? 'likely' : p.sure };
  });
}

const same = (a: FactValue, b: FactValue): boolean => JSON.stringify(a) === JSON.stringify(b);

/** One proposal a thing: like ones are joined, a quoted one gives way to what the writer says; two values left are asked. */
function settleSlots(list: readonly Proposal[]): Proposal[] {
  const slots = new Map<string, Proposal[]>();
  for (const p of list) {
    const own = slots.get(slotOf(p)) ?? [];
    const twin = own.find((q) => same(q.value, p.value));
    if (twin) own[own.indexOf(twin)] = { ...twin, spans: [...twin.spans, ...p.spans] };
    else own.push(p);
    slots.set(slotOf(p), own);
  }
  return [...slots.values()]
    .flatMap((own) => {
      const said = own.filter((p) => p.hearsay === undefined);
      const kept = said.length > 0 ? said : own;
      const sure = kept.filter((p) => p.sure === 'sure');
      const best = sure.length > 0 && sure.length < kept.length ? sure : kept;
      return best.length < 2
        ? best
        : best.map((p) => ({ ...p, sure: 'ask' as const, doubt: 'two_values' as const }));
    })
    .sort((a, b) => nth(a.spans, 0).from - nth(b.spans, 0).from);
}

/** Sentences in which nothing was understood, as they were written. */
function leftOver(text: string, tokens: readonly Token[], proposals: readonly Proposal[]): string {
  const spans = proposals.flatMap((p) => p.spans);
  const sentences = groupBy(tokens, 'sentence');
  return sentences
    .map((s, i) => ({ from: nth(s, 0).from, to: sentences[i + 1]?.[0]?.from ?? text.length }))
    .filter((s) => !spans.some((x) => x.from < s.to && s.from < x.to))
    .map((s) => text.slice(s.from, s.to).trim())
    .filter(Boolean)
    .join(' ');
}
