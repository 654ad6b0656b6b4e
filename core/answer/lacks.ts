import { oncePer } from '@core/quantity/keep';
import { type CaseKind, type Observable, type Registry } from '@core/facts/observable';
import { STATIONS, type Station } from '@core/facts/stations';
import { has, wasAsked } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Identification } from '@core/match/identify';
import { applies, type Possible } from './applies';

/** Keys of needed observables without a fact, and what else a station waits for. */
export function lacking(
  registry: Registry,
  state: State,
  kind: CaseKind,
  id: Identification | undefined,
  drive: Possible,
): Record<Station, string[]> {
  const lacks = Object.fromEntries(STATIONS.map((s) => [s, []])) as unknown as Record<Station, string[]>;
  for (const o of neededOf(registry))
    if (o.needed?.includes(kind) && !wasAsked(state, o.key) && applies(o, drive))
      lacks[o.station].push(o.key);
  if (id?.possible.length !== 1) lacks.identify.push('variant');
  if (kind !== 'question' && !has(state, 'cause.decided')) lacks.cause.push('cause.decided');
  if (has(state, 'claim.decision') && !has(state, 'claim.reason')) lacks.settle.push('claim.reason');
  if (kind !== 'question' && !has(state, 'report.issue')) lacks.settle.push('report.issue');
  return lacks;
}

/** The few observables of a registry that any kind of case needs. */
const neededOf = oncePer((registry: Registry): readonly Observable[] =>
  [...registry.values()].filter((o) => (o.needed?.length ?? 0) > 0),
);
