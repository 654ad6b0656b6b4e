import * as z from 'zod';
import data from './data/causes.json';

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
      /** Kinds of drive on which it can occur; every kind unless given. */
      drives: z.array(z.enum(['belt', 'chain'])).optional(),
      /** Code of the installation fault that it is, if it is one. */
      fault: z.string().optional(),
    }),
  ),
  evidence: z.array(
    z.strictObject({
      finding: z.string(),
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
export const CAUSES: CauseData = CauseDataSchema.parse(data);

/** The causes that can occur on a drive of these kinds; all while the drive is not known. */
export function causesFor(kinds: ReadonlySet<'belt' | 'chain'>): CauseData {
  if (kinds.size === 0) return CAUSES;
  return {
    ...CAUSES,
    causes: CAUSES.causes.filter((c) => c.drives === undefined || c.drives.some((d) => kinds.has(d))),
  };
}
