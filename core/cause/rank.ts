import type { Finding, FindingValue } from '@core/bench/finding';
import type { CauseData, CauseEntry } from './cause-data';
import { type EvidenceRow, groupOf, isNormal, logRatios, weighs } from './likelihood';

/** What one finding does to one cause: natural log of its odds factor against returns at large. */
export type Weight = {
  finding: string;
  value: FindingValue;
  /** The thing, when it is not the first of its kind. */
  about?: string;
  facts: string[];
  nats: number;
  /** False when a stronger finding of the same group already says it. */
  counted: boolean;
};
export type RankedCause = { cause: CauseEntry; probability: number; weights: Weight[] };
export type Ranking = {
  causes: RankedCause[];
  none: number;
  /** Abnormal findings that the leader does not make likelier. */
  unexplained: Finding[];
  contradictions: { wording: string; facts: string[] }[];
};

/**
 * Ranks causes by Bayes' rule in log-odds: prior share, times for each group of findings the likelihood ratio of its
 * strongest finding against returns at large. Unknown is neutral. "None of these" keeps its prior and a ratio of one.
 * Probabilities add up to 1. Good 1950; the weights are the `nats` listed.
 * @param explainedFactor the leader explains a finding that it makes so many times likelier
 */
export function rankCauses(data: CauseData, findings: readonly Finding[], explainedFactor: number): Ranking {
  const evidence = pickByGroup(data, findings);
  const scored = data.causes.map((cause) => {
    const weights = evidence.map((e) => weigh(data, cause, e));
    const sum = weights.reduce((s, w) => s + (w.counted ? w.nats : 0), 0);
    return { cause, weights, score: Math.log(cause.prior) + sum };
  });
  const noneScore = Math.log(data.none.prior);
  const top = Math.max(noneScore, ...scored.map((s) => s.score));
  const total = Math.exp(noneScore - top) + scored.reduce((s, c) => s + Math.exp(c.score - top), 0);
  const causes = scored
    .map(({ cause, weights, score }) => ({ cause, weights, probability: Math.exp(score - top) / total }))
    .sort((a, b) => b.probability - a.probability);
  return {
    causes,
    none: Math.exp(noneScore - top) / total,
    unexplained: unexplained(data, findings, causes[0]?.cause, explainedFactor),
    contradictions: contradictions(data, findings),
  };
}

/** A finding that is weighed, and what it does to each cause in nats. */
type Picked = { row: EvidenceRow; finding: Finding; nats: ReadonlyMap<string, number>; counted: boolean };
/** Marks, in each group, the finding that can say most (largest ratio over all causes). */
function pickByGroup(data: CauseData, findings: readonly Finding[]): Picked[] {
  const picked: Picked[] = [];
  for (const finding of findings) {
    const row = data.evidence.find((r) => r.finding === finding.finding);
    if (!row || !weighs(row, finding.value)) continue;
    const of = logRatios(row, finding.value);
    const nats = new Map(data.causes.map((c) => [c.key, of(c.key)]));
    picked.push({ row, finding, nats, counted: true });
  }
  const strength = new Map(picked.map((p) => [p, Math.max(0, ...[...p.nats.values()].map(Math.abs))]));
  for (const p of picked) {
    const stronger = picked.find(
      (q) =>
        q !== p &&
        groupOf(q.row, q.finding.value) === groupOf(p.row, p.finding.value) &&
        q.counted &&
        strength.get(q)! >= strength.get(p)!,
    );
    if (stronger) p.counted = false;
  }
  return picked;
}

function weigh(data: CauseData, cause: CauseEntry, p: Picked): Weight {
  return { ...p.finding, nats: clip(p.nats.get(cause.key) ?? 0, data.maxWeight), counted: p.counted };
}

const clip = (x: number, limit: number) => Math.max(-limit, Math.min(limit, x));

/** A finding is explained when the leader makes it likelier than at large by the house's factor. */
function unexplained(
  data: CauseData,
  findings: readonly Finding[],
  leader: CauseEntry | undefined,
  factor: number,
): Finding[] {
  return findings.filter((f) => {
    const row = data.evidence.find((r) => r.finding === f.finding);
    return row && leader && !isNormal(row, f.value) && logRatios(row, f.value)(leader.key) < Math.log(factor);
  });
}

function contradictions(data: CauseData, findings: readonly Finding[]) {
  const get = ([finding, value]: [string, string]) =>
    findings.find((f) => f.finding === finding && f.value === value);
  return data.contradictions.flatMap((c) => {
    const [a, b] = [get(c.a), get(c.b)];
    return a && b ? [{ wording: c.wording, facts: [...a.facts, ...b.facts] }] : [];
  });
}
