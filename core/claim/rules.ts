import * as z from 'zod';
import data from './data/rules.json';

export const RulesSchema = z.strictObject({
  edition: z.number().int().positive(),
  /** A decided cause below this share of the weight is pointed out. */
  weakLeader: z.number().gt(0).lt(1),
  /** The leader explains a finding when it makes it at least this many times likelier than it is at large. */
  explainedFactor: z.number().gt(1),
  /** A check that is worth less is not proposed, bits. */
  leastBits: z.number().nonnegative(),
  /** Turns by hand before marks count, however few a procedure asks for. */
  leastTurns: z.number().int().positive(),
});
export type Rules = Readonly<z.infer<typeof RulesSchema>>;

/** House rules as shipped. */
export const RULES: Rules = RulesSchema.parse(data);
