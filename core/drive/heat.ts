import { must } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import { readingUnit } from './carrier';
import { type Layout, tensionerIndex } from './layout';
import { growCentres } from './move';
import { solveDrive, solveFixed } from './solve-drive';
import type { SettingsError } from './tensioner';

export type HeatReading = { s: number; c: number };
export type CoolingError = { code: 'same_time' } | { code: 'not_cooling' } | { code: 'below_ambient' };

/**
 * Newton's law of cooling from two readings: τ = (t₂ − t₁)/ln((T₁ − Tₐ)/(T₂ − Tₐ)), seconds, and the further wait after
 * the second reading until the engine is within `withinK` of the air.
 */
export function coolingWait(
  first: HeatReading,
  second: HeatReading,
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

/** Wait until an engine is cold, seconds, with its standard uncertainty; time constant of its cooling. */
export type Ready = { tauS: number; waitS: number; uS: number };

/**
 * The wait from two readings with what their uncertainties do to it: central differences over one standard uncertainty of
 * each input, added in squares (JCGM 100, 5.1.2). @param uC of each temperature, K
 */
export function readyTime(
  first: HeatReading,
  second: HeatReading,
  airC: number,
  withinK: number,
  uC: number,
): Result<Ready, CoolingError> {
  const mid = coolingWait(first, second, airC, withinK);
  if (!mid.ok) return mid;
  if (mid.value.waitS === 0) return ok({ ...mid.value, uS: 0 });
  const wait = (a: number, b: number, air: number): number => {
    const r = coolingWait({ ...first, c: first.c + a }, { ...second, c: second.c + b }, airC + air, withinK);
    return r.ok ? r.value.waitS : mid.value.waitS;
  };
  const half = (d: [number, number, number]) => (wait(...d) - wait(-d[0] || 0, -d[1] || 0, -d[2] || 0)) / 2;
  const uS = Math.hypot(half([uC, 0, 0]), half([0, uC, 0]), half([0, 0, uC]));
  return ok({ ...mid.value, uS });
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
      drawn: must(a.value.setting).reading,
      warm: must(b.value.setting).reading,
      unit: readingUnit(carrier),
    },
    slackWhenColdMm: hot.value.path.lengthMm - cold.value.path.lengthMm,
  });
}
