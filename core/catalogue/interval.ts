import { must } from '@core/quantity/must';
import { addDays, type Day, daysBetween, plusMonths } from '@core/quantity/dates';
import type { ServiceInterval } from './pack';

export type Due = {
  dueKm: number;
  dueDay: Day;
  /** Negative when overdue. Undefined when today's distance is not known. */
  leftKm?: number | undefined;
  leftDays: number;
  /** Day on which the distance will be reached at the yearly distance given. */
  distanceDay?: Day | undefined;
  /** Which comes first, as far as can be told, and on which day. */
  first: 'distance' | 'time';
  firstDay: Day;
};

/**
 * Next replacement by distance or time, whichever is first. The distance's day follows from the yearly distance;
 * without one only time gives a day, and a distance already passed still comes first.
 */
export function nextDue(
  interval: Pick<ServiceInterval, 'km' | 'months'>,
  fitted: { day: Day; km: number },
  now: { day: Day; km?: number | undefined },
  kmPerYear?: number,
): Due {
  const dueKm = fitted.km + interval.km;
  const dueDay = plusMonths(fitted.day, interval.months);
  const leftKm = now.km === undefined ? undefined : dueKm - now.km;
  const leftDays = daysBetween(now.day, dueDay);
  const distanceDay =
    leftKm === undefined
      ? undefined
      : leftKm <= 0
        ? now.day
        : kmPerYear !== undefined && kmPerYear > 0
          ? addDays(now.day, Math.floor((leftKm / kmPerYear) * 365.25))
          : undefined;
  const first = distanceDay !== undefined && distanceDay < dueDay ? ('distance' as const) : ('time' as const);
  return {
    dueKm,
    dueDay,
    leftKm,
    leftDays,
    distanceDay,
    first,
    firstDay: first === 'distance' ? must(distanceDay) : dueDay,
  };
}

/** Rounds a distance down to the house's step, so that a label never promises more than the interval. */
export const roundDown = (km: number, step: number): number => Math.floor(km / step) * step;

/** The interval of a vehicle, else the shortest of the engine's: being early is the safe side. */
export function intervalFor(
  intervals: readonly ServiceInterval[],
  engine: string,
  vehicle: string | undefined,
): ServiceInterval | undefined {
  const own = intervals.filter((i) => i.engine === engine);
  // A name can begin with another's: the longest that is named is meant.
  const named =
    vehicle === undefined
      ? undefined
      : own
          .filter((i) => vehicle.toLowerCase().includes(i.vehicle.toLowerCase()))
          .sort((a, b) => b.vehicle.length - a.vehicle.length)[0];
  return named ?? [...own].sort((a, b) => a.km - b.km || a.months - b.months)[0];
}
