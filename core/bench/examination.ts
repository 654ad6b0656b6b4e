import type { Observable, Registry } from '@core/facts/observable';
import { placedOf, SKIPPED, standing } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Look } from './examination-data';

/** How far a look has come: done, passed over on purpose, held back by one that it would destroy, or open. */
export type LookStatus = 'done' | 'skipped' | 'held' | 'open';
export type LookAnswer = {
  look: Look;
  observable: Observable;
  status: LookStatus;
  /** Looks that have to be done or passed over first. */
  first: Observable[];
};

/**
 * The looks of one thing in the order of the work, as far as they are possible, each with how far it has come. A look that destroys
 * what another one reads is held until that one is done or passed over.
 * @param applies whether an observable can be made of a drive that is still possible
 * @param about the thing; none for the first of its kind
 */
export function looksAt(
  looks: readonly Look[],
  registry: Registry,
  state: State,
  applies: (o: Observable) => boolean,
  about?: string,
): LookAnswer[] {
  const possible = looks.flatMap((look) => {
    const observable = registry.get(look.key);
    return observable && applies(observable) ? [{ look, observable }] : [];
  });
  const statusOf = (o: Observable): 'done' | 'skipped' | undefined => {
    const fact = standing(state, o.key, about);
    if (fact) return fact.value === SKIPPED ? 'skipped' : 'done';
    return o.place && placedOf(state, o.key, about).length > 0 ? 'done' : undefined;
  };
  const own = new Map(possible.map(({ observable: o }) => [o.key, { o, status: statusOf(o) }]));
  return possible.map(({ look, observable }) => {
    const first = (look.after ?? []).flatMap((key) => {
      const before = own.get(key);
      return before && before.status === undefined ? [before.o] : [];
    });
    const status = own.get(look.key)!.status ?? (first.length > 0 ? 'held' : 'open');
    return { look, observable, status, first };
  });
}

/** The next look to make: the first open one behind `from`, then from the beginning; none when nothing is open. */
export function nextLook(answers: readonly LookAnswer[], from?: string): LookAnswer | undefined {
  const at = answers.findIndex((a) => a.look.key === from);
  return [...answers.slice(at + 1), ...answers.slice(0, at + 1)].find((a) => a.status === 'open');
}
