import { tieOf } from '@core/cause/sides';
import { nth } from '@core/quantity/must';
import { type Cover, coverOf, failureOf } from '@core/claim/cover';
import { checkDecision, type DecisionCheck } from '@core/claim/decision';
import { costsOf, MINOR } from '@core/claim/costs';
import {
  faultEvidence,
  faultStep,
  type InstallationFault,
  severityOf,
  type Severity,
} from '@core/claim/faults';
import { checkSeals } from '@core/claim/seal';
import { judgeTerms, type TermsAnswer } from '@core/claim/terms';
import type { Fact } from '@core/facts/fact';
import { numberOf, standing, textOf } from '@core/facts/read';
import { faultThing } from '@core/facts/thing';
import type { SheetStep } from '@core/fitting/sheet';
import { once } from '@core/quantity/once';
import { node, orElse } from '../node';
import { fitted, sheet } from './drive';
import { usage, ranking } from './evidence';
import { engine, kit, registry, policy } from './identification';

/** What the plan of the kit bears here; undefined while the kit is not known. */
export const cover = orElse(
  node(
    { kit, registry },
    ({ kit, registry }, _, state): Cover | undefined => kit && coverOf(kit.terms, state, registry),
  ),
  () => undefined,
);

export const terms = orElse(
  node(
    { kit, usage, cover },
    ({ kit, usage, cover }, _, state): TermsAnswer | undefined =>
      kit && judgeTerms(kit.terms, cover?.start?.day, failureOf(state), usage.distance, usage.back),
  ),
  () => undefined,
);

export type FaultAnswer = {
  fault: InstallationFault;
  step?: SheetStep | undefined;
  /** Facts that speak for it; worked out when they are first asked for, since every finding is left out in turn for them. */
  readonly evidence: readonly string[];
  recorded?: Fact | undefined;
  severity: Severity;
  /** Share of what the claim asks for that was laid to it, of 1. */
  share?: number | undefined;
  proposed: boolean;
  /** A filled fitting sheet shows it. */
  shown: boolean;
};
/** Faults that can be recorded: those that a filled sheet shows at their steps, and the one that the cause decided names. */
export const faults = node(
  { ranking, sheet, fitted, policy, engine },
  ({ ranking, sheet, fitted, policy, engine }, { knowledge }, state): FaultAnswer[] => {
    // Before anything was weighed no cause leads, and none names a fault.
    const leads = ranking.weighed > 0 ? ranking.causes[0]?.cause.key : undefined;
    const decided = textOf(state, 'cause.decided') ?? leads;
    const wanted = ranking.causes.find((c) => c.cause.key === decided)?.cause.fault;
    return knowledge.faults.map((fault) => {
      const shown = fitted?.faults.filter((f) => f.code === fault.code) ?? [];
      const seen = shown[0] && sheet?.steps.find((s) => s.id === nth(shown, 0).step);
      const evidence = once(() => [
        ...new Set([...faultEvidence(fault, ranking, policy), ...shown.flatMap((f) => f.facts)]),
      ]);
      return {
        fault,
        step: seen ?? faultStep(fault, sheet),
        get evidence() {
          return evidence();
        },
        recorded: standing(state, 'claim.fault', faultThing(fault.code)),
        severity: severityOf(fault, engine?.interference),
        share: numberOf(state, 'fault.share', faultThing(fault.code)),
        proposed: fault.code === wanted || shown.length > 0,
        shown: shown.length > 0,
      };
    });
  },
);

/** What is asked for, line by line, and who bears it. */
export const costs = node({ cover }, ({ cover }, _world, state) => costsOf(state, cover));

export const decision = node(
  { ranking, terms, cover, faults, registry, kit, policy, costs },
  ({ ranking, terms, cover, faults, registry, kit, policy, costs }, _, state): DecisionCheck =>
    checkDecision(state, registry, {
      ranking,
      terms,
      exclusions: cover?.exclusions,
      recorded: faults.flatMap((f) => (f.recorded ? [f.recorded] : [])),
      laid: faults.flatMap((f) => (f.recorded && f.share !== undefined ? [f.share] : [])),
      required: kit?.terms.documents,
      speaks: policy.speaks.nats,
      weakLeader: policy.weakLeader,
      likely: policy.sureFrom.likely,
      tie: tieOf(ranking, policy.sidesApart) !== undefined,
      gross: costs.gross,
      secondFrom: Math.round(policy.secondFrom * MINOR),
    }),
);

export const seals = node({}, (_, _world, state) => checkSeals(state));
