import { thingsOf } from '@core/facts/read';
import { caseKind } from '../case-kind';
import { contradictionsOf } from '../contradictions';
import { lacking } from '../lacks';
import { node, orElse } from '../node';
import { namedThings } from '../things';
import { sheet } from './drive';
import { engine, identification, possible, registry } from './identification';

export const kind = node({}, (_, _world, state) => caseKind(state));

/** What facts can be about by name. */
export const things = node(
  { registry, possible, sheet },
  ({ registry, possible, sheet }, { knowledge }, state) =>
    namedThings(thingsOf(state, registry), possible, knowledge.faults, sheet?.steps),
);

export const contradictions = orElse(
  node(
    { registry, possible, engine, identification },
    ({ registry, possible, engine, identification }, _, state) =>
      contradictionsOf(
        state,
        registry,
        possible,
        engine,
        identification?.standings.map((s) => s.variant) ?? [],
      ),
  ),
  () => [],
);

/** Keys of needed observables without a fact, and what else a station waits for. */
export const lacks = node(
  { registry, kind, identification, possible },
  ({ registry, kind, identification, possible }, _, state) =>
    lacking(registry, state, kind, identification, possible),
);
