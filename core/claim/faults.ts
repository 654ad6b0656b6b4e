import * as z from 'zod';
import type { Finding } from '@core/bench/findings';
import type { Procedure } from '@core/catalogue/pack';
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

/** Key of the fact that records a fault against the claim. */
export const faultKey = (code: string): string => `claim.fault.${code}`;

/** The step of a procedure that a fault belongs to: the first of its kind. */
export function faultStep(fault: InstallationFault, procedure: Procedure | undefined) {
  return procedure?.steps.find((s) => s.kind === fault.stepKind);
}

/** Ids of the facts at hand that can stand as evidence for a fault. */
export function faultEvidence(fault: InstallationFault, findings: readonly Finding[]): string[] {
  return [...new Set(findings.filter((f) => fault.evidence.includes(f.finding)).flatMap((f) => f.facts))];
}
