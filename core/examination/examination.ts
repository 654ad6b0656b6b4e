import { must } from '@core/quantity/must';
import { type Observable, optionsOf, type Registry } from '@core/facts/observable';
import { observed, placedOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Inspection } from './examination-data';

/** How far an inspection has come: done, passed over on purpose, held back by one that it would destroy, or open. */
type InspectionStatus = 'done' | 'skipped' | 'held' | 'open';
export type InspectionAnswer = {
  inspection: Inspection;
  observable: Observable;
  status: InspectionStatus;
  /** Inspections that have to be done or passed over first. */
  first: Observable[];
};

/** An inspection that can be made on a drive that is still possible. */
export type PossibleInspection = { inspection: Inspection; observable: Observable };

/** Of each kind the inspections that are possible, in the order of the work. @param applies of an observable, on any drive that is left */
export function possibleInspections(
  examinations: ReadonlyMap<string, { inspections: readonly Inspection[] }>,
  registry: Registry,
  applies: (o: Observable) => boolean,
): ReadonlyMap<string, readonly PossibleInspection[]> {
  const out = new Map<string, PossibleInspection[]>();
  for (const [kind, { inspections }] of examinations)
    out.set(
      kind,
      inspections.flatMap((inspection) => {
        const observable = registry.get(inspection.key);
        return observable && applies(observable) ? [{ inspection, observable }] : [];
      }),
    );
  return out;
}

const NONE: Observable[] = [];

/**
 * The inspections of one thing, each with how far it has come. An inspection that destroys what another one reads is held until that one is done or
 * passed over; what this drive has not got holds nothing back.
 * @param about the thing; none for the first of its kind
 */
export function inspectionsOf(
  possible: readonly PossibleInspection[],
  state: State,
  about?: string,
): InspectionAnswer[] {
  const statusOf = (o: Observable): 'done' | 'skipped' | undefined => {
    const seen = observed(state, o.key, about).is;
    if (seen !== 'nothing') return seen === 'notExamined' ? 'skipped' : 'done';
    return o.place && placedOf(state, o.key, about).length > 0 ? 'done' : undefined;
  };
  return possible.map(({ inspection: look, observable }) => {
    const own = statusOf(observable);
    const first =
      own !== undefined || !look.after
        ? NONE
        : possible.flatMap(({ observable: o }) =>
            must(look.after).includes(o.key) && statusOf(o) === undefined ? [o] : NONE,
          );
    return { inspection: look, observable, status: own ?? (first.length > 0 ? 'held' : 'open'), first };
  });
}

/** The next inspection to make: the first open one behind `from`, then from the beginning; none when nothing is open. */
export function nextInspection(
  answers: readonly InspectionAnswer[],
  from?: string,
): InspectionAnswer | undefined {
  const at = answers.findIndex((a) => a.inspection.key === from);
  return [...answers.slice(at + 1), ...answers.slice(0, at + 1)].find((a) => a.status === 'open');
}

/** The grade that says that nothing was found; none for an inspection that shows nothing abnormal, is told and not seen, or is measured. */
export function normalGrade(o: Observable): string | undefined {
  const options = optionsOf(o);
  if (o.how !== 'seen' || o.place !== undefined || o.type.kind !== 'choice') return undefined;
  return options.some((x) => x.abnormal) ? options.find((x) => !x.abnormal)?.key : undefined;
}

/** The next inspection behind `from` whose place has something left that one glance can pass; then from the beginning. */
export function nextPlace<A extends InspectionAnswer>(answers: readonly A[], from: string): A | undefined {
  const at = answers.findIndex((a) => a.inspection.key === from);
  return [...answers.slice(at + 1), ...answers.slice(0, at + 1)].find((a) => restAt([a], a).length > 0);
}

/** Open inspections at the place of another one (itself too) that are graded: what one glance there can pass as sound. */
export const restAt = <A extends InspectionAnswer>(answers: readonly A[], at: InspectionAnswer): A[] =>
  answers.filter(
    (a) =>
      a.status === 'open' &&
      a.inspection.zone === at.inspection.zone &&
      normalGrade(a.observable) !== undefined,
  );
