import { lastPer } from '@core/quantity/keep';
import type { Finding } from '@core/examination/finding';
import { once } from '@core/quantity/once';
import type { CauseData } from './cause-data';
import { type Evidence, evidenceOf } from './evidence';
import {
  condition,
  type ConditionedModel,
  logLikelihoods,
  shares,
  withoutCoupled,
  withoutNormal,
} from './infer';
import { type CauseModel, modelOf } from './model';
import { causeLogs } from './settle';

/** One finding left out: what causes would be, as natural logs and as shares. */
export type Without = { finding: Finding; logs: Float64Array; causes: Float64Array };
/** Findings weighed by a body of knowledge: what ranking, explanation and checks all begin with. */
export type Weighed = {
  model: CauseModel;
  evidence: Evidence;
  conditioned: ConditionedModel;
  /** What the mechanisms say of each cause, natural log. */
  network: Float64Array;
  /** What the findings add to each cause, natural log. */
  logs: Float64Array;
  /** Every finding left out in turn; worked out when it is first asked for. */
  readonly without: () => readonly Without[];
};

const kept = lastPer<readonly Finding[], Weighed>();
/** Weighs findings, once for the same list of them and the same knowledge. */
export function weigh(data: CauseData, findings: readonly Finding[]): Weighed {
  return kept(
    findings,
    (before) => before.model.data === data,
    () => weighAnew(data, findings),
  );
}

function weighAnew(data: CauseData, findings: readonly Finding[]): Weighed {
  const model = modelOf(data);
  const evidence = evidenceOf(model, findings);
  const conditioned = condition(model, evidence.observed);
  const network = logLikelihoods(model, conditioned);
  const logs = causeLogs(model, network, evidence);
  return {
    model,
    evidence,
    conditioned,
    network,
    logs,
    without: once(() => leftOut(model, evidence, conditioned, network)),
  };
}

/** Evidence without one finding: what it showed of a cause itself goes with it, and that something abnormal was found. */
export function withoutFinding(evidence: Evidence, finding: Finding): Evidence {
  const others = <T extends { finding: Finding }>(list: readonly T[]) =>
    list.filter((x) => x.finding !== finding);
  return {
    ...evidence,
    observed: others(evidence.observed),
    direct: others(evidence.direct),
    sightings: others(evidence.sightings),
    findings: evidence.findings.filter((f) => f !== finding),
  };
}

function leftOut(
  model: CauseModel,
  evidence: Evidence,
  conditioned: ConditionedModel,
  network: Float64Array,
): Without[] {
  const of = (finding: Finding, logs: Float64Array): Without => ({
    finding,
    logs,
    causes: shares(model, logs).causes,
  });
  const apart = new Set([...evidence.observed, ...evidence.direct].map((x) => x.finding));
  return [
    ...evidence.observed.map((o) => {
      const rest = withoutFinding(evidence, o.finding);

      const without = o.sound === 1 ? withoutNormal : withoutCoupled;
      return of(o.finding, causeLogs(model, without(model, conditioned, network, o), rest));
    }),
    // what speaks of causes themselves is beside the network
    ...[...evidence.direct, ...evidence.sightings.filter((s) => !apart.has(s.finding))].map((d) =>
      of(d.finding, causeLogs(model, network, withoutFinding(evidence, d.finding))),
    ),
  ];
}
