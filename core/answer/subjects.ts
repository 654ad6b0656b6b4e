import type { Observable } from '@core/facts/observable';
import { has, placedOf } from '@core/facts/read';
import { needsThing } from '@core/facts/registry';
import type { State } from '@core/facts/state';
import { kindOfId } from '@core/facts/thing';
import type { Possible } from './applies';
import type { NamedThing } from './things';

/**
 * Things that an observable is to be looked at on: every wheel or bank of the possible drives, else the first of its kind
 * (undefined) and every further part of the case.
 */
export function subjectsOf(
  o: Observable,
  drive: Possible,
  things: readonly NamedThing[] = [],
): (string | undefined)[] {
  if (needsThing(o)) return [...(drive.own ?? [])].filter((id) => kindOfId(id) === o.part);
  const further = things.filter((t) => t.kind === o.part && t.id !== o.part).map((t) => t.id);
  return [undefined, ...further];
}

/** True when it was looked at, at whatever place: "unknown" is no look, nor is what was passed over. */
export const isInspected = (state: State, o: Observable, about: string | undefined): boolean =>
  o.place ? placedOf(state, o.key, about).length > 0 : has(state, o.key, about);
