import { answersFor } from '@core/answer/answers';
import { registryFor } from '@core/answer/world';
import { fileFact } from '@core/facts/change';
import { optionsOf } from '@core/facts/observable';
import { reduce } from '@core/facts/state';
import type { Case, Missing } from './advice';

/** Looks whose outcomes are worked out, and options of one at most: each is a ranking of its own. */
const [LOOKS, OPTIONS] = [2, 5];
/** Who files what is only supposed. */
const NOBODY = { by: '', now: () => '2000-01-01T00:00:00.000Z', newId: () => 'supposed' };

/** The first looks with what each of their outcomes would mean: the cause that would lead then. */
export const withOutcomes = (c: Case, looks: readonly Missing[]): Missing[] =>
  looks.map((look, i) => {
    const outcomes = i < LOOKS ? outcomesOf(c, look) : [];
    return outcomes.length > 0 ? { ...look, outcomes } : look;
  });

function outcomesOf({ world, state, a }: Case, { key, about }: Missing): NonNullable<Missing['outcomes']> {
  const o = registryFor(world).get(key);
  if (o?.type.kind !== 'choice' || o.place !== undefined) return [];
  const options = optionsOf(o).filter((x) => x.key !== 'unknown');
  if (options.length > OPTIONS) return [];
  return options.flatMap((x) => {
    const supposed = fileFact(
      state,
      state.log[0]?.case ?? '',
      { key, value: x.key, how: 'reported', ...(about === undefined ? {} : { about }) },
      NOBODY,
    );
    const [leader] = answersFor(world, reduce([...state.log, supposed]), a).ranking.causes;
    return leader ? [{ value: x.key, leaves: [leader.cause.wording] }] : [];
  });
}
