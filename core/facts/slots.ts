import type { SaidFact } from './fact';
import type { Meaning } from './meaning';
import type { Place } from './place';
import type { Silence } from './silence';

/** What is known of one observable of one thing at one place: values, never silences. */
export type FactSlot = {
  meaning: Meaning;
  place?: Place | undefined;
  /** What stands, oldest first: one fact, or all readings of a series. */
  facts: readonly SaidFact[];
  /** Further facts that nobody superseded (two people's work merged). */
  rivals: readonly SaidFact[];
};

/** Everything that stands: by slot, by observable, or all. */
export type Slots = {
  get(key: string): FactSlot | undefined;
  ofKey(observable: string): readonly FactSlot[];
  all(): readonly FactSlot[];
  /** Observables of which anything stands. */
  observables(): ReadonlySet<string>;
  /** What was filed where nothing stands and says nothing. */
  silence(key: string): Silence | undefined;
  silences(): readonly Silence[];
};

const NONE: readonly FactSlot[] = [];

/** Slots by their key (`slotKey`), in the order in which they were first filed. */
export function slotsFrom(
  byKey: ReadonlyMap<string, FactSlot>,
  silences: ReadonlyMap<string, Silence>,
): Slots {
  const list = [...byKey.values()];
  const byObservable = new Map<string, FactSlot[]>();
  let observables: ReadonlySet<string> | undefined;
  for (const s of list) {
    const known = byObservable.get(s.meaning.key);
    if (known) known.push(s);
    else byObservable.set(s.meaning.key, [s]);
  }
  return {
    get: (key) => byKey.get(key),
    ofKey: (observable) => byObservable.get(observable) ?? NONE,
    all: () => list,
    silence: (key) => silences.get(key),
    silences: () => [...silences.values()],
    observables: () => (observables ??= new Set(byObservable.keys())),
  };
}
