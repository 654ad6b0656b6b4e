import { byWorth, type CheckAnswer, type OpenInspection } from './checks';
import type { Examined } from './examined';
import type { Registry } from '@core/facts/observable';

/** An inspection on the bench that would settle something, and what it is worth. */
type Wanted = OpenInspection & { settles: number };
/** A check that can be made; `first`: inspections that it would destroy, to be made before it. They count into its minutes. */
export type PossibleCheck = CheckAnswer & { first: OpenInspection[] };
/** What would settle most on this bench, by worth; and what cannot be had since a thing did not come. */
export type ToConclude = {
  wanted: Wanted[];
  lost: { kind: string; wording: string; settles: number }[];
  /** Checks that can be made with what is here, by their worth a minute. */
  possible: PossibleCheck[];
};

/**
 * What is missing to conclude, of what is looked at on the bench: each open inspection once, with the worth of the best check that it is part of; checks come in the order of their worth a
 * minute. Of a thing that did not come no inspection is proposed; what its best one would have been worth is told.
 */
export function toConclude(
  checks: readonly CheckAnswer[],
  { things }: Examined,
  registry: Registry,
  begin: number,
): ToConclude {
  const wanted: Wanted[] = [];
  const lost = new Map<string, { kind: string; wording: string; settles: number }>();
  const possible: PossibleCheck[] = [];
  for (const check of checks) {
    const { settles, inspections } = check;
    const first = new Map<string, OpenInspection>();
    let here = true;
    for (const inspection of inspections) {
      if (registry.get(inspection.key)?.station !== 'examine') continue;
      const thing = things.find(
        (t) =>
          t.about === inspection.about &&
          t.inspections.some((l) => l.inspection.key === inspection.key && l.status !== 'done'),
      );
      if (!thing) continue;
      const absent = thing.came === 'not_sent';
      const before = lost.get(thing.kind);
      if (absent && (!before || before.settles < settles))
        lost.set(thing.kind, { kind: thing.kind, wording: thing.wording, settles });
      if (!absent && !wanted.some((w) => w.key === inspection.key && w.about === inspection.about))
        wanted.push({ ...inspection, settles });
      here &&= !absent;
      for (const o of thing.inspections.find((l) => l.inspection.key === inspection.key)?.first ?? [])
        first.set(`${o.key} ${inspection.about ?? ''}`, {
          key: o.key,
          about: inspection.about,
          minutes: o.minutes ?? 1,
        });
    }
    const before = [...first.values()].filter(
      (f) => !inspections.some((l) => l.key === f.key && l.about === f.about),
    );
    const minutes = before.reduce((sum, f) => sum + f.minutes, check.minutes);
    if (here) possible.push({ ...check, minutes, first: before });
  }
  possible.sort(byWorth(begin));
  return { wanted, lost: [...lost.values()].sort((a, b) => b.settles - a.settles), possible };
}
