import { must, nth } from '@core/quantity/must';
import { own } from '@core/quantity/own';
import { type Result, err, ok } from '@core/quantity/result';
import { angleAtReading, carrierAt } from './carrier';
import { type Clearance, smallestClearance } from './clearance';
import { type Layout, nominalLength, senseOf, tensionerIndex } from './layout';
import { atCarrier, growCentres, moveBanks } from './move';
import { type Circle, circlesOf, type Path, solvePath } from './path';
import { inUnits, markPhases, type CamPhase, seating } from './phase';
import { solveDrive } from './solve-drive';
import {
  intendedSetting,
  type Setting,
  type Settings,
  type SettingsError,
  tensionerSettings,
} from './tensioner';

/** Everything that can be asked of a drive at once. Absent means: as made. */
export type WhatIf = {
  /** Ratio by which belt or chain is longer than new. */
  elongation: number;
  /** Banks nearer to the crank, mm by bank. */
  nearerMm: Readonly<Record<string, number>>;
  /** Temperature of the engine, °C. */
  temperatureC?: number;
  /** Pointer readings of eccentric idlers by wheel. */
  idlers: Readonly<Record<string, number>>;
  /** Tensioner held at this reading instead of following. */
  heldAt?: number;
  /** The other of the two settings. */
  wrongWay: boolean;
  /** Whole teeth by which the belt sits ahead, by wheel. */
  jumped: Readonly<Record<string, number>>;
};
export const AS_MADE: WhatIf = { elongation: 0, nearerMm: {}, idlers: {}, wrongWay: false, jumped: {} };

export type DriveState = {
  layout: Layout;
  circles: Circle[];
  path: Path;
  clearance: Clearance | undefined;
  settings?: Settings;
  setting?: Setting;
  /** Marks with the belt seated as on the drive as made, moved by whole teeth where asked for. */
  phases: CamPhase[];
  /** Belt longer than its path: slack; negative: strained. Zero when the tensioner follows. */
  slackMm: number;
};

/** The layout with everything but length and tensioner applied. */
export function changedLayout(layout: Layout, w: WhatIf): Layout {
  let out = moveBanks(layout, w.nearerMm);
  if (w.temperatureC !== undefined && layout.heat)
    out = growCentres(out, 1 + layout.heat.perKelvin * (w.temperatureC - layout.heat.drawnAtC));
  for (const [id, reading] of Object.entries(w.idlers)) {
    const i = out.wheels.findIndex((x) => x.id === id);
    const carrier = out.wheels[i]?.carrier;
    if (carrier) out = atCarrier(out, i, carrierAt(carrier, reading));
  }
  return out;
}

/** A drive in the state asked for, or why it cannot be in it. */
export function driveState(base: Layout, w: WhatIf): Result<DriveState, SettingsError> {
  const layout = changedLayout(base, w);
  const growth = w.elongation * nominalLength(layout);
  const index = tensionerIndex(layout);
  const carrier = layout.wheels[index]?.carrier;
  const settings = carrier ? tensionerSettings(layout, growth) : undefined;
  let picked: Pick<DriveState, 'circles' | 'path' | 'clearance' | 'setting'> | undefined;
  if (!carrier || w.heldAt !== undefined) {
    const deg = carrier && w.heldAt !== undefined ? angleAtReading(carrier, w.heldAt) : undefined;
    const circles = circlesOf(layout, deg === undefined ? [] : [{ wheel: index, carrierDeg: deg }]);
    const path = solvePath(circles, senseOf(layout));
    if (!path.ok) return err({ code: 'no_geometry', why: path.error });
    picked = { circles, path: path.value, clearance: smallestClearance(layout, circles, path.value) };
  } else if (settings?.ok) {
    const { right, other } = intendedSetting(settings.value, carrier);
    const s = w.wrongWay ? (other ?? right) : right;
    if (s) picked = { circles: s.circles, path: s.path, clearance: s.clearance, setting: s };
  }
  if (!picked) {
    if (settings && !settings.ok) return settings;
    const why = settings?.ok ? settings.value.impossible[0]?.why : undefined;
    return err({ code: 'no_geometry', why: why ?? { code: 'no_tangent', wheels: [Math.max(0, index)] } });
  }
  const made = solveDrive(base);
  const seats = made.ok ? seating(markPhases(base, made.value)) : undefined;
  const phases = markPhases(layout, picked, w.elongation, seats).map((p) => {
    const wheel = nth(layout.wheels, p.wheel);
    const teeth = p.teeth + (own(w.jumped, wheel.id) ?? 0);
    return { ...p, ...inUnits(teeth, must(wheel.teeth), must(nth(layout.wheels, 0).teeth), layout.pitchMm) };
  });
  return ok({
    layout,
    ...picked,
    ...(settings?.ok ? { settings: settings.value } : {}),
    phases,
    slackMm: nominalLength(layout) + growth - picked.path.lengthMm,
  });
}
