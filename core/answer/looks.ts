import type { Registry, Station } from '@core/facts/observable';
import { has, listOf, standing } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { applies, type Possible } from './applies';

/** How much of what a station can look at was looked at. */
export type Looks = { looked: number; open: string[]; notSent: string[]; doesNotApply: number };

/** Parts that are sent in; what belongs to the vehicle or the claim cannot be missing from the box. */
const SENT = new Set(['tensioner', 'belt', 'chain', 'guide', 'pump', 'cover']);

/**
 * Counts a station's observables: looked at (a value other than "unknown"), not looked at, not sent (its part is missing
 * from a box whose contents were filed), and those that no possible drive has.
 */
export function looksOf(registry: Registry, state: State, drive: Possible, station: Station): Looks {
  const boxFiled = has(state, 'parts.sent');
  const sent = new Set(listOf(state, 'parts.sent'));
  const looks: Looks = { looked: 0, open: [], notSent: [], doesNotApply: 0 };
  for (const o of registry.values()) {
    // What is computed or of another engine's catalogue is nobody's to look at.
    if (o.station !== station || o.hidden || o.how === 'computed') continue;
    if (!applies(o, drive)) {
      if (o.needs?.length) looks.doesNotApply++;
      continue;
    }
    const fact = standing(state, o.key);
    if (fact && fact.value !== 'unknown') looks.looked++;
    else if (boxFiled && SENT.has(o.part) && !sent.has(o.part)) looks.notSent.push(o.key);
    else looks.open.push(o.key);
  }
  return looks;
}
