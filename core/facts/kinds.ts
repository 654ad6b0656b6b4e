import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { KIND_DATA } from './kinds/all';

const KindSchema = z.strictObject({
  kind: z.string(),
  wording: z.string(),
  /** A returned part: there may be several of one kind, each a thing of its own. */
  part: z.boolean(),
  aliases: z.array(z.string()).optional(),
  /** Among the parts sent in: its key and words there, where they are not its own, and what a drive must have for it. */
  sent: z
    .strictObject({
      key: z.string().optional(),
      wording: z.string().optional(),
      needs: z.array(z.string()).optional(),
    })
    .optional(),
  /** Asked for only once it is in the box: nobody misses one where none came. */
  rare: z.boolean().optional(),
  /** It is what parts came in: here as soon as anything came. */
  box: z.boolean().optional(),
  /** There is no first one of it: whoever speaks of one says which. */
  named: z.boolean().optional(),
  /** Where on a drive it sits: on wheels of these roles, or along the belt or chain itself. */
  sits: z.array(z.string()).optional(),
  /** What cannot be claimed when it did not come. */
  without: z.string().optional(),
  /** What can be observed of it; read by `registry.ts`. */
  observables: z.array(z.unknown()),
  /** How it is examined, in the order of the work; read by the room of examination. */
  inspections: z.array(z.unknown()).optional(),
  /** How grades are drawn, by observable and grade: a base and marks on it. */
  tiles: z.record(z.string(), z.record(z.string(), z.string())).optional(),
});
export type Kind = Readonly<z.infer<typeof KindSchema>>;

/** Kinds of things that facts can be about, each from a file of its own (`kinds/`). */
export const KINDS: ReadonlyMap<string, Kind> = new Map(
  z
    .array(KindSchema)
    .parse(KIND_DATA)
    .map((k) => [k.kind, k]),
);

/** Key of a kind among the parts sent in. */
export const sentKey = (kind: string): string => KINDS.get(kind)?.sent?.key ?? kind;

/** The parts that can be sent in, what is rare last. */
export const PARTS_SENT: readonly { key: string; wording: string; needs?: string[] | undefined }[] = [
  ...KINDS.values(),
]
  .filter((k) => k.part)
  .sort((a, b) => Number(a.rare ?? false) - Number(b.rare ?? false))
  .map((k) => ({
    key: sentKey(k.kind),
    wording: k.sent?.wording ?? k.wording,
    ...(k.sent?.needs ? { needs: k.sent.needs } : {}),
  }));
