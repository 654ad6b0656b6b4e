import { packId } from '@core/catalogue/version';
import { costsOf } from '@core/claim/costs';
import { sealedNow } from '@core/claim/seal';
import type { Fact, Said } from '@core/facts/fact';
import { type CaseKind, optionsOf } from '@core/facts/observable';
import { STATIONS, type Station } from '@core/facts/stations';
import { allStanding, factsOf, standing, textOf } from '@core/facts/read';
import { reduce, type State } from '@core/facts/state';
import { plainText, isStructured } from '@core/facts/value';
import type { Settled } from '@core/cause/own-shares';
import { type Answers, answersFor } from './answers';
import { signsOf } from './signs';
import { fitterOf } from './workshop';
import type { World } from './world';

/** What a case waits for: a station that lacks something, to be answered or issued; or they were told, it is sealed, or set aside. */
export type Waits = Station | 'answer' | 'told' | 'issue' | 'sealed' | 'set_aside';

/** Signs of a message that stand for its writer. */
const QUOTED = 60;

/** What the ledger shows of a case; money in minor units, days as days. */
export type Books = {
  claim: string;
  kit: string;
  decision: string;
  cause: string;
  asked: number;
  /** What we bear; undefined before it was decided. */
  ours?: number;
  /** Faults that were recorded, each with its step, and the workshop that fitted it, where it is theirs. */
  faults?: { code: string; step: string }[];
  shop?: string;
};

/** Of what came back or is claimed for: its lot, who fitted it, the days of fitting and failing ("" where unknown), and what it ran. */
type Run = {
  lot: string;
  shop: string;
  fitted: string;
  failed: string;
  km?: number;
  /** What would have told the cause and did not come, where it was found undecidable. */
  lost?: string[];
};

/** What the rack shows of a case and finds it by. Made from its facts and a world; it may be thrown away at any time. */
export type CaseSummary = {
  id: string;
  tag: string;
  engine: string;
  who: string;
  kind: CaseKind;
  waits: Waits;
  /** Day by which they were promised a call; none where it was made or never promised. */
  back?: string;
  /** What the ledger adds up of it: what was decided, of which claim and kit, and money in minor units. */
  books?: Books;
  /** When its first and its last fact were filed. */
  opened: string;
  touched: string;
  /** Who filed its last fact. */
  hand?: string;
  /** Everything that stands, in small letters: values, and the words of choices. */
  text: string;
  /** Catalogue that it was made with; "" for none. */
  world: string;
  /** None of a question. */
  run?: Run;
  /** Of a case whose cause is decided: which, what was found, and what it counts as among the house's own. */
  settled?: Settled & { signs: string[] };
};

/** The summary of a case. Whatever cannot be computed is set aside, and still stands on the rack by its tag. */
export function summaryOf(id: string, facts: readonly Fact[], world: World | undefined): CaseSummary {
  try {
    const state = reduce(facts);
    return summaryFrom(id, state, world, world && answersFor(world, state));
  } catch {
    const tag = facts.findLast((f) => f.key === 'case.tag');
    const at = facts.map((f) => f.at).sort();
    return {
      id,
      tag: tag ? plainText(tag.value) : '—',
      engine: '',
      who: '',
      kind: 'question',
      waits: 'set_aside',
      opened: at[0] ?? '',
      touched: at.at(-1) ?? '',
      text: '',
      world: world ? packId(world.catalogue.pack) : '',
    };
  }
}

/** The same, from a case that is open and answered already. */
export function summaryFrom(
  id: string,
  state: State,
  world: World | undefined,
  a: Answers | undefined,
): CaseSummary {
  return {
    id,
    tag: textOf(state, 'case.tag') ?? '—',
    engine: textOf(state, 'engine.code') ?? '',
    who: textOf(state, 'call.who') ?? firstWords(state),
    kind: a?.kind ?? 'question',
    waits: a ? waitsFor(a, state) : 'identify',
    books: booksOf(state, a),
    ...runOf(state, a),
    ...promised(state),
    opened: state.log[0]?.at ?? '',
    touched: state.log.at(-1)?.at ?? '',
    ...handOf(state),
    text: textToFind(state, a),
    world: world ? packId(world.catalogue.pack) : '',
    ...settledAs(state, a),
  };
}

function booksOf(state: State, a: Answers | undefined): Books {
  const { gross, ours } = a?.costs ?? costsOf(state);
  return {
    claim: textOf(state, 'claim.number') ?? '',
    kit: textOf(state, 'kit.number') ?? '',
    decision: textOf(state, 'claim.decision') ?? '',
    cause: textOf(state, 'cause.decided') ?? '',
    asked: gross,
    ...(ours === undefined ? {} : { ours }),
    ...faultsOf(state, a),
  };
}

function runOf(state: State, a: Answers | undefined): { run?: Run } {
  if (!a || a.kind === 'question') return {};
  const km = a.usage.distance?.km;
  const lost = textOf(state, 'cause.decided') === 'undecidable' ? a.conclude.lost.map((l) => l.wording) : [];
  return {
    run: {
      lot: textOf(state, 'kit.lot') ?? '',
      shop: fitterOf(state),
      fitted: textOf(state, 'kit.fitted') ?? '',
      failed: textOf(state, 'case.date') ?? '',
      ...(km === undefined ? {} : { km: Math.round(km) }),
      ...(lost.length > 0 ? { lost } : {}),
    },
  };
}

function faultsOf(state: State, a: Answers | undefined): Pick<Books, 'faults' | 'shop'> {
  const faults = (a?.faults ?? []).flatMap((f) =>
    f.recorded ? [{ code: f.fault.code, step: plainText(f.recorded.value) }] : [],
  );
  if (faults.length === 0) return {};
  const shop = fitterOf(state);
  return { faults, ...(shop === '' ? {} : { shop }) };
}

/** Decided, and answered: only then it is worked out what was found. */
function settledAs(state: State, a: Answers | undefined): Pick<CaseSummary, 'settled'> {
  const decided = textOf(state, 'cause.decided');
  if (decided === undefined || !a) return {};
  const has = a.possible.has;
  return {
    settled: {
      decided,
      ...(has ? { has: [...has].sort() } : {}),
      arrival: a.kind,
      signs: signsOf(a.causes, a.findings),
    },
  };
}

function handOf(state: State): { hand?: string } {
  const by = state.log.at(-1)?.by;
  return by === undefined || by === '' ? {} : { hand: by };
}

/** The newest fact that still has its effect. */
const lastOf = (state: State): string | undefined =>
  state.log.findLast((f) => f.strikes === undefined && !state.retracted.has(f.id))?.id;

/** Of a message that nobody read yet: how it begins. */
function firstWords(state: State): string {
  const said = textOf(state, 'call.message') ?? '';
  return said && `“${said.length > QUOTED ? `${said.slice(0, QUOTED - 1)}…` : said}”`;
}

/** A call that was promised and not made since. */
function promised(state: State): { back?: string } {
  const by = standing(state, 'call.back');
  const done = standing(state, 'call.back_done');
  return typeof by?.value === 'string' && !(done && done.at >= by.at) ? { back: by.value } : {};
}

function waitsFor(a: Answers, state: State): Waits {
  if (sealedNow(a.seals)) return 'sealed';
  // What was told last answers the question; facts that came later ask for another look.
  if (a.kind === 'question' && factsOf(state, 'call.told').at(-1)?.id === lastOf(state)) return 'told';
  const short = STATIONS.find((s) => s !== 'fit' && a.lacks[s].length > 0);
  return short ?? (a.kind === 'question' ? 'answer' : 'issue');
}

/** Not found by: digests and readings of reports. */
const DARK = 'report.';

function textToFind(state: State, a: Answers | undefined): string {
  const words = new Set<string>();
  for (const { meaning, facts } of allStanding(state)) {
    if (meaning.key.startsWith(DARK)) continue;
    const o = a?.registry.get(meaning.key);
    const options = o ? optionsOf(o) : [];
    for (const f of facts)
      for (const v of plainValues(f.value)) {
        words.add(String(v).toLowerCase());
        const said = options.find((x) => x.key === v)?.wording;
        if (said !== undefined) words.add(said.toLowerCase());
      }
  }
  return [...words].join('\n');
}

/** What a person may have typed of a value; what the program files with parts is found by nothing. */
const plainValues = (value: Said): readonly (string | number)[] =>
  isStructured(value) ? [] : Array.isArray(value) ? value : [value];
