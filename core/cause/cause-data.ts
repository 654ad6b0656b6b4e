import * as z from 'zod';
import { HAS, hasAll, kindWord } from '@core/drive/drive-has';
import shipped from './data/causes.json';

z.config({ jitless: true });
const Life = z.strictObject({ shape: z.number().positive(), scaleKm: z.number().positive() });
const Shares = z.record(z.string(), z.number().gt(0).lt(1));

export const CauseDataSchema = z.strictObject({
  /** No single group of findings may move the balance by more than this, in nats either way. */
  maxWeight: z.number().positive(),
  background: z.strictObject({ life: Life }),
  none: z.strictObject({ prior: z.number().gt(0).lt(1), wording: z.string() }),
  causes: z.array(
    z.strictObject({
      key: z.string(),
      wording: z.string(),
      family: z.string(),
      prior: z.number().gt(0).lt(1),
      /** Weibull life from fitting to failure, km. */
      life: Life,
      mechanism: z.string(),
      consequence: z.string(),
      /** What a drive must have for it to occur there; any drive unless given. */
      needs: z.array(z.enum(HAS)).optional(),
      /** Code of the installation fault that it is, if it is one. */
      fault: z.string().optional(),
    }),
  ),
  evidence: z.array(
    z.strictObject({
      finding: z.string(),
      /** Observables that have to be filed to get it, "mark.*" for all of that kind; the finding's own key unless given. */
      inputs: z.array(z.string()).optional(),
      /** Findings of one group say the same thing: only the strongest of them counts. */
      group: z.string(),
      /** Values that need no explanation. */
      normal: z.array(z.string()),
      /** Share of each value among returns at large, and among returns with a given cause where it differs. */
      background: Shares,
      causes: z.record(z.string(), Shares),
    }),
  ),
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
export type EvidenceRow = CauseData['evidence'][number];

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
