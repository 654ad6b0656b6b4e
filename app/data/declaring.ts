import type { NewFact } from '@core/facts/change';
import { THING } from '@core/facts/thing';

/** The facts that declare a further part of a kind at a place on the drive. @param unique makes its id */
export function declaring(kind: string, place: string, unique: string): NewFact[] {
  const about = `${kind}-${unique.slice(0, 8)}`;
  return [
    { about, key: THING.kind, value: kind, how: 'seen' },
    ...(place === '' ? [] : [{ about, key: THING.place, value: place, how: 'seen' as const }]),
  ];
}
