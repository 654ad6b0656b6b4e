import type { State } from '@core/facts/state';
import { type Day, dayOf, daysBetween } from '@core/quantity/dates';
import type { SealCheck } from './seal';

/** Since when a claim waits, how many days, and by how many the house's promise is over; negative while it is not. */
export type Waiting = { since: Day; days: number; over: number };

/**
 * How long a claim waits: from its first fact until today, or until it was sealed with all that is known. A fact that came
 * after the seal lets it wait again from the beginning, since it is not answered. Undefined where nothing was filed.
 */
export function waitingOf(
  state: State,
  seals: readonly SealCheck[],
  today: Day,
  promised: number,
): Waiting | undefined {
  const first = state.log[0];
  if (!first) return undefined;
  const since = dayOf(first.at);
  // An issue that was printed again answers nothing anew: the first that covers all of it ended the waiting.
  const sealed = seals.find((x) => x.verdict === 'intact' && x.later === 0);
  const days = Math.max(0, daysBetween(since, sealed ? dayOf(sealed.seal.at) : today));
  return { since, days, over: days - promised };
}
