import { correctedBy, type Fact, type FactValue } from './fact';

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

/**
 * Facts in the order in which they came about: by time, but never before what they name, whatever a clock said. Equal ones
 * by id. The order in which they are given does not matter.
 */
export function inOrder(facts: readonly Fact[]): Fact[] {
  const byId = new Map(facts.map((f) => [f.id, f]));
  const rank = new Map<string, { at: string; depth: number }>();
  const known = (f: Fact) =>
    [...correctedBy(f), ...(f.strikes === undefined ? [] : [f.strikes])].flatMap((id) => byId.get(id) ?? []);
  // From the newest on, so that a circle is cut at the same place whatever the order given.
  const newest = [...facts].sort((a, b) =>
    a.at < b.at ? 1 : a.at > b.at ? -1 : a.id < b.id ? 1 : a.id > b.id ? -1 : 0,
  );
  walk(newest, known, (f, before) => {
    const own = { at: f.at, depth: 0 };
    for (const g of before) {
      const r = rank.get(g.id);
      if (!r || r.at < own.at) continue;
      own.depth = r.at > own.at ? r.depth + 1 : Math.max(own.depth, r.depth + 1);
      own.at = r.at;
    }
    rank.set(f.id, own);
  });
  return [...facts].sort((a, b) => {
    const [x, y] = [rank.get(a.id)!, rank.get(b.id)!];
    if (x.at !== y.at) return x.at < y.at ? -1 : 1;
    if (x.depth !== y.depth) return x.depth - y.depth;
    return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
  });
}

/**
 * Visits every fact after those that it leads to, each once and without recursion: a chain may be thousands long. Where the
 * way comes back to a fact that is being visited, that step is left out, so that a circle in broken data is cut.
 */
function walk(
  facts: readonly Fact[],
  next: (f: Fact) => readonly Fact[],
  visit: (f: Fact, reached: readonly Fact[]) => void,
): void {
  const done = new Set<string>();
  const open = new Set<string>();
  for (const start of facts) {
    const stack: { f: Fact; ahead: readonly Fact[]; i: number; reached: Fact[] }[] = [];
    const enter = (f: Fact) => {
      open.add(f.id);
      stack.push({ f, ahead: next(f), i: 0, reached: [] });
    };
    if (!done.has(start.id)) enter(start);
    while (stack.length > 0) {
      const top = stack.at(-1)!;
      const g = top.ahead[top.i++];
      if (g === undefined) {
        visit(top.f, top.reached);
        done.add(top.f.id);
        open.delete(top.f.id);
        stack.pop();
        stack.at(-1)?.reached.push(top.f);
      } else if (done.has(g.id)) top.reached.push(g);
      else if (!open.has(g.id)) enter(g);
    }
  }
}

/**
 * Reduces facts to what stands, in linear time apart from sorting. A strike counts unless it is itself struck; a struck fact
 * is as if never filed, so what it superseded stands again. What a correction put aside stays aside, also when the
 * correction is corrected in its turn, and whatever the times say. The newest of several unsuperseded facts stands; the others are its rivals.
 * A fact that strikes or supersedes itself through a circle is broken data: the newest of the circle keeps standing.
 */
export function reduce(facts: readonly Fact[]): State {
  const log = inOrder(facts);
  const byId = new Map(log.map((f) => [f.id, f]));
  const newest = [...log].reverse();
  const aside = new Map<string, string>();

  const strikers = new Map<string, Fact[]>();
  for (const f of newest) {
    if (f.strikes === undefined) continue;
    const list = strikers.get(f.strikes);
    if (list) list.push(f);
    else strikers.set(f.strikes, [f]);
  }
  walk(
    newest,
    (f) => strikers.get(f.id) ?? [],
    (f, by) => {
      const striker = by.find((s) => !aside.has(s.id));
      if (striker) aside.set(f.id, striker.id);
    },
  );

  const alive = log.filter((f) => f.strikes === undefined && !aside.has(f.id));
  const living = new Set(alive.map((f) => f.id));
  const corrections = (f: Fact) => correctedBy(f).flatMap((id) => (living.has(id) ? byId.get(id)! : []));
  walk([...alive].reverse(), corrections, (f, corrected) => {
    for (const g of corrected) aside.set(g.id, f.id);
  });

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
