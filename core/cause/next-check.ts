import type { Finding } from '@core/bench/finding';
import { APART, type CauseData } from './cause-data';
import { evidenceOf } from './evidence';
import { planOf } from './eliminate';
import { lay, type Laid, summed } from './infer';
import { type CauseModel, type FindingNode, modelOf } from './model';
import type { Ranking } from './rank';

/** Causes below this share are left out of what a look would tell. */
const NEGLIGIBLE = 1e-5;

export type Check = { finding: string; bits: number };

/**
 * What each check not yet made would tell about the cause, in bits: the mutual information between the cause as it stands and the check's result (Lindley 1956). What a look would
 * show is worked out under each cause with all findings known, so that a look that says again what one said already is worth little.
 * @param wanted whether a check can be made at all; what cannot be is not worked out
 */
export function checkWorth(
  data: CauseData,
  ranking: Ranking,
  findings: readonly Finding[],
  wanted: (finding: string) => boolean = () => true,
): Check[] {
  const model = modelOf(data);
  const laid = lay(model, evidenceOf(model, findings).observed);
  const share = new Map(ranking.causes.map((c) => [c.cause.key, c.probability]));
  const p = Float64Array.from(model.causes, (c) => share.get(c.key) ?? 0);
  const made = new Set(findings.map((f) => f.finding));
  const open = (finding: string) => !made.has(finding) && wanted(finding);
  const sums = partSums(laid);
  const out: Check[] = [];
  for (const [finding, node] of model.findings)
    if (open(finding)) out.push({ finding, bits: information(model, laid, sums, node, p, ranking.none) });
  if (open(APART.symptom.finding))
    out.push({ finding: APART.symptom.finding, bits: ofSymptom(model, p, ranking.none) });
  return out.sort((a, b) => b.bits - a.bits);
}

/** A part summed down to some of its mechanisms, under a cause or none: many looks show the same ones, and each sum is worked out once. */
type PartSums = (
  part: number,
  keep: readonly number[],
) => (cause: number, shares: Float64Array) => Float64Array;

function partSums(laid: Laid): PartSums {
  const plans = new Map<string, ReturnType<PartSums>>();
  return (part, keep) => {
    const key = `${part} ${keep.join(' ')}`;
    const known = plans.get(key);
    if (known) return known;
    const plan = planOf(laid.parts[part]!.factors, keep);
    const of = new Map<number, Float64Array>();
    const made = (cause: number, shares: Float64Array) => {
      let sum = of.get(cause);
      if (!sum) of.set(cause, (sum = summed(plan, laid.sound, shares)));
      return sum;
    };
    plans.set(key, made);
    return made;
  };
}

/** Nothing but leaks at work, where a cause is asked for. */
const NONE = -1;

/** Bits that a look would tell. Only causes that touch what shows in it expect anything else of it than the others do. */
function information(
  model: CauseModel,
  laid: Laid,
  sums: PartSums,
  node: FindingNode,
  p: Float64Array,
  none: number,
): number {
  if (node.parents.length === 0) return 0;
  const around = aroundOf(laid, sums, node);
  const touching = new Set(around.mechanisms.flatMap((m) => model.touchedBy[m]!));
  let others = none;
  p.forEach((x, i) => (others += touching.has(i) ? 0 : x));
  const rows = [{ p: others, q: expected(laid, around, NONE, model.leaks) }];
  for (const i of touching)
    if (p[i]! >= NEGLIGIBLE) rows.push({ p: p[i]!, q: expected(laid, around, i, model.shares[i]!) });
  return mutual(rows, around.states[0]!.length);
}

/** Bits between which row it is and what comes of it. */
function mutual(rows: readonly { p: number; q: Float64Array }[], states: number): number {
  let bits = 0;
  for (let s = 0; s < states; s++) {
    const mean = rows.reduce((sum, r) => sum + r.p * r.q[s]!, 0);
    for (const { p, q } of rows) if (p > 0 && q[s]! > 0) bits += p * q[s]! * Math.log2(q[s]! / mean);
  }
  return Math.max(0, bits);
}

function ofSymptom({ causes, data }: CauseModel, p: Float64Array, none: number): number {
  const states = Object.keys(Object.values(data.symptoms)[0] ?? {});
  const all = causes.reduce((s, c) => s + c.prior, 0);
  const of = (symptoms: string) => Float64Array.from(states, (s) => data.symptoms[symptoms]?.[s] ?? 0);
  const rows = causes.map((c, i) => ({ p: p[i]!, q: of(c.symptoms) }));
  const mean = Float64Array.from(states, (_, s) =>
    causes.reduce((sum, c, i) => sum + (c.prior / all) * rows[i]!.q[s]!, 0),
  );
  return mutual([...rows, { p: none, q: mean }], states.length);
}

type Around = {
  /** Mechanisms that show in the look or are coupled to one that does. */
  mechanisms: readonly number[];
  /** How each part of what was laid that shows in it is summed down to the parents; parents in no part. */
  parts: readonly ReturnType<PartSums>[];
  single: readonly number[];
  /** How likely each state of the look is in each state of its parents, in the order of the parts, then the single ones. */
  states: readonly Float64Array[];
};

function aroundOf(laid: Laid, sums: PartSums, node: FindingNode): Around {
  const mine = node.parents.map((x) => x.mechanism);
  const ids = [...new Set(mine.map((m) => laid.partOf[m]!))].filter((k) => k >= 0);
  const keeps = ids.map((k) => laid.parts[k]!.mechanisms.filter((m) => mine.includes(m)));
  const single = mine.filter((m) => laid.partOf[m]! < 0);
  const order = [...keeps.flat(), ...single];
  const bit = mine.map((m) => order.indexOf(m));
  // the node has its parents in its own order
  const states = node.states.map(
    (_, s) => node.states[bit.reduce((at, from, i) => at | (((s >> from) & 1) << i), 0)]!,
  );
  const mechanisms = [...ids.flatMap((k) => laid.parts[k]!.mechanisms), ...single];
  return { mechanisms, parts: ids.map((k, i) => sums(k, keeps[i]!)), single, states };
}

/** How likely each state of a look is, with all findings known, under a cause and the shares in which mechanisms are then at work. */
function expected(
  laid: Laid,
  { parts, single, states }: Around,
  cause: number,
  shares: Float64Array,
): Float64Array {
  let weights: Float64Array = Float64Array.of(1);
  const grow = (next: Float64Array) => {
    const out = new Float64Array(weights.length * next.length);
    for (let b = 0; b < next.length; b++)
      for (let a = 0; a < weights.length; a++) out[b * weights.length + a] = weights[a]! * next[b]!;
    weights = out;
  };
  for (const sum of parts) grow(sum(cause, shares));
  for (const m of single) grow(Float64Array.of(1 - shares[m]!, shares[m]! * laid.sound[m]!));
  const out = new Float64Array(states[0]!.length);
  let total = 0;
  for (let s = 0; s < weights.length; s++) {
    const [w, of] = [weights[s]!, states[s]!];
    total += w;
    for (let k = 0; k < out.length; k++) out[k]! += w * of[k]!;
  }
  for (let k = 0; k < out.length; k++) out[k]! /= total;
  return out;
}
