import { num } from '@core/quantity/must';
import { own } from '@core/quantity/own';
import type { Catalogue } from '@core/catalogue/find-records';
import { featureKey, minutesToSee } from '@core/catalogue/feature-observables';
import type { Feature, Variant } from '@core/catalogue/pack';
import { wasAsked } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Identification } from './identify';
import { planQuestions } from './question-plan';

type Outcome = { value: string; probability: number; leaves: Variant[] };
type Question = { feature: Feature; bits: number; minutes: number; outcomes: Outcome[] };
/** Questions in asking order, and what the order is worth. */
export type Asking = {
  questions: Question[];
  /** Minutes to expect until one design is left, and minutes of asking everything that splits. */
  expectedMinutes: number;
  allMinutes: number;
  /** True when the order is the best there is, not only a good one. */
  exact: boolean;
};

/** Shannon entropy of weights (any positive scale), bits. @example entropy([1, 1]) // 1 */
function entropy(weights: readonly number[]): number {
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.reduce((h, w) => (w > 0 ? h - (w / total) * Math.log2(w / total) : h), 0);
}

/**
 * Unanswered features that split what is still possible: first the one with which the best tree of questions begins,
 * then by bits gained per minute of looking. A variant that allows several values is shared evenly between them (Lindley 1956: expected information of an experiment).
 */
export function nextQuestions(cat: Catalogue, id: Identification, state: State): Asking {
  const before = entropy(id.shares);
  const out: Question[] = [];
  for (const feature of cat.features.values()) {
    if (wasAsked(state, featureKey(feature.id))) continue;
    const outcomes = feature.options.map((o) => outcome(feature, o.key, id)).filter((o) => o.probability > 0);
    const after = outcomes.reduce((h, o) => h + o.probability * o.entropy, 0);
    const bits = before - after;
    if (bits > 1e-9) out.push({ feature, bits, minutes: minutesToSee(feature.look), outcomes });
  }
  out.sort((a, b) => b.bits / b.minutes - a.bits / a.minutes || (a.feature.id < b.feature.id ? -1 : 1));
  const plan = planQuestions(
    id.shares,
    out.map((q) => ({
      id: q.feature.id,
      minutes: q.minutes,
      values: id.possible.map((v) => own(v.features, q.feature.id) ?? q.feature.options.map((o) => o.key)),
    })),
  );
  const first = out.findIndex((q) => q.feature.id === plan.first);
  if (first > 0) out.unshift(...out.splice(first, 1));
  return {
    questions: out,
    expectedMinutes: plan.expectedMinutes,
    allMinutes: out.reduce((s, q) => s + q.minutes, 0),
    exact: plan.exact,
  };
}

function outcome(feature: Feature, value: string, id: Identification): Outcome & { entropy: number } {
  const weights = id.possible.map((v, i) => {
    const allowed = own(v.features, feature.id) ?? feature.options.map((o) => o.key);
    return allowed.includes(value) ? num(id.shares, i) / allowed.length : 0;
  });
  const probability = weights.reduce((a, b) => a + b, 0);
  return {
    value,
    probability,
    leaves: id.possible.filter((_, i) => num(weights, i) > 0),
    entropy: probability > 0 ? entropy(weights) : 0,
  };
}
