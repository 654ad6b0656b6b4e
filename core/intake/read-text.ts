import { nth } from '@core/quantity/must';
import { plainText } from '@core/facts/value';
import { type IntakeContext, usualSpread } from './context';
import { daysTold } from './days';
import { type Proposal } from './proposal';
import { readChoices } from './read-choices';
import { readClaimNumbers, readCodes, readFaultCodes, readLots } from './read-codes';
import { readDates } from './read-dates';
import { readDistances } from './read-distances';
import { readFeatures } from './read-features';
import { readLabelled } from './read-labelled';
import { readAsked, readSent } from './read-lists';
import { readMarks } from './read-marks';
import { readMeasured } from './read-measured';
import { readOffset } from './read-offset';
import { readPeople } from './read-people';
import { familiesIn, mentionSpan, vehicleFact, type VehicleMention, vehiclesIn } from './read-vehicles';
import { type Said, saidOf } from './said';
import { settled } from './settle-proposals';
import type { Token } from './text';
import { WORDS } from './words';

/** Characters of one message that are read at most. */
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
  const said = saidOf(text);
  const days = daysTold(said.text, ctx);
  const codes = readCodes(said, ctx);
  const vehicles = vehiclesIn(said, ctx);
  const families = familiesIn(said, ctx);
  const engines = namedEngine(codes.proposals, vehicles, families, said, ctx);
  const engine = engines.sole;
  const foreign = isForeign(said.tokens.filter((_, i) => !codes.used.has(i)));
  const found = [
    ...codes.proposals,
    ...readFaultCodes(said),
    ...readClaimNumbers(said),
    ...vehicles.flatMap((v) => vehicleFact(v, said)),
    ...engines.proposals,
    ...readLabelled(text, ctx),
    ...readDistances(said, days, codes.used, ctx),
    ...readMeasured(said, days, codes.used, ctx),
    ...readDates(said, days, ctx),
    ...readPeople(said),
    ...readLots(said),
    ...(foreign
      ? []
      : [
          ...readMarks(said, ctx, engine),
          ...readOffset(said, ctx, engine),
          ...readFeatures(said, ctx, engine),
          ...readChoices(said, ctx),
          ...readSent(said),
          ...readAsked(said),
        ]),
  ];
  const proposals = settled(found, said).map((p) => {
    const u = p.u ?? usualSpread(ctx.registry.get(p.key));
    return u === undefined ? p : { ...p, u };
  });
  return { proposals, left: leftOver(said, proposals), foreign };
}

/** The engine that is meant: by its code, else by vehicle and family where they leave one. */
function namedEngine(
  codes: readonly Proposal[],
  vehicles: readonly VehicleMention[],
  families: readonly VehicleMention[],
  said: Said,
  ctx: IntakeContext,
): { sole: string | undefined; proposals: Proposal[] } {
  const coded = codes.filter((p) => p.key === 'engine.code');
  const own = new Set(coded.filter((p) => p.sure !== 'ask').map((p) => plainText(p.value)));
  if (own.size > 0) return { sole: own.size === 1 ? [...own][0] : undefined, proposals: [] };
  const named = [...families, ...vehicles];
  const sets = named.map((m) => m.engines);
  const [family, vehicle] = [new Set(families.flatMap((m) => m.engines)), new Set(vehicles.flatMap((m) => m.engines))];
  const both = [...family].filter((e) => vehicle.has(e));
  const meant = both.length > 0 ? both : family.size > 0 ? [...family] : [...vehicle];
  if (sets.length === 0 || meant.length !== 1) return { sole: ctx.engine, proposals: [] };
  const engine = nth(meant, 0);
  if (engine === ctx.engine) return { sole: engine, proposals: [] };
  const by = families.find((m) => m.engines.includes(engine)) ?? nth(named, 0);
  return {
    sole: engine,
    proposals: [
      { key: 'engine.code', value: engine, how: 'reported', sure: 'likely', doubt: 'implied', spans: [mentionSpan(by, said)] },
    ],
  };
}

function isForeign(tokens: readonly Token[]): boolean {
  const words = tokens.filter((t) => /^\p{L}+$/u.test(t.low));
  if (words.length < FOREIGN.words) return false;
  const common = words.filter((t) => WORDS.common.includes(t.low)).length;
  return common / words.length < FOREIGN.share;
}

/** Sentences in which nothing was understood, as they were written. */
function leftOver(said: Said, proposals: readonly Proposal[]): string {
  const spans = proposals.flatMap((p) => p.spans);
  return said.sentences
    .map((s, i) => ({ from: nth(s, 0).from, to: said.sentences[i + 1]?.[0]?.from ?? said.text.length }))
    .filter((s) => !spans.some((x) => x.from < s.to && s.from < x.to))
    .map((s) => said.text.slice(s.from, s.to).trim())
    .filter(Boolean)
    .join(' ');
}
