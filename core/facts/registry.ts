import * as z from 'zod';
import '@core/quantity/plain-schemas';
import groups from './data/groups.json';
import { KINDS, PARTS_SENT } from './kinds';
import { type Observable, ObservableSchema, type Registry, registryOf } from './observable';
import { STATIONS } from './stations';

/** An observable whose options are the parts that there are: they are said once, at their kinds. */
const OfParts = z.looseObject({ type: z.looseObject({ options: z.literal('parts') }) });
const filled = (row: unknown): unknown => {
  const found = OfParts.safeParse(row);
  return found.success ? { ...found.data, type: { ...found.data.type, options: PARTS_SENT } } : row;
};

/** The observables that ship, kind by kind. */
export const OBSERVABLES: readonly Observable[] = z
  .array(ObservableSchema)
  .parse([...KINDS.values()].flatMap((k) => k.observables.map(filled)));

const GroupSchema = z.strictObject({ key: z.string(), station: z.enum(STATIONS), wording: z.string() });
export type Group = Readonly<z.infer<typeof GroupSchema>>;
/** Groups of observables at the stations, in the order in which they are shown. */
export const GROUPS: readonly Group[] = z.array(GroupSchema).parse(groups);

/** The observables given, plus those that a catalogue brings (its features). */
export function registryWith(base: readonly Observable[], more: readonly Observable[]): Registry {
  return registryOf([...base, ...more]);
}

/** Whether an observable cannot be filed without saying of which thing: there is no first wheel, bank or old part. */
export const needsThing = (o: Pick<Observable, 'part'>): boolean => KINDS.get(o.part)?.named === true;
