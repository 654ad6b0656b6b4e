import { oncePer } from '@core/quantity/keep';
import { must } from '@core/quantity/must';
import type { Fact, Said, SaidFact } from './fact';
import { KINDS } from './kinds';
import { meaningOf, slotKey } from './meaning';
import type { Registry } from './observable';
import type { Place } from './place';
import { meanOf, type Repeats } from './repeats';
import type { FactSlot } from './slots';
import type { State } from './state';
import { kindOfId, type Thing, THING } from './thing';
import { asStructured, type Structured, type StructuredAs, type Why } from './value';

/** The fact whose value stands for an observable of a thing (none: the first of its kind); of a series its last reading. */
export function standing(state: State, key: string, about?: string): SaidFact | undefined {
  return slotOf(state, key, about)?.facts.at(-1);
}

/** True when a value stands. */
export const has = (state: State, key: string, about?: string): boolean =>
  slotOf(state, key, about) !== undefined;

/** All facts that stand of an observable of a thing: one, or those of a series. */
export const factsOf = (state: State, key: string, about?: string): readonly SaidFact[] =>
  slotOf(state, key, about)?.facts ?? [];

/** Facts that contradict the standing one and that nobody settled. */
export const rivalsOf = (state: State, key: string, about?: string): readonly SaidFact[] =>
  slotOf(state, key, about)?.rivals ?? [];

/** Observables of which anything stands, of whatever thing and place: one question where hundreds would be asked of few facts. */
export const filedObservables = (state: State): ReadonlySet<string> => state.slots.observables();

const slotOf = (state: State, key: string, about?: string): FactSlot | undefined =>
  state.slots.get(slotKey(meaningOf({ key, about })));

/** The standing value, or undefined. */
export const valueOf = (state: State, key: string, about?: string): Said | undefined =>
  standing(state, key, about)?.value;

/** The standing value when it is a number. */
export function numberOf(state: State, key: string, about?: string): number | undefined {
  const v = valueOf(state, key, about);
  return typeof v === 'number' && Number.isFinite(v) ? v : undefined;
}

/** An observable of a thing as it was observed: a value, or that it was asked or looked for and why nothing is said. */
export type Observation =
  | { is: 'value'; value: Said; fact: SaidFact }
  | { is: Why; fact: Fact }
  | { is: 'nothing' };

/** For whoever wants to know of the looking itself. Readers of values never meet what says nothing. */
export function observed(state: State, key: string, about?: string): Observation {
  const fact = standing(state, key, about);
  if (fact) return { is: 'value', value: fact.value, fact };
  const silence = state.slots.silence(slotKey(meaningOf({ key, about })));
  return silence ? { is: silence.why, fact: must(silence.facts.at(-1)) } : { is: 'nothing' };
}

/** The fact that was filed of it, whether it says something or not. */
export function filedOf(state: State, key: string, about?: string): Fact | undefined {
  const o = observed(state, key, about);
  return o.is === 'nothing' ? undefined : o.fact;
}

/** True when it was asked or looked at, whatever came of it: it need not be asked again. */
export const wasAsked = (state: State, key: string, about?: string): boolean =>
  observed(state, key, about).is !== 'nothing';

/** Everything that was filed and stands, what says nothing as well: for tables of all facts. */
export const allFiled = (state: State): readonly Fact[] => [
  ...state.slots.all().flatMap((s) => s.facts),
  ...state.slots.silences().flatMap((s) => s.facts),
];

/** The standing value when it is a non-empty text. */
export function textOf(state: State, key: string, about?: string): string | undefined {
  const v = valueOf(state, key, about);
  return typeof v === 'string' && v !== '' ? v : undefined;
}

/** The standing value when it is a structured one of this sort. */
export const structuredOf = <K extends Structured['is']>(
  is: K,
  state: State,
  key: string,
  about?: string,
): StructuredAs<K> | undefined => asStructured(is, valueOf(state, key, about));

/** The standing value as a list of texts; empty when there is none. */
export function listOf(state: State, key: string, about?: string): readonly string[] {
  const v = valueOf(state, key, about);
  return Array.isArray(v) ? v.map(String) : [];
}

/** A number with its standard uncertainty, in the observable's base unit. */
export type Measured = { value: number; u: number };

/** Standard uncertainty of a fact: its own, else that of the gauge usually taken for this observable, else none. */
export function spreadOf(fact: Pick<Fact, 'key' | 'u'>, registry: Registry, key: string = fact.key): number {
  if (fact.u !== undefined) return fact.u;
  const type = registry.get(key)?.type;
  return type?.kind === 'number' ? (type.u ?? 0) : 0;
}

/** A measured observable: one reading, or the mean of a series; with every fact that it stands on. */
export type Reading = Measured & { fact: Fact; facts: readonly Fact[]; repeats: Repeats };

/** The standing number of an observable of a thing with its uncertainty; repeats are averaged. */
export function measuredOf(
  state: State,
  registry: Registry,
  key: string,
  about?: string,
): Reading | undefined {
  const facts = slotOf(state, key, about)?.facts.filter((f) => typeof f.value === 'number') ?? [];
  const fact = facts.at(-1);
  if (!fact) return undefined;
  const gauge = Math.max(...facts.map((f) => spreadOf(f, registry, key)));
  const repeats = meanOf(
    facts.map((f) => f.value as number),
    gauge,
  );
  return { value: repeats.value, u: repeats.u, fact, facts, repeats };
}

/** One value at a place. */
export type Placed = { place: Place; value: Said; fact: SaidFact };

/** Everything that stands of an observable at places on a thing, in the order of the places. */
export function placedOf(state: State, key: string, about?: string): Placed[] {
  const out: Placed[] = [];
  for (const s of state.slots.ofKey(key))
    if (s.place && s.meaning.about === about)
      out.push({ place: s.place, value: must(s.facts.at(-1)).value, fact: must(s.facts.at(-1)) });
  return out.sort((a, b) => (a.place.from ?? 0) - (b.place.from ?? 0));
}

/** Things of an observable: every thing that has a standing value of it, "" for the first of its kind. */
export function thingsWith(state: State, key: string): string[] {
  const out = new Set<string>();
  for (const s of state.slots.ofKey(key)) out.add(s.meaning.about ?? '');
  return [...out];
}

/** The parts of a case: those declared, and the first of each kind that facts speak of without naming one. */
export function thingsOf(state: State, registry: Registry): Thing[] {
  const found = new Map<string, Thing>();
  const put = (id: string, kind: string, first: boolean) => {
    if (!found.has(id) && KINDS.get(kind)?.part) found.set(id, describe(state, id, kind, first));
  };
  for (const s of state.slots.all()) {
    const { about, key } = s.meaning;
    if (about === undefined) {
      const kind = registry.get(key)?.part;
      if (kind !== undefined) put(kind, kind, true);
    } else if (kindOfId(about) !== undefined) put(about, must(kindOfId(about)), about === kindOfId(about));
    else {
      const kind = textOf(state, THING.kind, about);
      if (kind !== undefined) put(about, kind, false);
    }
  }
  return [...found.values()];
}

function describe(state: State, id: string, kind: string, first: boolean): Thing {
  const [place, number, lot] = [THING.place, THING.number, THING.lot].map((k) => textOf(state, k, id));
  return {
    id,
    kind,
    first,
    ...(place === undefined ? {} : { place }),
    ...(number === undefined ? {} : { number }),
    ...(lot === undefined ? {} : { lot }),
  };
}

/** Every standing slot: for tables of everything that is known. */
export const allStanding = (state: State): readonly FactSlot[] => state.slots.all();

/** How a fact of the log stands today. */
export function statusOf(state: State, fact: Fact): 'stands' | 'rival' | 'aside' | 'strike' {
  if (fact.strikes !== undefined) return 'strike';
  return state.retracted.has(fact.id) ? 'aside' : standsOrRival(state, fact);
}

const rivalIds = oncePer(
  (state: State): ReadonlySet<string> => new Set(state.slots.all().flatMap((s) => s.rivals.map((f) => f.id))),
);
const standsOrRival = (state: State, fact: Fact): 'stands' | 'rival' =>
  rivalIds(state).has(fact.id) ? 'rival' : 'stands';
