import { must } from '@core/quantity/must';
import { correctedBy, type Fact, type SaidFact } from './fact';
import { type Meaning, meaningOf, slotKey } from './meaning';
import type { Place } from './place';
import { says, type Silence, whySilent } from './silence';
import { type FactSlot, type Slots, slotsFrom } from './slots';

/** What is known now. Read through `read.ts`; nothing else in the house reaches into it. */
export type State = {
  /** Every fact, in the order in which they came about. */
  readonly log: readonly Fact[];
  readonly slots: Slots;
  /** Ids of facts that no longer stand, with the id of the fact that put them aside. */
  readonly retracted: ReadonlyMap<string, string>;
};

/**
 * Facts in the order in which they came about: by what each had seen when it was filed (a logical clock), never before what
 * they name; facts of earlier makes, which say nothing of it, come first, by time. Equal ones by time, then by id. The order in
 * which they are given does not matter, nor do clocks that run back.
 */
export function factsInOrder(facts: readonly Fact[]): Fact[] {
  const old = facts.filter((f) => f.seen === undefined);
  const later = facts.filter((f) => f.seen !== undefined);
  return [
    ...ranked(old, (f) => f.at, compare),
    ...ranked(
      later,
      (f) => must(f.seen),
      (a, b) => a - b,
      (a, b) => compare(a.at, b.at),
    ),
  ];
}

/** What a fact filed now has seen: one more than the greatest before it. */
export const nextSeen = (log: readonly Fact[]): number =>
  1 + log.reduce((most, f) => Math.max(most, f.seen ?? 0), 0);

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
const namedBy = (f: Fact): string[] => [...correctedBy(f), ...(f.strikes === undefined ? [] : [f.strikes])];

/** By a key, but never before what they name, whatever the key says: broken data may name what stands behind it. Equal ones by `tie`, then by id. */
function ranked<K>(
  facts: readonly Fact[],
  keyOf: (f: Fact) => K,
  order: (a: K, b: K) => number,
  tie: (a: Fact, b: Fact) => number = () => 0,
): Fact[] {
  const byId = new Map(facts.map((f) => [f.id, f]));
  const rank = new Map<string, { key: K; depth: number }>();
  // From the newest on, so that a circle is cut at the same place whatever the order given.
  const newest = [...facts].sort((a, b) => order(keyOf(b), keyOf(a)) || compare(b.id, a.id));
  walk(
    newest,
    (f) => namedBy(f).flatMap((id) => byId.get(id) ?? []),
    (f, before) => {
      const own = { key: keyOf(f), depth: 0 };
      for (const g of before) {
        const r = rank.get(g.id);
        if (!r || order(r.key, own.key) < 0) continue;
        own.depth = order(r.key, own.key) > 0 ? r.depth + 1 : Math.max(own.depth, r.depth + 1);
        own.key = r.key;
      }
      rank.set(f.id, own);
    },
  );
  return [...facts].sort((a, b) => {
    const [x, y] = [must(rank.get(a.id)), must(rank.get(b.id))];
    return order(x.key, y.key) || x.depth - y.depth || tie(a, b) || compare(a.id, b.id);
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
      const top = must(stack.at(-1));
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
  const log = factsInOrder(facts);
  const byId = new Map(log.map((f) => [f.id, f]));
  const newest = [...log].reverse();
  const retracted = new Map<string, string>();

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
      const striker = by.find((s) => !retracted.has(s.id));
      if (striker) retracted.set(f.id, striker.id);
    },
  );

  const alive = log.filter((f) => f.strikes === undefined && !retracted.has(f.id));
  const living = new Set(alive.map((f) => f.id));
  const corrections = (f: Fact) => correctedBy(f).flatMap((id) => (living.has(id) ? must(byId.get(id)) : []));
  walk([...alive].reverse(), corrections, (f, corrected) => {
    for (const g of corrected) retracted.set(g.id, f.id);
  });

  return { log, slots: slotsOf(alive.filter((f) => !retracted.has(f.id))), retracted };
}

function slotsOf(standing: readonly Fact[]): Slots {
  const groups = new Map<
    string,
    { meaning: Meaning; place: Place | undefined; said: SaidFact[]; silent: Fact[] }
  >();
  for (const f of standing) {
    const meaning = meaningOf(f);
    const key = slotKey(meaning, f.place);
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { meaning, place: f.place, said: [], silent: [] }));
    if (says(f)) group.said.push(f);
    else group.silent.push(f);
  }
  const slots = new Map<string, FactSlot>();
  const silences = new Map<string, Silence>();
  for (const [key, { meaning, place, said, silent }] of groups) {
    if (said.length > 0) slots.set(key, { meaning, place, ...standingOf(said) });
    const last = silent.at(-1);
    if (last) silences.set(key, { meaning, place, why: must(whySilent(last)), facts: silent });
  }
  return slotsFrom(slots, silences);
}

/** Readings of one series stand together; everything else that nobody corrected contradicts. */
function standingOf(facts: readonly SaidFact[]): Pick<FactSlot, 'facts' | 'rivals'> {
  const last = must(facts.at(-1));
  // The first reading carries no series of its own: it is named by those that joined it.
  const series = last.series ?? facts.find((f) => f.series === last.id)?.series;
  const mine =
    facts.length > 1 && series !== undefined
      ? facts.filter((f) => f.series === series || f.id === series)
      : [last];
  return {
    facts: mine,
    rivals: mine.length === facts.length ? NONE : facts.filter((f) => !mine.includes(f)),
  };
}

const NONE: readonly SaidFact[] = [];

/** A state of nothing, for a case that could not be put in order. */
export const emptyState = (log: readonly Fact[]): State => ({
  log,
  slots: slotsFrom(new Map(), new Map()),
  retracted: new Map(),
});
