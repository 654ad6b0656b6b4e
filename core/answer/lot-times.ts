import { numberOf, standing } from '@core/facts/read';
import type { State } from '@core/facts/state';

const OF = ['kit.number', 'kit.lot'] as const;

/** Facts that a case's lot is known by: what is computed of the lot stands on them. */
export const lotFacts = (state: State): string[] => OF.flatMap((key) => standing(state, key)?.id ?? []);

/** How many times as often the lot of a case comes back, where that was weighed in; not of a lot or kit that was corrected since. */
export function lotTimes(state: State): number | undefined {
  const basis = standing(state, 'kit.lot_times')?.basis ?? [];
  const facts = lotFacts(state);
  return facts.length === OF.length && facts.every((id) => basis.includes(id))
    ? numberOf(state, 'kit.lot_times')
    : undefined;
}
