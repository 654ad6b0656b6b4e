import { oncePer } from '@core/quantity/keep';
import type { Result } from '@core/quantity/result';
import type { Layout } from './layout';
import { type Settings, type SettingsError, tensionerSettings } from './tensioner';

/** All settings of a drive's tensioner, computed once for each layout: a layout never changes. */
export const settingsOf: (layout: Layout) => Result<Settings, SettingsError> = oncePer((layout: Layout) =>
  tensionerSettings(layout),
);
