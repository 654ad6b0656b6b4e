import { type Result, err, ok } from '@core/quantity/result';
import { type Layout, senseOf, tensionerIndex } from './layout';
import { type Circle, circlesOf, type Path, solvePath } from './path';
import { intendedSetting, type Setting, type SettingsError, tensionerSettings } from './tensioner';

export type Solved = { circles: Circle[]; path: Path; setting?: Setting };

/**
 * A drive as it stands: at the intended setting where it has a tensioner, else as drawn.
 * @param growthMm how much longer than new the belt or chain is
 */
export function solveDrive(layout: Layout, growthMm = 0): Result<Solved, SettingsError> {
  const index = tensionerIndex(layout);
  const carrier = layout.wheels[index]?.carrier;
  if (carrier) {
    const settings = tensionerSettings(layout, growthMm);
    if (!settings.ok) return settings;
    const { right } = intendedSetting(settings.value, carrier);
    if (right) return ok({ circles: right.circles, path: right.path, setting: right });
    const [first] = settings.value.impossible;
    return err({ code: 'no_geometry', why: first?.why ?? { code: 'no_tangent', wheels: [index] } });
  }
  return solveFixed(layout);
}

/** A drive with every carrier where it is stored, whatever length that gives. */
export function solveFixed(layout: Layout): Result<Solved, SettingsError> {
  const circles = circlesOf(layout);
  const path = solvePath(circles, senseOf(layout));
  return path.ok ? ok({ circles, path: path.value }) : err({ code: 'no_geometry', why: path.error });
}
