import { doubleAt, intAt, must, nth, num } from '@core/quantity/must';
import { type Factor, type EliminationOrder, planOf, sumBy } from './eliminate';
import type { Evidence, Observed } from './evidence';
import type { CauseModel, Touch } from './model';
import { causeLogs } from './settle';

/**
 * Exact inference in a network of two layers: a cause sets mechanisms off, each for itself; mechanisms show in findings. Where several at work show in one finding it stays sound
 * only if each leaves it so (noisy-or, Pearl 1988); abnormal, its grade is shared out by what each shows. A sound finding so parts into a factor of each mechanism; only abnormal
 * ones couple the mechanisms that show in them, and those few are summed out over all their states.
 */

/** Mechanisms that abnormal findings couple, what those findings say of them, and how it is summed. */
export type CoupledPart = {
  mechanisms: readonly number[];
  factors: readonly Factor[];
  plan: EliminationOrder;
};
/** Evidence laid on the mechanisms. */
export type ConditionedModel = {
  /** Of each mechanism: how much less likely the sound findings are while it is at work. */
  sound: Float64Array;
  parts: readonly CoupledPart[];
  /** Part of each mechanism; -1: alone. */
  partOf: Int32Array;
  coupling: readonly Observed[];
};

/** Lays findings on mechanisms: sound ones as factors, the others as tables over the mechanisms that they couple. */
export function condition(model: CauseModel, observed: readonly Observed[]): ConditionedModel {
  const sound = new Float64Array(model.leaks.length).fill(1);
  const coupling: Observed[] = [];
  for (const o of observed) {
    const { parents } = o.node;
    if (o.sound === 1)
      for (const p of parents) sound[p.mechanism] = doubleAt(sound, p.mechanism) * (1 - p.sum);
    else if (parents.length > 0) coupling.push(o);
  }
  return coupled(sound, coupling);
}

/** Mechanisms in the parts that findings couple them to, with what sound findings say of each. */
function coupled(sound: Float64Array, coupling: readonly Observed[]): ConditionedModel {
  const n = sound.length;
  const group = Int32Array.from({ length: n }, (_, i) => i);
  const root = (i: number): number => (group[i] === i ? i : (group[i] = root(intAt(group, i))));
  for (const { node } of coupling)
    for (const p of node.parents) group[root(p.mechanism)] = root(nth(node.parents, 0).mechanism);
  const members = new Map<number, number[]>();
  for (const o of coupling)
    for (const p of o.node.parents) {
      const r = root(p.mechanism);
      const list = members.get(r) ?? [];
      if (!list.includes(p.mechanism)) list.push(p.mechanism);
      members.set(r, list);
    }
  const partOf = new Int32Array(n).fill(-1);
  const parts = [...members.values()].map((mechanisms, k): CoupledPart => {
    for (const m of mechanisms) partOf[m] = k;
    const mine = coupling.filter((o) => mechanisms.includes(nth(o.node.parents, 0).mechanism));
    const factors = mine.map(factorOf);
    return { mechanisms, factors, plan: planOf(factors, []) };
  });
  return { sound, parts, partOf, coupling };
}

/** How likely an inspection is in each state of the mechanisms that show in it. */
const factorOf = (o: Observed): Factor => ({
  vars: o.node.parents.map((p) => p.mechanism),
  table: Float64Array.from(o.node.states, (states) => {
    let sum = o.sound * doubleAt(states, 0);
    for (let g = 0; g < o.grades.length; g++) sum += doubleAt(o.grades, g) * doubleAt(states, g + 1);
    return sum;
  }),
});

/** How likely the findings of a part are, for the share in which each mechanism of the model is at work. */
export const partLikelihood = ({ plan }: CoupledPart, sound: Float64Array, p: Float64Array): number =>
  doubleAt(summed(plan, sound, p), 0);

/** A part summed by a plan of its factors, over the mechanisms that the plan keeps. */
export const summed = (plan: EliminationOrder, sound: Float64Array, p: Float64Array): Float64Array =>
  sumBy(
    plan,
    (m) => 1 - doubleAt(p, m),
    (m) => doubleAt(p, m) * doubleAt(sound, m),
  );

/** Of each cause, natural log of how much likelier it makes what was laid than a drive where nothing but leaks is at work. */
export function logLikelihoods(model: CauseModel, conditioned: ConditionedModel): Float64Array {
  const base = baseOf(model, conditioned);
  return Float64Array.from(model.touches, (mine, i) =>
    shiftOf(model, conditioned, base, mine, nth(model.shares, i)),
  );
}

/** How likely the findings of each part are with nothing but leaks at work. */
export const baseOf = ({ leaks }: CauseModel, conditioned: ConditionedModel): number[] =>
  conditioned.parts.map((part) => partLikelihood(part, conditioned.sound, leaks));

/** Natural log of what a set of mechanisms set off changes. @param shares of all mechanisms with these set off */
export function shiftOf(
  { leaks }: CauseModel,
  { sound, parts, partOf }: ConditionedModel,
  base: readonly number[],
  mine: readonly Touch[],
  shares: Float64Array,
): number {
  let log = 0;
  let touched: Set<number> | undefined;
  for (const { mechanism, p } of mine) {
    const part = intAt(partOf, mechanism);
    const s = doubleAt(sound, mechanism);
    if (part >= 0) (touched ??= new Set()).add(part);
    else if (s !== 1) {
      const l = doubleAt(leaks, mechanism);
      log += Math.log((1 - p + p * s) / (1 - l + l * s));
    }
  }
  for (const k of touched ?? []) log += Math.log(partLikelihood(nth(parts, k), sound, shares) / num(base, k));
  return log;
}

/** What causes would be without one sound finding: only those that touch what shows in it, or what is coupled to that, are worked out again. */
export function withoutNormal(
  model: CauseModel,
  conditioned: ConditionedModel,
  logs: Float64Array,
  o: Observed,
): Float64Array {
  const sound = Float64Array.from(conditioned.sound);
  const around = new Set<number>();
  for (const { mechanism, sum } of o.node.parents) {
    sound[mechanism] = doubleAt(sound, mechanism) / (1 - sum);
    const part = intAt(conditioned.partOf, mechanism);
    for (const m of part < 0 ? [mechanism] : nth(conditioned.parts, part).mechanisms) around.add(m);
  }
  const touching = new Set([...around].flatMap((m) => nth(model.touchedBy, m)));
  const rest = { ...conditioned, sound };
  const [base, baseOfRest] = [baseOf(model, conditioned), baseOf(model, rest)];
  const out = Float64Array.from(logs);
  for (const i of touching) {
    const [mine, shares] = [nth(model.touches, i), nth(model.shares, i)];
    out[i] =
      doubleAt(out, i) +
      shiftOf(model, rest, baseOfRest, mine, shares) -
      shiftOf(model, conditioned, base, mine, shares);
  }
  return out;
}

/** What causes would be without one finding that couples mechanisms: only its part is laid again, and only causes that touch it are worked out. */
export function withoutCoupled(
  model: CauseModel,
  conditioned: ConditionedModel,
  logs: Float64Array,
  o: Observed,
): Float64Array {
  const [first] = o.node.parents;
  if (!first) return logs;
  const part = nth(conditioned.parts, intAt(conditioned.partOf, first.mechanism));
  const mine = new Set(part.mechanisms);
  const others = conditioned.coupling.filter((x) => x !== o && mine.has(nth(x.node.parents, 0).mechanism));
  const rest = coupled(conditioned.sound, others);
  const [base, baseOfRest] = [baseOf(model, conditioned), baseOf(model, rest)];
  const out = Float64Array.from(logs);
  for (const i of new Set(part.mechanisms.flatMap((m) => nth(model.touchedBy, m)))) {
    const touches = nth(model.touches, i).filter((t) => mine.has(t.mechanism));
    const shares = nth(model.shares, i);
    out[i] =
      doubleAt(out, i) +
      shiftOf(model, rest, baseOfRest, touches, shares) -
      shiftOf(model, conditioned, base, touches, shares);
  }
  return out;
}

/** Mechanisms that two causes set off together. */
export function touchesOfBoth(model: CauseModel, a: number, b: number): Touch[] {
  const out = new Map<number, number>();
  for (const k of [a, b])
    for (const { mechanism, p } of nth(model.touches, k)) {
      const leak = doubleAt(model.leaks, mechanism);
      // what the leak does is not counted twice
      const off = out.has(mechanism) ? ((1 - must(out.get(mechanism))) * (1 - p)) / (1 - leak) : 1 - p;
      out.set(mechanism, 1 - off);
    }
  return [...out].map(([mechanism, p]) => ({ mechanism, p }));
}

/** What evidence adds to each cause, natural log. */
export const scores = (model: CauseModel, evidence: Evidence): Float64Array =>
  causeLogs(model, logLikelihoods(model, condition(model, evidence.observed)), evidence);

/** Shares of causes and of none from their logs; they add up to one. */
export function shares(
  { causes: entries, data }: CauseModel,
  logs: Float64Array,
): { causes: Float64Array; none: number } {
  const n = logs.length;
  const causes = new Float64Array(n);
  const none = Math.log(data.none.prior);
  let top = none;
  for (let i = 0; i < n; i++) {
    causes[i] = Math.log(nth(entries, i).prior) + doubleAt(logs, i);
    if (doubleAt(causes, i) > top) top = doubleAt(causes, i);
  }
  let sum = Math.exp(none - top);
  for (let i = 0; i < n; i++) sum += causes[i] = Math.exp(doubleAt(causes, i) - top);
  for (let i = 0; i < n; i++) causes[i] = doubleAt(causes, i) / sum;
  return { causes, none: Math.exp(none - top) / sum };
}
