import { type Catalogue, findCode, stagesFor } from '@core/catalogue/find-records';
import type { Stage } from '@core/drive/stages';
import { type Policy, SHIPPED_POLICY } from '@core/policy/policy';
import { sheetFor, type Sheet, type SheetStep } from './sheet';

/** A step as the sheet of a kit has it: on the first design that the kit fits and whose sheet has that step. */
export type StepOfKit = { step: SheetStep; sheet: Sheet; stages: readonly Stage[]; engine: string };

/** Finds a kit's step by its id; undefined where the catalogue has no such kit, or no sheet of it has the step. */
export function stepOfKit(
  cat: Catalogue,
  kit: string,
  id: string,
  policy: Policy = SHIPPED_POLICY,
): StepOfKit | undefined {
  const number = findCode(cat.kits.keys(), kit);
  for (const name of (number === undefined ? undefined : cat.variantsOfKit.get(number)) ?? []) {
    const variant = cat.variants.get(name);
    if (variant?.layout === undefined) continue;
    const stages = stagesFor(cat, variant.layout);
    const sheet = sheetFor(cat, variant, stages, policy);
    const step = sheet.steps.find((s) => s.id === id);
    if (step) return { step, sheet, stages, engine: variant.engine };
  }
  return undefined;
}
