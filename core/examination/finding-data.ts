import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { DIMENSIONS } from '@core/quantity/units';
import data from './data/findings.json';

const FindingEntrySchema = z.strictObject({
  finding: z.string(),
  wording: z.string(),
  /** Words of its grades. */
  values: z.record(z.string(), z.string()).optional(),
  /** How its number is written; without a dimension the unit stands as it is. */
  number: z
    .strictObject({
      dimension: z.enum(DIMENSIONS).optional(),
      unit: z.string(),
      decimals: z.number().int().min(0),
    })
    .optional(),
});
export type FindingEntry = Readonly<z.infer<typeof FindingEntrySchema>>;

/** What computed findings are called; all others bear the name of their observable. */
export const FINDINGS: ReadonlyMap<string, FindingEntry> = new Map(
  z
    .array(FindingEntrySchema)
    .parse(data)
    .map((f) => [f.finding, f]),
);
