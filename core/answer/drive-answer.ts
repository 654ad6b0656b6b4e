import { extensionAnswer, type ExtensionAnswer } from '@core/bench/extension';
import { judgePointer, type Shown } from '@core/bench/findings';
import { marksAnswer, type MarksAnswer } from '@core/bench/marks';
import { type Catalogue, stagesFor } from '@core/catalogue/find-records';
import type { Variant } from '@core/catalogue/pack';
import { type Carrier, readingUnit } from '@core/drive/carrier';
import type { Layout } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';
import {
  intendedSetting,
  type Setting,
  type Settings,
  type SettingsError,
  tensionerSettings,
} from '@core/drive/tensioner';
import { numberOf, type State } from '@core/facts/state';
import type { Result } from '@core/quantity/result';

/** The drive of a case, computed, and what its facts show of it. */
export type DriveAnswer = {
  layout: Layout;
  settings: Result<Settings, SettingsError>;
  carrier?: Carrier | undefined;
  right?: Setting | undefined;
  other?: Setting | undefined;
  shown?: Shown | undefined;
  /** All stages, the one at the crank first. */
  stages: readonly Stage[];
  /** Observed mark offsets against the predicted ones. */
  marks?: MarksAnswer | undefined;
  /** Measured extension against measured elongation. */
  extension?: ExtensionAnswer | undefined;
};

/** Undefined while no single design with a layout is left. */
export function driveAnswer(
  cat: Catalogue,
  variant: Variant | undefined,
  state: State,
): DriveAnswer | undefined {
  const layout = variant?.layout === undefined ? undefined : cat.layouts.get(variant.layout);
  if (!layout) return undefined;
  const settings = tensionerSettings(layout);
  const carrier = settings.ok ? layout.wheels[settings.value.tensioner]?.carrier : undefined;
  const stages = stagesFor(cat, layout.id);
  const seen = { stages, marks: marksAnswer(stages, state), extension: extensionAnswer(stages, state) };
  if (!settings.ok || !carrier) return { layout, settings, ...seen };
  const pair = intendedSetting(settings.value, carrier);
  const key = readingUnit(carrier) === 'mm' ? 'tensioner.extension' : 'tensioner.pointer';
  const pointer = state.standing.get(key);
  const reading = numberOf(state, key);
  const shown =
    reading === undefined ? undefined : judgePointer(reading, pointer?.u ?? 0, carrier, pair.other?.reading);
  return { layout, settings, carrier, ...pair, shown, ...seen };
}
