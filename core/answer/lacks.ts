import { type Registry, STATIONS, type Station } from '@core/facts/observable';
import type { State } from '@core/facts/state';
import type { Identification } from '@core/match/identify';
import { applies, type Possible } from './applies';

/** Keys of needed observables without a fact, and what else a station waits for. */
export function lacking(
  registry: Registry,
  state: State,
  id: Identification | undefined,
  drive: Possible,
): Record<Station, string[]> {
  const lacks = Object.fromEntries(STATIONS.map((s) => [s, []])) as unknown as Record<Station, string[]>;
  for (const o of registry.values())
    if (o.needed && !state.standing.has(o.key) && applies(o, drive)) lacks[o.station].push(o.key);
  if (id?.possible.length !== 1) lacks.identify.push('variant');
  if (!state.standing.has('cause.decided')) lacks.cause.push('cause.decided');
  if (state.standing.has('claim.decision') && !state.standing.has('claim.reason'))
    lacks.settle.push('claim.reason');
  if (!state.standing.has('report.issue')) lacks.settle.push('report.issue');
  return lacks;
}
