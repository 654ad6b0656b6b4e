import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { FactSchema, PROVENANCES } from '@core/facts/fact';
import { meaningOf, slotKey } from '@core/facts/meaning';
import type { Place } from '@core/facts/place';

const { about, key, place, value, u } = FactSchema.shape;
/** What a look shows, or an answer says, of one observable at one place. */
const LiesSchema = z.strictObject({ key, about, place, value, u, how: z.enum(PROVENANCES) });
export type Lies = Readonly<z.infer<typeof LiesSchema>>;

/** A return that nobody sent, whole: what came, what is told at first, and all that looks and questions would bring. */
export const VirtualCaseSchema = z.strictObject({
  /** The same for the same return, whoever draws it. */
  id: z.string().regex(/^practice-[a-z0-9-]{1,60}$/),
  /** Theme that it was drawn for; none of one made from a settled case. */
  theme: z.string().max(60).optional(),
  cause: z.string().min(1).max(80),
  /** What the paper and the first words say: filed when it is opened. */
  opening: z.array(LiesSchema).max(500),
  /** What is there to be found, a line each. */
  there: z.array(LiesSchema).max(2000),
  /** Slots that show the truth: who finds them can know it. */
  shows: z.array(z.string()).max(500),
  /** Answers told wrong by who was asked. */
  wrong: z.array(z.string()).max(500),
  /** Minutes that a caller stays on the line. */
  patience: z.number().positive().max(600),
});
export type VirtualCase = Readonly<z.infer<typeof VirtualCaseSchema>>;

/** Name of the slot that an observable of a thing fills. */
export const slotName = (x: { key: string; about?: string | undefined; place?: Place | undefined }): string =>
  slotKey(meaningOf({ key: x.key, about: x.about }), x.place);
