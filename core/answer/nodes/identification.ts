import type { Engine, Kit, Variant } from '@core/catalogue/pack';
import { textOf, valueOf } from '@core/facts/read';
import { type Policy, policyFrom } from '@core/policy/policy';
import { type Identification, identify } from '@core/match/identify';
import { type KitMatch, matchKits } from '@core/match/match-kits';
import { type Asking, nextQuestions } from '@core/match/next-question';
import { type Possible, possibleDrives } from '../applies';
import { node, orElse } from '../node';
import { registryFor } from '../world';

export const registry = node({}, (_, world) => registryFor(world));

/** Policy by which the case is judged: the one that it keeps, else the one of today. */
export const policy = node(
  {},
  (_, { policy }, state): Policy => policyFrom(valueOf(state, 'case.rules')) ?? policy,
);

export const engine = node({}, (_, { catalogue }, state): Engine | undefined =>
  catalogue.engines.get(textOf(state, 'engine.code') ?? ''),
);

export const identification = node(
  { engine },
  ({ engine }, { catalogue }, state): Identification | undefined =>
    engine && identify(catalogue, engine.code, state),
);

/** The design, when one is left. */
export const variant = node({ identification }, ({ identification: id }): Variant | undefined =>
  id?.possible.length === 1 ? id.possible[0] : undefined,
);

/** What the designs that are left can have: all of them, while the design is open. */
export const possible = node(
  { identification },
  ({ identification }, { catalogue }): Possible => possibleDrives(catalogue, identification),
);

const NOTHING_TO_ASK: Asking = { questions: [], expectedMinutes: 0, allMinutes: 0, exact: true };
export const asking = orElse(
  node(
    { identification },
    ({ identification }, { catalogue }, state): Asking =>
      identification ? nextQuestions(catalogue, identification, state) : NOTHING_TO_ASK,
  ),
  () => NOTHING_TO_ASK,
);

/** The kit named, when the catalogue has it. */
export const kit = node({}, (_, { catalogue }, state): Kit | undefined =>
  catalogue.kits.get(textOf(state, 'kit.number') ?? ''),
);

export const kits = orElse(
  node({ engine, identification }, ({ engine, identification }, { catalogue }, state): KitMatch[] =>
    engine && identification
      ? matchKits(catalogue, engine.code, identification, textOf(state, 'kit.number'))
      : [],
  ),
  () => [],
);
