import { type Result, err, ok } from '@core/quantity/result';
import { readingUnit } from './carrier';
import { type Layout, tensionerIndex } from './layout';
import { growCentres } from './move';
import { solveDrive, solveFixed } from './solve-drive';
import type { SettingsError } from './tensioner';

export type Reading = { s: number; c: number };
export type CoolingError = { code: 'same_time' } | { code: 'not_cooling' } | { code: 'below_ambient' };

/**
 * Newton's law of cooling from two readings: τ = (t₂ − t₁)/ln((T₁ − Tₐ)/(T₂ − Tₐ)), seconds, and the further wait after
 * the second reading until the engine is within `withinK` of the air.
 */
export function coolingWait(
  first: Reading,
  second: Reading,
  airC: number,
  withinK: number,
): Result<{ tauS: number; waitS: number }, CoolingError> {
  if (second.s <= first.s) return err({ code: 'same_time' });
  if (second.c - airC <= withinK)
    return second.c < airC ? err({ code: 'below_ambient' }) : ok({ tauS: NaN, waitS: 0 });
  if (second.c >= first.c) return err({ code: 'not_cooling' });
  const tauS = (second.s - first.s) / Math.log((first.c - airC) / (second.c - airC));
  return ok({ tauS, waitS: tauS * Math.log((second.c - airC) / withinK) });
}

export type HeatEffect = {
  /** Reading of a tensioner that follows, cold and at the temperature asked for. */
  reading: { drawn: number; warm: number; unit: '°' | 'mm' };
  /** Belt that becomes slack in the cold when a fixed setting was made at that temperature, mm. */
  slackWhenColdMm: number;
};
export type HeatError = SettingsError | { code: 'no_heat_data' };

/** What warmth does: how far a spring or plunger moves, and how slack a setting made warm and held becomes when cold. */
export function heatEffect(layout: Layout, atC: number): Result<HeatEffect, HeatError> {
  if (!layout.heat) return err({ code: 'no_heat_data' });
  const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
  if (!carrier) return err({ code: 'no_tensioner' });
  const warm = growCentres(layout, 1 + layout.heat.perKelvin * (atC - layout.heat.drawnAtC));
  const a = solveDrive(layout);
  const b = solveDrive(warm);
  if (!a.ok) return a;
  if (!b.ok) return b;
  const cold = solveFixed(layout);
  const hot = solveFixed(warm);
  if (!cold.ok) return cold;
  if (!hot.ok) return hot;
  return ok({
    reading: {
      drawn: a.value.setting!.reading,
      warm: b.value.setting!.reading,
      unit: readingUnit(carrier),
    },
    slackWhenColdMm: hot.value.path.lengthMm - cold.value.path.lengthMm,
  });
}
