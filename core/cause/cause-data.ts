import * as z from 'zod';
import { HAS, hasAll, kindWord } from '@core/drive/drive-has';
import { EvidenceSchema } from './likelihood';
import shipped from './data/causes.json';

z.config({ jitless: true });

export const CauseDataSchema = z.strictObject({
  /** No single group of findings may move the balance by more than this, in nats either way. */
  maxWeight: z.number().positive(),
  none: z.strictObject({ prior: z.number().gt(0).lt(1), wording: z.string() }),
  causes: z.array(
    z.strictObject({
      key: z.string(),
      wording: z.string(),
      family: z.string(),
      prior: z.number().gt(0).lt(1),
      mechanism: z.string(),
      consequence: z.string(),
      /** What a drive must have for it to occur there; any drive unless given. */
      needs: z.array(z.enum(HAS)).optional(),
      /** Code of the installation fault that it is, if it is one. */
      fault: z.string().optional(),
    }),
  ),
  evidence: z.array(EvidenceSchema),
  contradictions: z.array(
    z.strictObject({
      a: z.tuple([z.string(), z.string()]),
      b: z.tuple([z.string(), z.string()]),
      wording: z.string(),
    }),
  ),
});
export type CauseData = z.infer<typeof CauseDataSchema>;
export type CauseEntry = CauseData['causes'][number];

/** The causes and weights that ship. */
export const CAUSES: CauseData = CauseDataSchema.parse(shipped);

/** The causes that can occur on a drive with these things, in its words; all while the drive is not known. */
export function causesFor(data: CauseData, has: ReadonlySet<string> | undefined): CauseData {
  const word = kindWord(has);
  const Word = word[0]!.toUpperCase() + word.slice(1);
  const fill = (text: string) => text.replace(/\{drive\}/g, word).replace(/\{Drive\}/g, Word);
  return {
    ...data,
    causes: data.causes
      .filter((c) => hasAll(c.needs, has))
      .map((c) => ({
        ...c,
        wording: fill(c.wording),
        mechanism: fill(c.mechanism),
        consequence: fill(c.consequence),
      })),
  };
}
