import { sentKey } from '@core/facts/kinds';
import { optionsOf, type Registry } from '@core/facts/observable';
import { type Station } from '@core/facts/stations';
import { filedObservables, has, listOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { applies, type Possible } from './applies';
import { isAsked } from './examined';
import { isInspected, subjectsOf } from './subjects';
import type { NamedThing } from './things';

/** How much of what a station can look at was looked at. */
export type InspectionCount = { looked: number; open: string[]; notSent: string[]; doesNotApply: number };

/**
 * Counts what a station has to look at, thing by thing: looked at (a value other than "unknown"), not looked at, not sent (its part is missing
 * from a box whose contents were filed), and those that no possible drive has.
 */
export function countInspections(
  registry: Registry,
  state: State,
  drive: Possible,
  station: Station,
  things: readonly NamedThing[] = [],
): InspectionCount {
  const boxFiled = has(state, 'parts.sent');
  const box = registry.get('parts.sent');
  const parts = new Set(box ? optionsOf(box).map((o) => o.key) : []);
  const sent = new Set(listOf(state, 'parts.sent'));
  // What belongs to the vehicle or the claim cannot be missing from the box.
  const missing = (kind: string) => {
    const part = sentKey(kind);
    return parts.has(part) && !sent.has(part);
  };
  const filed = filedObservables(state);
  const known = new Map<string, boolean>();
  const asked = (part: string): boolean => {
    let is = known.get(part);
    if (is === undefined) known.set(part, (is = isAsked(part, state, things)));
    return is;
  };
  const inspections: InspectionCount = { looked: 0, open: [], notSent: [], doesNotApply: 0 };
  for (const o of registry.values()) {
    // What is computed or of another engine's catalogue is nobody's to look at.
    if (o.station !== station || o.hidden || o.how === 'computed') continue;
    // Nobody misses a look at what came in no box and is in few.
    if (!asked(o.part)) continue;
    if (!applies(o, drive)) {
      if (o.needs?.length) inspections.doesNotApply++;
      continue;
    }
    for (const about of subjectsOf(o, drive, things)) {
      if (filed.has(o.key) && isInspected(state, o, about)) inspections.looked++;
      else if (boxFiled && about === undefined && missing(o.part)) inspections.notSent.push(o.key);
      else inspections.open.push(o.key);
    }
  }
  return inspections;
}
