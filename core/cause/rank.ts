import { own } from '@core/quantity/own';
import type { Finding } from '@core/bench/finding';
import { COVERAGE } from '@core/quantity/judge';
import type { CauseData, CauseEntry, EvidenceRow } from './cause-data';

/** What one finding does to one cause: natural log of its odds factor against returns at large. */
export type Weight = {
  finding: string;
  value: string;
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

/** The finding under which distance to failure is listed. */
export const LIFE = 'distance.run';

/** Distance since fitting, km, with its standard uncertainty. */
export type RanKm = { km: number; u: number; facts: string[] };

/** A difference of two readings within their own noise may be nothing at all: it weighs nothing. */
const saysSomething = (ran: RanKm): boolean => ran.km > 0 && ran.km >= COVERAGE * ran.u;

/** Log density of a Weibull life at x > 0. Standard form, shape k, scale λ. */
export function logWeibull(x: number, k: number, scale: number): number {
  const z = x / scale;
  return Math.log(k / scale) + (k - 1) * Math.log(z) - z ** k;
}

/**
 * Ranks causes by Bayes' rule in log-odds: prior share, times for each group of findings the likelihood ratio of its
 * strongest finding against returns at large, times the ratio of life densities at the distance run. Unknown is
 * neutral. "None of these" keeps its prior and a ratio of one. Probabilities add up to 1.
 * Good 1950; the weights are the `nats` listed.
 */
export function rankCauses(
  data: CauseData,
  findings: readonly Finding[],
  ran?: RanKm,
  explainedFactor = 1.2,
): Ranking {
  const evidence = pickByGroup(data, findings);
  const scored = data.causes.map((cause) => {
    const weights = evidence.map((e) => weigh(data, cause, e));
    if (ran && saysSomething(ran)) weights.push(lifeWeight(data, cause, ran));
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

type Picked = { row: EvidenceRow; finding: Finding; counted: boolean };
/** Marks, in each group, the finding that can say most (largest ratio over all causes). */
function pickByGroup(data: CauseData, findings: readonly Finding[]): Picked[] {
  const picked: Picked[] = [];
  for (const finding of findings) {
    const row = data.evidence.find((r) => r.finding === finding.finding);
    if (row && own(row.background, finding.value) !== undefined) picked.push({ row, finding, counted: true });
  }
  const strength = (p: Picked) =>
    Math.max(...data.causes.map((c) => Math.abs(ratio(p.row, c.key, p.finding.value))));
  for (const p of picked) {
    const stronger = picked.find(
      (q) => q !== p && q.row.group === p.row.group && q.counted && strength(q) >= strength(p),
    );
    if (stronger) p.counted = false;
  }
  return picked;
}

function ratio(row: EvidenceRow, cause: string, value: string): number {
  const base = own(row.background, value);
  const given = own(own(row.causes, cause), value);
  return base === undefined || given === undefined ? 0 : Math.log(given / base);
}

function weigh(data: CauseData, cause: CauseEntry, p: Picked): Weight {
  const nats = clip(ratio(p.row, cause.key, p.finding.value), data.maxWeight);
  return { ...p.finding, nats, counted: p.counted };
}

function lifeWeight(data: CauseData, cause: CauseEntry, ran: RanKm): Weight {
  const nats = logLife(ran, cause.life) - logLife(ran, data.background.life);
  return {
    finding: LIFE,
    value: String(ran.km),
    facts: ran.facts,
    nats: clip(nats, data.maxWeight),
    counted: true,
  };
}

type Life = CauseEntry['life'];
/** Slices of a distance known within an uncertainty, and how many standard uncertainties either way they cover. */
const SLICES = { count: 80, reach: 5 };

/**
 * Log of a life's density at a distance that is only known within a standard uncertainty: the density weighed with the
 * normal error of the distance, over positive distances. Slices by the distribution function, F(x) = 1 − exp(−(x/λ)^k), so
 * that a density without bound at zero is no trouble.
 */
export function logLife({ km, u }: Pick<RanKm, 'km' | 'u'>, life: Life): number {
  if (!(u > 0)) return logWeibull(km, life.shape, life.scaleKm);
  const from = Math.max(0, km - SLICES.reach * u);
  const width = (km + SLICES.reach * u - from) / SLICES.count;
  const survival = (x: number) => Math.exp(-((x / life.scaleKm) ** life.shape));
  let before = survival(from);
  let sum = 0;
  for (let k = 0; k < SLICES.count; k++) {
    const after = survival(from + (k + 1) * width);
    const off = (from + (k + 0.5) * width - km) / u;
    sum += (before - after) * Math.exp(-0.5 * off * off);
    before = after;
  }
  return Math.log(Math.max(sum, Number.MIN_VALUE) / (u * Math.sqrt(2 * Math.PI)));
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
    return (
      row && leader && !row.normal.includes(f.value) && ratio(row, leader.key, f.value) < Math.log(factor)
    );
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
