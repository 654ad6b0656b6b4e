import type { Result } from '@core/quantity/result';
import type { Layout } from './layout';
import { type Settings, type SettingsError, tensionerSettings } from './tensioner';

const known = new WeakMap<Layout, Result<Settings, SettingsError>>();

/** All settings of a drive's tensioner, computed once for each layout: a layout never changes. */
export function settingsOf(layout: Layout): Result<Settings, SettingsError> {
  const before = known.get(layout);
  if (before) return before;
  const made = tensionerSettings(layout);
  known.set(layout, made);
  return made;
}
