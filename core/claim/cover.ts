import { COST_KINDS, type CostKind, type Plan, type Start } from '@core/catalogue/plan';
import { optionsOf, type Registry } from '@core/facts/observable';
import { standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { type DaySpan, daySpan, monthsBetween } from '@core/quantity/dates';

/** What a plan leaves out, and whether it does so here; `unknown`: nobody looked or asked. */
export type LeftOut = {
  key: string;
  is: readonly string[];
  why: string;
  stands: 'applies' | 'not' | 'unknown';
};

/** What a plan bears of a claim, whatever is decided within it. */
export type Cover = {
  /** The day it begins on, and by which of the two rules; undefined while that day is not known. */
  start?: { day: DaySpan; is: 'fitted' | 'sold' } | undefined;
  bears: readonly CostKind[];
  /** Our share of what it bears, of 1: two figures where the months between are only roughly known, undefined where not at all. */
  share: { least: number; most: number } | undefined;
  exclusions: LeftOut[];
};

/** Kinds of cost that a plan bears; all of them where it names none. */
const bearsOf = ({ bears }: Pick<Plan, 'bears'>): readonly CostKind[] => bears ?? COST_KINDS;

/** Our share after so many whole months; 1 before the first step. */
export function shareAfter({ shares = [] }: Pick<Plan, 'shares'>, months: number): number {
  const passed = shares.filter((s) => s.after <= months).sort((a, b) => a.after - b.after);
  return passed.at(-1)?.share ?? 1;
}

/** The days that a date of the case may be. */
function spanOf(state: State, key: string): DaySpan | undefined {
  const known = textOf(state, key);
  return known === undefined ? undefined : daySpan(known, standing(state, key)?.u);
}

/** The day a plan begins on by its rule. */
function startOf(state: State, from: Start = 'fitted'): Cover['start'] {
  for (const is of from === 'fitted_else_sold' ? (['fitted', 'sold'] as const) : [from]) {
    const day = spanOf(state, is === 'fitted' ? 'kit.fitted' : 'kit.sold');
    if (day) return { day, is };
  }
  return undefined;
}

/** The days on which it failed, as far as they are known. */
export const failureOf = (state: State): DaySpan | undefined => spanOf(state, 'case.date');

/** What a plan bears here: kinds of cost, our share by the months between start and failure, and what it leaves out. */
export function coverOf(plan: Plan, state: State, registry: Registry): Cover {
  const start = startOf(state, plan.from);
  const failure = failureOf(state);
  return {
    start,
    bears: bearsOf(plan),
    share: sharesBetween(plan, start?.day, failure),
    exclusions: (plan.excludes ?? []).map((e) => {
      const o = registry.get(e.key);
      const value = textOf(state, e.key);
      // An answer that this desk's list does not have is none.
      if (value === undefined || !o || !optionsOf(o).some((x) => x.key === value))
        return { ...e, stands: 'unknown' };
      return { ...e, stands: e.is.includes(value) ? 'applies' : 'not' };
    }),
  };
}

/** A share never grows with time, so its ends are those of the months that may have run; a plan without steps needs no dates. */
function sharesBetween(plan: Plan, start: DaySpan | undefined, failure: DaySpan | undefined): Cover['share'] {
  if ((plan.shares ?? []).length === 0) return { least: 1, most: 1 };
  if (!start || !failure) return undefined;
  const most = shareAfter(plan, monthsBetween(start.last, failure.first));
  return { least: shareAfter(plan, monthsBetween(start.first, failure.last)), most };
}
