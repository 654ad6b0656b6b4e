import { featureKey } from '@core/catalogue/feature-observables';
import type { Variant } from '@core/catalogue/pack';
import type { Stage } from '@core/drive/stages';
import { type AnsweredQuestion, type Case, designName, type Missing } from './advice';

/** No engine: nothing can be answered before it is named. */
export const missingEngine = (): AnsweredQuestion => ({
  standing: 'open',
  lead: { code: 'no_engine' },
  because: [],
  missing: [{ key: 'engine.code', minutes: 1 }],
});

/** The features that tell the designs apart, in asking order, with what each answer leaves. */
export function missingDesign({ a }: Case): Missing[] {
  return a.asking.questions.map((q) => ({
    key: featureKey(q.feature.id),
    minutes: q.minutes,
    outcomes: q.outcomes.map((o) => ({ value: o.value, leaves: o.leaves.map(designName) })),
  }));
}

/** Designs that are still possible, each with its stages. */
export const designsOf = ({ a }: Case): { variant: Variant; stages: readonly Stage[] }[] =>
  (a.identification?.possible ?? []).map((variant, i) => ({ variant, stages: a.possible.designs[i] ?? [] }));
