import type { Catalogue } from '@core/catalogue/find-records';
import { featureKey, lookMinutes } from '@core/catalogue/feature-observables';
import type { Feature, Variant } from '@core/catalogue/pack';
import type { State } from '@core/facts/state';
import type { Identification } from './identify';

export type Outcome = { value: string; probability: number; leaves: Variant[] };
export type Question = { feature: Feature; bits: number; minutes: number; outcomes: Outcome[] };

/** Shannon entropy of weights (any positive scale), bits. @example entropy([1, 1]) // 1 */
export function entropy(weights: readonly number[]): number {
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.reduce((h, w) => (w > 0 ? h - (w / total) * Math.log2(w / total) : h), 0);
}

/**
 * Unanswered features that split what is still possible, best first by bits gained per minute of looking.
 * A variant that allows several values is shared evenly between them (Lindley 1956: expected information of an experiment).
 */
export function nextQuestions(cat: Catalogue, id: Identification, state: State): Question[] {
  const before = entropy(id.shares);
  const out: Question[] = [];
  for (const feature of cat.features.values()) {
    if (state.standing.has(featureKey(feature.id))) continue;
    const outcomes = feature.options.map((o) => outcome(feature, o.key, id)).filter((o) => o.probability > 0);
    const after = outcomes.reduce((h, o) => h + o.probability * o.entropy, 0);
    const bits = before - after;
    if (bits > 1e-9) out.push({ feature, bits, minutes: lookMinutes(feature.look), outcomes });
  }
  return out.sort(
    (a, b) => b.bits / b.minutes - a.bits / a.minutes || (a.feature.id < b.feature.id ? -1 : 1),
  );
}

function outcome(feature: Feature, value: string, id: Identification): Outcome & { entropy: number } {
  const weights = id.possible.map((v, i) => {
    const allowed = v.features[feature.id] ?? feature.options.map((o) => o.key);
    return allowed.includes(value) ? id.shares[i]! / allowed.length : 0;
  });
  const probability = weights.reduce((a, b) => a + b, 0);
  return {
    value,
    probability,
    leaves: id.possible.filter((_, i) => weights[i]! > 0),
    entropy: probability > 0 ? entropy(weights) : 0,
  };
}
