import type { Fact, FactValue } from './fact';

/** What is known now: the standing fact of each observable, and the ones that contradict it. */
export type State = {
  /** Every fact, oldest first. */
  readonly log: readonly Fact[];
  /** The standing fact of each key. */
  readonly standing: ReadonlyMap<string, Fact>;
  /** Further facts of the same key that nobody superseded (two people's work merged). */
  readonly rivals: ReadonlyMap<string, readonly Fact[]>;
  /** Ids of facts that no longer stand, with the id of the fact that put them aside. */
  readonly aside: ReadonlyMap<string, string>;
};

const byTime = (a: Fact, b: Fact) =>
  a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0;

/**
 * Reduces facts to what stands. The order given does not matter: facts are sorted by time, then id.
 * A strike counts unless it is itself struck; a struck fact is as if never filed, so what it superseded stands again.
 * The newest of several unsuperseded facts stands; the others are its rivals.
 * A fact that strikes or supersedes itself through a circle is broken data: the circle is cut at the oldest fact.
 */
export function reduce(facts: readonly Fact[]): State {
  const log = [...facts].sort(byTime);
  const strikers = new Map<string, Fact[]>();
  for (const f of log) {
    if (f.strikes !== undefined) strikers.set(f.strikes, [...(strikers.get(f.strikes) ?? []), f]);
  }
  const struckBy = (f: Fact, seen: ReadonlySet<string>): Fact | undefined => {
    if (seen.has(f.id)) return undefined;
    const path = new Set(seen).add(f.id);
    return strikers.get(f.id)?.find((s) => struckBy(s, path) === undefined);
  };

  const aside = new Map<string, string>();
  const alive: Fact[] = [];
  for (const f of log) {
    const striker = struckBy(f, new Set());
    if (striker) aside.set(f.id, striker.id);
    else if (f.strikes === undefined) alive.push(f);
  }
  for (const f of alive) {
    if (f.supersedes !== undefined && f.supersedes !== f.id && !aside.has(f.id))
      aside.set(f.supersedes, f.id);
  }

  const standing = new Map<string, Fact>();
  const rivals = new Map<string, Fact[]>();
  for (const f of alive) {
    if (aside.has(f.id)) continue;
    const older = standing.get(f.key);
    if (older) rivals.set(f.key, [...(rivals.get(f.key) ?? []), older]);
    standing.set(f.key, f);
  }
  return { log, standing, rivals, aside };
}

/** The standing value of a key, or undefined. */
export function valueOf(state: State, key: string): FactValue | undefined {
  return state.standing.get(key)?.value;
}
/** The standing value when it is a number. */
export function numberOf(state: State, key: string): number | undefined {
  const v = valueOf(state, key);
  return typeof v === 'number' ? v : undefined;
}
/** The standing value when it is a non-empty text other than "unknown". */
export function textOf(state: State, key: string): string | undefined {
  const v = valueOf(state, key);
  return typeof v === 'string' && v !== '' && v !== 'unknown' ? v : undefined;
}
/** The standing value as a list of texts; empty when there is none. */
export function listOf(state: State, key: string): readonly string[] {
  const v = valueOf(state, key);
  return Array.isArray(v) ? v.map(String) : [];
}
