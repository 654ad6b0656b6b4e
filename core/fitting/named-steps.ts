import { oncePerName } from '@core/quantity/keep';
import { type Catalogue, stagesFor } from '@core/catalogue/find-records';
import type { Policy } from '@core/policy/policy';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { sheetFor } from './sheet';

/** A step as a message may speak of it: what it does, and what it tightens. */
export type StepName = { id: string; text: string; fastener?: string; tensioner?: boolean };

const kept = oncePerName<Catalogue, readonly StepName[]>();

/** Steps of the fitting sheets of an engine's designs, each once; for readers of messages. */
export const stepNames = (
  cat: Catalogue,
  engine: string,
  policy: Policy = SHIPPED_POLICY,
): readonly StepName[] =>
  kept(cat, `${engine} ${JSON.stringify(policy.chosen)}`, () => {
    const out = new Map<string, StepName>();
    for (const v of cat.variantsOf.get(engine) ?? []) {
      if (v.layout === undefined) continue;
      for (const s of sheetFor(cat, v, stagesFor(cat, v.layout), policy).steps)
        if (!out.has(s.id))
          out.set(s.id, {
            id: s.id,
            text: s.text,
            ...(s.torque
              ? { fastener: s.torque.fastener, tensioner: /tensioner|damper/i.test(s.torque.fastener) }
              : {}),
          });
    }
    return [...out.values()];
  });
