import { type CoolingError, coolingWait, type Reading } from '@core/drive/heat';
import { type Result, ok } from '@core/quantity/result';

/** Wait until an engine is cold, seconds, with its standard uncertainty; time constant of its cooling. */
export type Ready = { tauS: number; waitS: number; uS: number };

/**
 * The wait from two readings with what their uncertainties do to it: central differences over one standard uncertainty of
 * each input, added in squares (JCGM 100, 5.1.2). @param uC of each temperature, K
 */
export function readyTime(
  first: Reading,
  second: Reading,
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
