import * as z from 'zod';
import type { SheetStep } from '@core/fitting/sheet';
import type { Ranking } from '@core/cause/rank';
import data from './data/faults.json';

const FaultSchema = z.strictObject({
  code: z.string().regex(/^[A-Z]{3}-[A-Z]{3,4}$/),
  wording: z.string(),
  /** Kind of the procedure step that was missed. */
  stepKind: z.string(),
  advice: z.string(),
  /** Findings and facts that can prove it. */
  evidence: z.array(z.string()),
});
export type InstallationFault = z.infer<typeof FaultSchema>;

/** Our own list of installation faults. */
export const FAULTS: readonly InstallationFault[] = z.array(FaultSchema).parse(data);

/** The step of a sheet that a fault belongs to: the first of its kind. */
export const faultStep = (fault: InstallationFault, steps: readonly SheetStep[]): SheetStep | undefined =>
  steps.find((s) => s.kind === fault.stepKind);

/** Ids of the facts that speak for a fault: findings it can be proved by, that make its cause likelier. */
export function faultEvidence(fault: InstallationFault, ranking: Ranking): string[] {
  const cause = ranking.causes.find((c) => c.cause.fault === fault.code);
  const speaking = (cause?.weights ?? []).filter((w) => fault.evidence.includes(w.finding) && w.nats > 0);
  return [...new Set(speaking.flatMap((w) => w.facts))];
}
