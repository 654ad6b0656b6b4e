import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { Engine } from '@core/catalogue/pack';
import type { Sheet, SheetStep } from '@core/fitting/sheet';
import { APART } from '@core/cause/cause-data';
import type { Ranking } from '@core/cause/rank';
import type { Policy } from '@core/policy/policy';
import data from './data/faults.json';

const FaultSchema = z.strictObject({
  code: z.string().regex(/^[A-Z]{3}-[A-Z]{3,4}$/),
  /** What it can cost by itself: the timing, the drive or a part of it before its time, or no more than proof and work. */
  harms: z.enum(['timing', 'drive', 'none']),
  wording: z.string(),
  advice: z.string(),
  /** How it shows on the parts that come back. */
  shows: z.string(),
  /** Findings and facts that can prove it. */
  evidence: z.array(z.string()),
});
export type InstallationFault = z.infer<typeof FaultSchema>;

/** Our own list of installation faults. */
export const FAULTS: readonly InstallationFault[] = z.array(FaultSchema).parse(data);

export type Severity = 'grave' | 'serious' | 'slight';
/** How grave a fault is on this engine: lost timing ruins one whose valves meet the pistons, and unknown counts as such. */
export function severityOf(
  { harms }: Pick<InstallationFault, 'harms'>,
  interference: Engine['interference'] | undefined,
): Severity {
  if (harms === 'none') return 'slight';
  return harms === 'timing' && interference !== 'no' ? 'grave' : 'serious';
}

/** The step of a sheet that a fault belongs to: the first that it follows from, else the one that a gate makes wait. */
export function faultStep(
  fault: Pick<InstallationFault, 'code'>,
  sheet: Pick<Sheet, 'steps' | 'gates'> | undefined,
): SheetStep | undefined {
  const own = sheet?.steps.find((s) => Object.values(s.faults ?? {}).includes(fault.code));
  const gate = own ? undefined : sheet?.gates.find((g) => g.fault === fault.code);
  return own ?? sheet?.steps.find((s) => s.id === gate?.before);
}

/** Ids of the facts that speak for a fault: findings it can be proved by, that make its likeliest cause likelier; an unlikely one only the sheet speaks for. */
export function faultEvidence(
  fault: InstallationFault,
  ranking: Ranking,
  { speaks }: Pick<Policy, 'speaks'>,
): string[] {
  const cause = ranking.causes.find((c) => c.cause.fault === fault.code);
  if (!cause) return [];
  const speaking = cause.weights.filter(
    (w) =>
      fault.evidence.includes(w.finding) &&
      w.nats > speaks.nats &&
      (cause.probability >= speaks.share || w.finding === APART.sheet.finding),
  );
  return [...new Set(speaking.flatMap((w) => w.facts))];
}
