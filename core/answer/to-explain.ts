import type { Finding } from '@core/examination/finding';
import { factsOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Answers } from './answers';
import type { ExaminedThing, LimitedInspection } from './examined';

/** What of what was looked at has to be explained: findings as causes are weighed on them, and looks that show something else than new. */
export type ToExplain = {
  findings: readonly Finding[];
  others: readonly { thing: ExaminedThing; inspection: LimitedInspection }[];
};

/** The abnormal findings of the bench, and looks out of order or outside their limit that none of them stands on. */
export function toExplain(a: Pick<Answers, 'ranking' | 'registry' | 'examination'>, state: State): ToExplain {
  const benched = new Set(
    state.log.filter((f) => a.registry.get(f.key)?.station === 'examine').map((f) => f.id),
  );
  const findings = a.ranking.abnormal.filter((f) => f.facts.some((id) => benched.has(id)));
  const covered = new Set(findings.flatMap((f) => f.facts));
  const others = a.examination.things.flatMap((thing) =>
    thing.inspections
      .filter((l) => l.abnormal || l.limit?.within === false)
      .filter((l) => !factsOf(state, l.observable.key, thing.about).some((f) => covered.has(f.id)))
      .map((inspection) => ({ thing, inspection })),
  );
  return { findings, others };
}
