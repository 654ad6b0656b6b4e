import { lastPer } from '@core/quantity/keep';
import { doubleAt } from '@core/quantity/must';
import type { Finding } from '@core/examination/finding';
import { once } from '@core/quantity/once';
import type { CauseData } from './cause-data';
import { type Evidence, evidenceOf } from './evidence';
import { condition, type ConditionedModel, scores, shares, withoutNormal } from './infer';
import { type CauseModel, modelOf } from './model';

/** One finding left out: what causes would be, as natural logs and as shares. */
export type Without = { finding: Finding; logs: Float64Array; causes: Float64Array };
/** Findings weighed by a body of knowledge: what ranking, explanation and checks all begin with. */
export type Weighed = {
  model: CauseModel;
  evidence: Evidence;
  conditioned: ConditionedModel;
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
  const logs = scores(model, evidence, conditioned);
  return {
    model,
    evidence,
    conditioned,
    logs,
    without: once(() => leftOut(model, evidence, conditioned, logs)),
  };
}

function leftOut(
  model: CauseModel,
  evidence: Evidence,
  conditioned: ConditionedModel,
  all: Float64Array,
): Without[] {
  const of = (finding: Finding, logs: Float64Array): Without => ({
    finding,
    logs,
    causes: shares(model, logs).causes,
  });
  return [
    ...evidence.observed.map((o) => {
      if (o.sound === 1) return of(o.finding, withoutNormal(model, conditioned, all, o));
      return of(
        o.finding,
        scores(model, { ...evidence, observed: evidence.observed.filter((x) => x !== o) }),
      );
    }),
    // what speaks of causes themselves is a factor of its own
    ...evidence.direct.map((d) =>
      of(
        d.finding,
        all.map((l, i) => l - doubleAt(d.nats, i)),
      ),
    ),
  ];
}
