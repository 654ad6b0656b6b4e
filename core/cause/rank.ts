import { doubleAt, nth } from '@core/quantity/must';
import type { Finding, FindingValue } from '@core/examination/finding';
import { once } from '@core/quantity/once';
import type { CauseData, CauseEntry } from './cause-data';
import { type Evidence, isAbnormal } from './evidence';
import { condition, logLikelihoods, shares } from './infer';
import { undenied } from './settle';
import { type FaultSeen, faultsSeen } from './together';
import { weigh, type Without } from './weighed';

/** What one finding does to one cause, all others being known: change of its log-odds, natural log. */
export type Weight = {
  finding: string;
  value: FindingValue;
  /** The thing, when it is not the first of its kind. */
  about?: string;
  facts: string[];
  nats: number;
};
export type RankedCause = {
  cause: CauseEntry;
  probability: number;
  /** Worked out when it is first asked for. */
  readonly weights: readonly Weight[];
};
/** A fault that was seen, by what it was seen, what it explains beside, and its part in that. */
export type SeenFault = Pick<FaultSeen, 'explains' | 'part' | 'suffices'> & {
  cause: CauseEntry;
  shownBy: readonly Finding[];
};
export type Ranking = {
  causes: RankedCause[];
  none: number;
  /** Findings that weigh at all. */
  weighed: number;
  /** Findings that are not sound, and what was seen of a fault itself. */
  abnormal: readonly Finding[];
  /** Abnormal findings that the leader does not make likelier. */
  readonly unexplained: readonly Finding[];
  contradictions: { wording: string; means: string; facts: string[] }[];
  /** Faults that were seen themselves; where there are several they stand together. */
  faults: readonly SeenFault[];
  /** What says again what another finding says. */
  again: Evidence['again'];
  /** Findings outside every grade and band of the knowledge: flagged, and without weight. */
  strange: readonly Finding[];
};

/**
 * Ranks causes by Bayes' rule: prior share times how likely each makes the findings, summed over the hidden mechanisms (`infer.ts`), so that two findings of one mechanism
 * never count twice. What is not known is neutral; "none of these" is a drive where only leaks are at work. Probabilities add up to 1.
 * @param explainedFactor the leader explains a finding that it makes so many times likelier than none of these does
 */
export function rankCauses(data: CauseData, findings: readonly Finding[], explainedFactor: number): Ranking {
  const { model, evidence, logs, without } = weigh(data, findings);
  const share = shares(model, logs);
  const order = [...share.causes.keys()].sort(
    (a, b) => doubleAt(share.causes, b) - doubleAt(share.causes, a),
  );
  const causes = order.map((i): RankedCause => {
    const weights = once(() => weightsOf(i, share.causes, without()));
    return {
      cause: nth(model.causes, i),
      probability: doubleAt(share.causes, i),
      get weights() {
        return weights();
      },
    };
  });
  const unexplained = once(() => {
    const leader = order[0];
    if (leader === undefined) return [];
    // each for itself: what another finding shows already is explained by the same leader
    const alone = (o: Evidence['observed'][number]) =>
      doubleAt(logLikelihoods(model, condition(model, [o])), leader);
    return evidence.observed
      .filter((o) => isAbnormal(o) && alone(o) < Math.log(explainedFactor))
      .map((o) => o.finding);
  });
  return {
    causes,
    none: share.none,
    weighed: evidence.observed.length + evidence.direct.length,
    abnormal: [...evidence.observed.filter(isAbnormal), ...evidence.direct].map((o) => o.finding),
    get unexplained() {
      return unexplained();
    },
    contradictions: contradictions(data, findings),
    faults: faultsSeen(model, logs, undenied(model, evidence)).map(
      ({ leader, shownBy, explains, part, suffices }) => ({
        cause: nth(model.causes, leader),
        shownBy: shownBy.map((s) => s.finding),
        explains,
        part,
        suffices,
      }),
    ),
    again: evidence.again,
    strange: evidence.strange,
  };
}

const logit = (p: number): number => Math.log(p) - Math.log1p(-p);
const LEAST = 1e-15;
const held = (p: number): number => Math.max(LEAST, Math.min(1 - LEAST, p));

function weightsOf(i: number, now: Float64Array, without: readonly Without[]): Weight[] {
  return without.map(({ finding, causes }) => ({
    ...finding,
    nats: logit(held(doubleAt(now, i))) - logit(held(doubleAt(causes, i))),
  }));
}

function contradictions(data: CauseData, findings: readonly Finding[]) {
  const get = ([finding, value]: [string, string]) =>
    findings.find((f) => f.finding === finding && f.value === value);
  return data.contradictions.flatMap((c) => {
    const [a, b] = [get(c.a), get(c.b)];
    return a && b ? [{ wording: c.wording, means: c.means, facts: [...a.facts, ...b.facts] }] : [];
  });
}
