import { numberOf, standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { type Day, isMonth } from '@core/quantity/dates';
import { type Due, intervalFor, nextDue } from './interval';
import type { ServiceInterval } from './pack';

export type DueAnswer = {
  interval: ServiceInterval;
  /** Last change, once its day and distance are known. */
  fitted?: { day: Day; km: number; monthOnly?: true };
  due?: Due;
  /** The odometer stands below what it showed at the fitting: nothing is due by such readings. */
  runsBack?: true;
};

/** The interval of a case's vehicle, and what falls due from when the drive was last changed; undefined where the catalogue has none. */
export function dueOf(
  intervals: readonly ServiceInterval[],
  engine: string,
  state: State,
  today: Day,
): DueAnswer | undefined {
  const interval = intervalFor(intervals, engine, textOf(state, 'vehicle.name'));
  if (!interval) return undefined;
  const [day, km] = [textOf(state, 'kit.fitted'), numberOf(state, 'kit.fitted_odometer')];
  if (day === undefined || km === undefined) return { interval };
  const monthOnly = isMonth(standing(state, 'kit.fitted')?.u);
  const now = { day: today, km: numberOf(state, 'vehicle.odometer') };
  if (now.km !== undefined && now.km < km) return { interval, fitted: { day, km }, runsBack: true };
  return {
    interval,
    fitted: { day, km, ...(monthOnly ? { monthOnly } : {}) },
    due: nextDue(interval, { day, km }, now, numberOf(state, 'vehicle.yearly')),
  };
}
