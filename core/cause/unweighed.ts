import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/unweighed.json';

/** What can be filed and weighs on no cause by itself, each with why. */
export const UNWEIGHED: ReadonlyMap<string, string> = new Map(
  z
    .array(z.strictObject({ keys: z.array(z.string()).min(1), why: z.string().min(20) }))
    .parse(data)
    .flatMap(({ keys, why }) => keys.map((k) => [k, why] as const)),
);
