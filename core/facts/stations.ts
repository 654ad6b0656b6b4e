/** Stations of a case in the order of the work, as they are called. A page of each stands in `app/stations`, listed in `app/stations.ts`. */
const NAMES = {
  call: 'Call',
  identify: 'Identify',
  fit: 'Fit',
  examine: 'Examine',
  cause: 'Cause',
  settle: 'Settle',
} as const;
export type Station = keyof typeof NAMES;
export const STATIONS = Object.keys(NAMES) as [Station, ...Station[]];
export const stationName = (station: Station): string => NAMES[station];
