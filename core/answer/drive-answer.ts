import {
  elongationAnswer,
  type ElongationAnswer,
  extensionAnswer,
  type ExtensionAnswer,
} from '@core/bench/extension';
import { judgePointer, type Shown } from '@core/bench/findings';
import { marksAnswer, type MarksAnswer } from '@core/bench/marks';
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
import { measuredOf } from '@core/facts/measured';
import type { Registry } from '@core/facts/observable';
import type { State } from '@core/facts/state';
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
  /** Measured chain length against its limit. */
  elongation?: ElongationAnswer | undefined;
  /** Measured extension against measured elongation. */
  extension?: ExtensionAnswer | undefined;
};

/** What a tensioner's reading is filed under. */
export const readingKey = (carrier: Carrier): 'tensioner.extension' | 'tensioner.pointer' =>
  readingUnit(carrier) === 'mm' ? 'tensioner.extension' : 'tensioner.pointer';

/** Undefined where the design has no layout. */
export function driveAnswer(
  stages: readonly Stage[],
  state: State,
  registry: Registry,
): DriveAnswer | undefined {
  const layout = stages[0]?.layout;
  if (!layout) return undefined;
  const settings = tensionerSettings(layout);
  const carrier = settings.ok ? layout.wheels[settings.value.tensioner]?.carrier : undefined;
  const seen = {
    stages,
    marks: marksAnswer(stages, state, registry),
    elongation: elongationAnswer(stages, state, registry),
    extension: extensionAnswer(stages, state, registry),
  };
  if (!settings.ok || !carrier) return { layout, settings, ...seen };
  const pair = intendedSetting(settings.value, carrier);
  const m = measuredOf(state, registry, readingKey(carrier));
  const shown = m && judgePointer(m.value, m.u, carrier, pair.other?.reading);
  return { layout, settings, carrier, ...pair, shown, ...seen };
}
