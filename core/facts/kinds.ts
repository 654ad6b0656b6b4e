import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/kinds.json';

const KindSchema = z.strictObject({
  kind: z.string(),
  wording: z.string(),
  /** A returned part: there may be several of one kind, each a thing of its own. */
  part: z.boolean(),
  aliases: z.array(z.string()).optional(),
  /** Its key among the parts sent in, where that is not the kind itself. */
  sentAs: z.string().optional(),
  /** Asked for only once it is in the box: nobody misses one where none came. */
  rare: z.boolean().optional(),
  /** It is what parts came in: here as soon as anything came. */
  box: z.boolean().optional(),
});
export type Kind = Readonly<z.infer<typeof KindSchema>>;

/** Kinds of things that facts can be about. */
export const KINDS: ReadonlyMap<string, Kind> = new Map(
  z
    .array(KindSchema)
    .parse(data)
    .map((k) => [k.kind, k]),
);
