import { must } from '@core/quantity/must';
import { type Result, err } from '@core/quantity/result';
import { type MergeError, mergeFacts } from './change';
import { correctedBy, type Fact, MOST_FACTS } from './fact';
import { isPractice } from './practice';
import { factsInOrder } from './state';
import { kindOfId, THING } from './thing';

/** Why a fact cannot stand with others of its case. */
export type FactsError =
  | { code: 'fact_twice'; id: string }
  | { code: 'circle'; id: string }
  /** A thing is declared as one kind and as another. */
  | { code: 'two_kinds'; thing: string; kinds: [string, string] }
  | { code: 'too_many'; facts: number; most: number }
  /** It is about a thing that nobody declared. */
  | { code: 'no_kind'; thing: string }
  /** It is of a return for practice, which is no case. */
  | { code: 'practice'; id: string };
export type Left = { fact: Fact; why: FactsError };

/**
 * Facts of one case that can stand together, and those that cannot, with the reason: one for practice, an id twice, a circle of corrections, a
 * thing declared as another kind than before, a thing that nobody declared. The same whatever order they come in; linear.
 */
export function consistent(facts: readonly Fact[]): { stand: readonly Fact[]; left: Left[] } {
  const left: Left[] = [];
  const keep = (all: readonly Fact[], why: (f: Fact) => FactsError | undefined): readonly Fact[] => {
    const lost = all.flatMap((fact) => {
      const fault = why(fact);
      return fault ? [{ fact, why: fault }] : [];
    });
    if (lost.length === 0) return all;
    left.push(...lost);
    const gone = new Set(lost.map((l) => l.fact));
    return all.filter((f) => !gone.has(f));
  };
  const ids = new Set<string>();
  const real = keep(facts, (f) => (isPractice(f.case) ? { code: 'practice', id: f.id } : undefined));
  const once = keep(real, ({ id }) => {
    if (ids.has(id)) return { code: 'fact_twice', id };
    ids.add(id);
    return undefined;
  });
  const circles = circlesIn(once);
  const straight =
    circles.size === 0
      ? once
      : keep(once, ({ id }) => (circles.has(id) ? { code: 'circle', id } : undefined));
  const kinds = new Map<string, string>();
  for (const f of declarations(straight)) if (!kinds.has(f.about)) kinds.set(f.about, f.value);
  const ofOneKind = keep(straight, (f) => {
    const mine = isDeclaration(f) ? kinds.get(f.about) : undefined;
    return isDeclaration(f) && mine !== f.value
      ? { code: 'two_kinds', thing: f.about, kinds: [must(mine), f.value] }
      : undefined;
  });
  const stand = keep(ofOneKind, (f) =>
    f.about === undefined || kindOfId(f.about) !== undefined || kinds.has(f.about)
      ? undefined
      : { code: 'no_kind', thing: f.about },
  );
  return { stand, left };
}

/** The first fault among facts of one case; undefined when all can stand. */
export const checkFacts = (facts: readonly Fact[]): FactsError | undefined =>
  facts.length > MOST_FACTS
    ? { code: 'too_many', facts: facts.length, most: MOST_FACTS }
    : consistent(facts).left[0]?.why;

/**
 * The facts of one case from two sides, or why they cannot be one: checked as a whole, since two lawful files together need not
 * be.
 */
export function mergeCase(
  here: readonly Fact[],
  came: readonly Fact[],
): Result<Fact[], MergeError | FactsError> {
  const merged = mergeFacts(here, came);
  const fault = merged.ok ? checkFacts(merged.value) : undefined;
  return fault ? err(fault) : merged;
}

type Declaration = Fact & { about: string; value: string };
const isDeclaration = (f: Fact): f is Declaration =>
  f.key === THING.kind && f.about !== undefined && typeof f.value === 'string' && f.value !== '';

/** In the order in which they were filed, so that the same one is the first wherever they are merged. */
function declarations(facts: readonly Fact[]): Declaration[] {
  const own = facts.filter(isDeclaration);
  return own.length < 2 ? own : factsInOrder(own).filter(isDeclaration);
}

/** Ids of facts that correct or strike themselves by way of others: what stays when all that leads nowhere is taken away (Kahn 1962), from either side. */
export function circlesIn(facts: readonly Fact[]): ReadonlySet<string> {
  const known = new Set(facts.map((f) => f.id));
  const leads = new Map(
    facts.map((f) => [
      f.id,
      [...correctedBy(f), ...(f.strikes === undefined ? [] : [f.strikes])].filter((id) => known.has(id)),
    ]),
  );
  const ledTo = new Map<string, string[]>();
  for (const [id, to] of leads)
    for (const t of to) {
      const from = ledTo.get(t);
      if (from) from.push(id);
      else ledTo.set(t, [id]);
    }
  const none: readonly string[] = [];
  const behind = trim(
    known,
    (id) => leads.get(id) ?? none,
    (id) => ledTo.get(id) ?? none,
  );
  return trim(
    behind,
    (id) => ledTo.get(id) ?? none,
    (id) => leads.get(id) ?? none,
  );
}

/** Takes away, one after the other, what nothing of the rest leads to. */
function trim(
  ids: ReadonlySet<string>,
  to: (id: string) => readonly string[],
  from: (id: string) => readonly string[],
): ReadonlySet<string> {
  const left = new Set(ids);
  const count = new Map([...ids].map((id) => [id, from(id).filter((x) => left.has(x)).length]));
  const free = [...ids].filter((id) => count.get(id) === 0);
  for (let id = free.pop(); id !== undefined; id = free.pop()) {
    left.delete(id);
    for (const t of to(id)) {
      const n = count.get(t);
      if (n === undefined || !left.has(t)) continue;
      count.set(t, n - 1);
      if (n === 1) free.push(t);
    }
  }
  return left;
}
