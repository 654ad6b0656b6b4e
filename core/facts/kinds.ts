import * as z from 'zod';
import data from './data/kinds.json';
import { PLACED_ON } from './place';

const KindSchema = z.strictObject({
  kind: z.string(),
  wording: z.string(),
  /** A returned part: there may be several of one kind, each a thing of its own. */
  part: z.boolean(),
  aliases: z.array(z.string()).optional(),
  needs: z.array(z.string()).optional(),
  places: z.array(z.enum(PLACED_ON)).optional(),
});
export type Kind = Readonly<z.infer<typeof KindSchema>>;

/** Kinds of things that facts can be about. */
export const KINDS: ReadonlyMap<string, Kind> = new Map(
  z
    .array(KindSchema)
    .parse(data)
    .map((k) => [k.kind, k]),
);
