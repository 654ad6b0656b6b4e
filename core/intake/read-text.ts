import { nth } from '@core/quantity/must';
import { LONGEST_TEXT } from '@core/facts/fact';
import { plainText } from '@core/facts/value';
import { type CaseSplit, casesOf } from './cases';
import { drivenBy, type IntakeContext, usualSpread } from './context';
import { daysTold } from './days';
import type { Proposal, TextSpan } from './proposal';
import { GRAMMAR } from './grammar';
import { headOf, sentOn } from './mail-head';
import { readBanks } from './read-banks';
import { readCall } from './read-call';
import { readChoices } from './read-choices';
import { readCodes } from './read-codes';
import { readCosts, readGrade } from './read-costs';
import { readDates } from './read-dates';
import { readDistances } from './read-distances';
import { readFeatures } from './read-features';
import { readFields } from './read-fields';
import { readAsked } from './read-asked';
import { readSent } from './read-lists';
import { readMarks } from './read-marks';
import { readMeasured } from './read-measured';
import { readClaimNumbers, readFaultCodes, readLots, readStamped } from './read-numbers';
import { readOffset } from './read-offset';
import { readPeople } from './read-people';
import { readPlaces } from './read-places';
import { afterTurns, readSteps } from './read-steps';
import { readBolt, readStanding, readTorques } from './read-torques';
import {
  familiesIn,
  mentionSpan,
  vehicleFact,
  surest,
  type VehicleMention,
  vehiclesIn,
} from './read-vehicles';
import { type Speech, saidOf } from './said';
import { settleProposals } from './settle-proposals';
import { stemsOf, type Token } from './text';
import { unfiledOf } from './unfiled';
import { stagesTold, withPlace } from './where';
import { WORDS } from './words';

/** Share of known words below which a text is in a language that is not read here; and words from which that is judged. */
const FOREIGN = { share: 0.35, words: 12 };

export type TextRead = {
  proposals: Proposal[];
  /** Sentences of which nothing was taken: what is left of the complaint. */
  left: string;
  /** The words are of a language that is not read: only codes, figures and days were looked for. */
  foreign: boolean;
  /** Vehicles or claims that it tells of, and what each is called there. */
  cases: { count: number; names: readonly string[] };
  /** Pieces that carry meaning and of which nothing is proposed. */
  unfiled: TextSpan[];
};
export type TextError = { code: 'too_long'; length: number; most: number } | { code: 'empty' };

/**
 * Reads a message into proposed facts. Deterministic: the same text, catalogue and day give the same proposals.
 * Nothing is filed; two values for one thing are both proposed, and asked.
 */
export function readText(text: string, given: IntakeContext): TextRead | TextError {
  if (text.trim() === '') return { code: 'empty' };
  if (text.length > LONGEST_TEXT) return { code: 'too_long', length: text.length, most: LONGEST_TEXT };
  const head = headOf(text);
  // What a mail calls yesterday is the day before it was sent.
  const sent = sentOn(head?.sent, given.notation.dateOrder, given.today);
  const ctx = sent === undefined || sent > given.today ? given : { ...given, today: sent };
  const said = saidOf(text);
  const told = daysTold(said.text, ctx);
  const dates = readDates(said, told);
  // "7.4." is a day only where something is told to have been on it.
  const days = told.filter((d) => !d.weak || dates.some((p) => p.spans.some((s) => s.from === d.span.from)));
  const codes = readCodes(said, ctx);
  const mentioned = vehiclesIn(said, ctx);
  const families = familiesIn(said, ctx);
  const claims = readClaimNumbers(said);
  const fields = readFields(text, ctx);
  const cases = casesOf(said, mentioned, claims);
  const vehicles = cases.count > 1 ? mentioned : surest(mentioned);
  // One vehicle named for a whole fleet is what each of them is.
  const sole = new Set(vehicles.map((v) => v.name)).size === 1;
  const engines = namedEngine(codes.proposals, vehicles, families, said, cases, ctx);
  const engine = engines.sole;
  const stages = stagesTold(ctx, engine);
  const used = new Set([
    ...codes.used,
    ...vehicles.flatMap((v) => Array.from({ length: v.n }, (_, k) => v.at + k)),
  ]);
  const asked = readAsked(said);
  const foreign = isForeign(said.tokens.filter((_, i) => !codes.used.has(i)));
  const found = [
    ...codes.proposals,
    ...readFaultCodes(said),
    ...readStamped(said, ctx),
    ...claims,
    ...vehicles
      .flatMap((v) => vehicleFact(v, said))
      .map((p) => (sole && cases.count > 1 ? { ...p, of: 0 } : p)),
    ...engines.proposals,
    ...readDistances(said, days, used, cases.count, ctx),
    ...readMeasured(said, days, used, ctx).map((p) => afterTurns(p, said, ctx, engine)),
    ...readTorques(said, ctx, engine),
    ...readStanding(said),
    ...readCosts(said),
    ...readGrade(said),
    ...readPlaces(said, ctx),
    ...dates,
    ...readPeople(said),
    ...readLots(said),
    ...(foreign
      ? []
      : [
          ...readMarks(said, ctx, engine),
          ...readBanks(said, ctx, engine),
          ...readOffset(said, ctx, engine),
          ...readFeatures(said, ctx, engine),
          ...readChoices(said, used, ctx),
          ...readSteps(said, ctx, engine),
          ...readCall(said),
          ...readSent(said),
          ...asked,
          ...readBolt(said, ctx, engine, asked),
        ]),
  ];
  const kind = drivenBy(ctx, engine);
  const placed = found.filter((p) => p.place !== undefined);
  const own = found
    // What is told tooth by tooth is not told of the whole belt again.
    .filter(
      (p) =>
        p.place !== undefined ||
        !placed.some(
          (q) => ctx.registry.get(q.key)?.part === ctx.registry.get(p.key)?.part && within(p, q.spans),
        ),
    )
    .filter(
      (p) => kind === undefined || ctx.registry.get(p.key)?.part !== (kind === 'belt' ? 'chain' : 'belt'),
    )
    // What a cell of a table says was read as its column's.
    .filter((p) => !(fields.rows > 1 && within(p, fields.spans)))
    .map((p) => ofCase(withPlace(p, said, ctx, stages), cases));
  const all = [...fields.proposals, ...own];
  const proposals = settleProposals([...all, ...kindOf(all)], said).map((p) => {
    const u = p.u ?? usualSpread(ctx.registry.get(p.key));
    return u === undefined ? p : { ...p, u };
  });
  const count = Math.max(cases.count, fields.rows);
  return {
    proposals,
    left: leftOver(said, proposals),
    foreign,
    cases: { count, names: cases.names },
    unfiled: foreign ? [] : unfiledOf(said, proposals),
  };
}

/** Was it read where one of the spans lies? */
const within = (p: Proposal, spans: readonly TextSpan[]): boolean =>
  p.spans.some((s) => spans.some((x) => s.from < x.to && x.from < s.to));

/** What the message is, where it says more than a question: money or a claim's number make a claim, parts that come a return. */
function kindOf(found: readonly Proposal[]): Proposal[] {
  const claim = found.find((p) => p.key.startsWith('claim.cost') || p.key === 'claim.number');
  const sent = found.find((p) => p.key === 'parts.sent');
  const by = claim ?? sent;
  return by && by.sure !== 'ask'
    ? [
        {
          key: 'case.kind',
          value: claim ? 'claim' : 'return',
          how: 'decided',
          sure: 'likely',
          doubt: 'implied',
          spans: by.spans.slice(0, 1),
        },
      ]
    : [];
}

/** Of which vehicle or claim it is said, by where it stands. */
function ofCase(p: Proposal, cases: CaseSplit): Proposal {
  const of = p.of ?? cases.at(nth(p.spans, 0).from);
  return of === undefined ? p : { ...p, of };
}

/** The engine that is meant: by its code, else by vehicle and family where they leave one; for each of several cases. */
function namedEngine(
  codes: readonly Proposal[],
  vehicles: readonly VehicleMention[],
  families: readonly VehicleMention[],
  said: Speech,
  cases: CaseSplit,
  ctx: IntakeContext,
): { sole: string | undefined; proposals: Proposal[] } {
  const coded = codes.filter((p) => p.key === 'engine.code' && p.sure !== 'ask');
  const own = new Set(coded.map((p) => plainText(p.value)));
  if (own.size > 0) return { sole: own.size === 1 ? [...own][0] : undefined, proposals: [] };
  const one = new Set(vehicles.map((v) => v.name)).size <= 1 && cases.count > 1;
  const at = (m: VehicleMention) => (one ? 0 : cases.at(nth(said.tokens, m.at).from));
  const groups = [...new Set([...vehicles, ...families].map(at))];
  const proposals = groups.flatMap((of): Proposal[] => {
    const [fam, veh] = [families.filter((m) => at(m) === of), vehicles.filter((m) => at(m) === of)];
    const engine = engineOf(fam, veh);
    const by = [...fam, ...veh].find((m) => engine !== undefined && m.engines.includes(engine));
    if (engine === undefined || by === undefined || (engine === ctx.engine && of === undefined)) return [];
    return [
      {
        key: 'engine.code',
        value: engine,
        how: 'reported',
        sure: 'likely',
        doubt: 'implied',
        spans: [mentionSpan(by, said)],
        ...(of === undefined ? {} : { of }),
      },
    ];
  });
  const all = new Set([
    ...proposals.map((p) => plainText(p.value)),
    ...(groups.length > 0 && proposals.length === 0 && ctx.engine !== undefined ? [ctx.engine] : []),
  ]);
  return { sole: all.size === 1 ? [...all][0] : all.size === 0 ? ctx.engine : undefined, proposals };
}

/** The one engine that families and vehicles leave. */
function engineOf(
  families: readonly VehicleMention[],
  vehicles: readonly VehicleMention[],
): string | undefined {
  const [family, vehicle] = [
    new Set(families.flatMap((m) => m.engines)),
    new Set(vehicles.flatMap((m) => m.engines)),
  ];
  const both = [...family].filter((e) => vehicle.has(e));
  const meant = both.length > 0 ? both : family.size > 0 ? [...family] : [...vehicle];
  return meant.length === 1 ? meant[0] : undefined;
}

/** Every word of the reader's own data: a text in a language that is read here is made of them for a good part. */
const OWN_WORDS: ReadonlySet<string> = new Set([WORDS, GRAMMAR].flatMap(wordsIn));
function wordsIn(data: unknown): string[] {
  if (typeof data === 'string') return stemsOf(data);
  if (typeof data !== 'object' || data === null) return [];
  return Object.entries(data).flatMap(([key, value]) => [...stemsOf(key), ...wordsIn(value)]);
}

function isForeign(tokens: readonly Token[]): boolean {
  const words = tokens.filter((t) => /^\p{L}{2,}$/u.test(t.low));
  if (words.length < FOREIGN.words) return false;
  return words.filter((t) => OWN_WORDS.has(t.stem)).length / words.length < FOREIGN.share;
}

/** Sentences in which nothing was understood, as they were written. */
function leftOver(said: Speech, proposals: readonly Proposal[]): string {
  const spans = proposals.flatMap((p) => p.spans);
  return said.sentences
    .map((s, i) => ({ from: nth(s, 0).from, to: said.sentences[i + 1]?.[0]?.from ?? said.text.length }))
    .filter((s) => !spans.some((x) => x.from < s.to && s.from < x.to))
    .map((s) => said.text.slice(s.from, s.to).trim())
    .filter(Boolean)
    .join(' ');
}
