import { must } from '@core/quantity/must';
import { type Observable, optionsOf, type Registry } from '@core/facts/observable';
import { observed, placedOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Look } from './examination-data';

/** How far a look has come: done, passed over on purpose, held back by one that it would destroy, or open. */
type LookStatus = 'done' | 'skipped' | 'held' | 'open';
export type LookAnswer = {
  look: Look;
  observable: Observable;
  status: LookStatus;
  /** Looks that have to be done or passed over first. */
  first: Observable[];
};

/** A look that can be made on a drive that is still possible. */
export type PossibleLook = { look: Look; observable: Observable };

/** Of each kind the looks that are possible, in the order of the work. @param applies of an observable, on any drive that is left */
export function possibleLooks(
  examinations: ReadonlyMap<string, { looks: readonly Look[] }>,
  registry: Registry,
  applies: (o: Observable) => boolean,
): ReadonlyMap<string, readonly PossibleLook[]> {
  const out = new Map<string, PossibleLook[]>();
  for (const [kind, { looks }] of examinations)
    out.set(
      kind,
      looks.flatMap((look) => {
        const observable = registry.get(look.key);
        return observable && applies(observable) ? [{ look, observable }] : [];
      }),
    );
  return out;
}

const NONE: Observable[] = [];

/**
 * The looks of one thing, each with how far it has come. A look that destroys what another one reads is held until that one is done or
 * passed over; what this drive has not got holds nothing back.
 * @param about the thing; none for the first of its kind
 */
export function looksAt(possible: readonly PossibleLook[], state: State, about?: string): LookAnswer[] {
  const statusOf = (o: Observable): 'done' | 'skipped' | undefined => {
    const seen = observed(state, o.key, about).is;
    if (seen !== 'nothing') return seen === 'notExamined' ? 'skipped' : 'done';
    return o.place && placedOf(state, o.key, about).length > 0 ? 'done' : undefined;
  };
  return possible.map(({ look, observable }) => {
    const own = statusOf(observable);
    const first =
      own !== undefined || !look.after
        ? NONE
        : possible.flatMap(({ observable: o }) =>
            must(look.after).includes(o.key) && statusOf(o) === undefined ? [o] : NONE,
          );
    return { look, observable, status: own ?? (first.length > 0 ? 'held' : 'open'), first };
  });
}

/** The next look to make: the first open one behind `from`, then from the beginning; none when nothing is open. */
export function nextLook(answers: readonly LookAnswer[], from?: string): LookAnswer | undefined {
  const at = answers.findIndex((a) => a.look.key === from);
  return [...answers.slice(at + 1), ...answers.slice(0, at + 1)].find((a) => a.status === 'open');
}

/** The grade that says that nothing was found; none for a look that shows nothing abnormal, is told and not seen, or is measured. */
export function soundGrade(o: Observable): string | undefined {
  const options = optionsOf(o);
  if (o.how !== 'seen' || o.place !== undefined || o.type.kind !== 'choice') return undefined;
  return options.some((x) => x.abnormal) ? options.find((x) => !x.abnormal)?.key : undefined;
}

/** The next look behind `from` whose place has something left that one glance can pass; then from the beginning. */
export function nextPlace<A extends LookAnswer>(answers: readonly A[], from: string): A | undefined {
  const at = answers.findIndex((a) => a.look.key === from);
  return [...answers.slice(at + 1), ...answers.slice(0, at + 1)].find((a) => restAt([a], a).length > 0);
}

/** Open looks at the place of another one (itself too) that are graded: what one glance there can pass as sound. */
export const restAt = <A extends LookAnswer>(answers: readonly A[], at: LookAnswer): A[] =>
  answers.filter(
    (a) => a.status === 'open' && a.look.zone === at.look.zone && soundGrade(a.observable) !== undefined,
  );
