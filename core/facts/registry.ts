import * as z from 'zod';
import '@core/quantity/plain-schemas';
import groups from './data/groups.json';
import data from './data/observables.json';
import { type Observable, ObservableSchema, type Registry, registryOf, STATIONS } from './observable';

/** The observables that ship. */
export const OBSERVABLES: readonly Observable[] = z.array(ObservableSchema).parse(data);

const GroupSchema = z.strictObject({ key: z.string(), station: z.enum(STATIONS), wording: z.string() });
export type Group = Readonly<z.infer<typeof GroupSchema>>;
/** Groups of observables at the stations, in the order in which they are shown. */
export const GROUPS: readonly Group[] = z.array(GroupSchema).parse(groups);

/** The observables given, plus those that a catalogue brings (its features). */
export function registryWith(base: readonly Observable[], more: readonly Observable[]): Registry {
  return registryOf([...base, ...more]);
}

/** Kinds that an observable cannot be about without saying which one: there is no first wheel, bank or old part. */
const NAMED = new Set(['wheel', 'bank', 'stage', 'step', 'old', 'fault']);
export const needsThing = (o: Pick<Observable, 'part'>): boolean => NAMED.has(o.part);
