import {
  elongationAnswers,
  type ElongationAnswer,
  extensionAnswers,
  type ExtensionAnswer,
} from '@core/examination/extension';
import { type Shown, type TensionerAnswer, tensionerAnswers } from '@core/examination/tensioners';
import { marksAnswer, type MarksAnswer } from '@core/examination/marks';
import type { Carrier } from '@core/drive/carrier';
import type { Layout } from '@core/drive/layout';
import { settingsOf } from '@core/drive/settings-of';
import type { Stage } from '@core/drive/stages';
import { intendedSetting, type Setting, type Settings, type SettingsError } from '@core/drive/tensioner';
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
  /** What the first tensioner shows. */
  shown?: Shown | undefined;
  /** Every returned tensioner that was read, measured chain and extension, thing by thing. */
  tensioners: readonly TensionerAnswer[];
  elongations: readonly ElongationAnswer[];
  extensions: readonly ExtensionAnswer[];
  /** All stages, the one at the crank first. */
  stages: readonly Stage[];
  /** Observed mark offsets against the predicted ones. */
  marks?: MarksAnswer | undefined;
};

/** What follows from the layout alone, whatever is filed. */
export type DriveGeometry = Pick<
  DriveAnswer,
  'layout' | 'settings' | 'carrier' | 'right' | 'other' | 'stages'
>;

/** Undefined where the design has no layout. */
export function driveGeometry(stages: readonly Stage[]): DriveGeometry | undefined {
  const layout = stages[0]?.layout;
  if (!layout) return undefined;
  const settings = settingsOf(layout);
  const carrier = settings.ok ? layout.wheels[settings.value.tensioner]?.carrier : undefined;
  if (!settings.ok || !carrier) return { layout, settings, stages };
  return { layout, settings, carrier, stages, ...intendedSetting(settings.value, carrier) };
}

/** The drive with what the facts show of it. */
export function driveAnswer(geometry: DriveGeometry, state: State, registry: Registry): DriveAnswer {
  const { stages } = geometry;
  const elongations = elongationAnswers(stages, state, registry);
  const tensioners = tensionerAnswers(stages, state, registry);
  return {
    ...geometry,
    marks: marksAnswer(stages, state, registry),
    tensioners,
    elongations,
    extensions: extensionAnswers(stages, state, registry, elongations),
    shown: geometry.carrier && tensioners.find((t) => t.about === '')?.shown,
  };
}
