import { possibleOptions } from '@core/answer/applies';
import type { Fact, FactValue } from '@core/facts/fact';
import { mayBeUnknown, type Observable, optionsOf } from '@core/facts/observable';
import { measuredOf } from '@core/facts/read';
import { silent, UNKNOWN, whySilent } from '@core/facts/silence';
import type { TileChoice } from '../ui/letters';
import type { Strip } from '../ui/limit-strip';
import { limitStrip, readingKey, readingStrip, repeatsStrip } from '../messages/strips';
import type { Session } from './session';

/** Keys of the tiles that say: nothing of it all, and: not known. No option has them. */
export const NOTHING_TILE = '\u0000none';
const NOT_KNOWN = '\u0000unknown';

/**
 * What a choice offers: what a drive that is still possible can show; where several can be, also nothing of it all; that it is
 * not known where that is an answer.
 */
export function optionsFor(session: Session, o: Observable | undefined): readonly TileChoice[] {
  if (!o) return [];
  const named: readonly TileChoice[] =
    o.type.kind === 'wheels'
      ? session.readContext().wheels.map((w) => ({ key: w.id, wording: w.name }))
      : possibleOptions(optionsOf(o), session.possible());
  const none = o.type.kind === 'several' || o.type.kind === 'wheels' ? o.type.none : undefined;
  if (none !== undefined) return [...named, { key: NOTHING_TILE, wording: none }];
  return o.type.kind === 'choice' && mayBeUnknown(o)
    ? [...named, { key: NOT_KNOWN, wording: UNKNOWN.wording }]
    : named;
}

/** The value that a tile of a choice stands for. */
export const valueOfTile = (key: string): FactValue => (key === NOT_KNOWN ? silent('unknown') : key);

/** Keys of the tiles that a fact stands for. */
export function pickedOf(fact: Fact | undefined): readonly string[] {
  if (!fact) return [];
  if (whySilent(fact) === 'unknown') return [NOT_KNOWN];
  const { value } = fact;
  if (!Array.isArray(value)) return typeof value === 'string' ? [value] : [];
  return value.length === 0 ? [NOTHING_TILE] : value.map(String);
}

/** The reading against its limits where the drive gives them, else several readings beside each other. */
export function stripFor(session: Session, o: Observable, about: string | undefined): Strip | undefined {
  const [state, drive] = [session.state(), session.drive()];
  if (o.type.kind !== 'number' || !state) return undefined;
  const m = measuredOf(state, new Map([[o.key, o]]), o.key, about);
  if (drive && about === undefined && readingKey(drive) === o.key) return readingStrip(drive, m);
  const limit = session.limit?.(o.key, about);
  if (limit && m) return limitStrip(o, m, limit, (value, u) => session.show(o, value, u));
  return repeatsStrip(o, m, (value, u) => session.show(o, value, u));
}

/** How it is observed, and what to beware of as long as it is not known. */
export function helpFor(o: Observable | undefined, known: boolean): string {
  return [o?.observe, o?.caution && !known ? `▲ ${o.caution}` : ''].filter(Boolean).join(' ');
}
