import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/truths.json';

const Share = z.number().gt(0).lt(1);
const TruthSchema = z.strictObject({
  cause: z.string(),
  /** How many of it come in, by the others. */
  weight: z.number().positive(),
  /** By finding, how often it shows as each grade. */
  shows: z.record(z.string(), z.record(z.string(), Share)),
  /** How often each symptom is what was noticed, by the others. */
  noticed: z.record(z.string(), z.number().positive()),
  /** Distance run until it failed: median, and the spread of its logarithm. */
  /** What it does to the drive in figures, where geometry says what is then read: that is no matter of how often. */
  acts: z
    .strictObject({
      setting: z.enum(['wrong_way', 'slack', 'beyond', 'end']).optional(),
      warm: z.boolean().optional(),
      worn: z.boolean().optional(),
      teeth: z.number().optional(),
    })
    .optional(),
  km: z.strictObject({ median: z.number().positive(), spread: z.number().positive() }),
});
/**
 * A cause as returns truly show it. Written down from the trade without a look at the numbers that Cause weighs with, and in
 * another form: no mechanisms, no leaks, each look by itself. Whoever is right about the knowledge finds these causes; whoever
 * is only right by its own numbers does not.
 */
export type Truth = z.infer<typeof TruthSchema>;
export const TRUTHS: readonly Truth[] = z.array(TruthSchema).parse(data);
