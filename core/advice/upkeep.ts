import { dueOf } from '@core/catalogue/due';
import { nextDue } from '@core/catalogue/interval';
import { jobsFor, kitOfJob } from '@core/answer/jobs';
import { numberOf, wasAsked } from '@core/facts/read';
import type { JobLine } from '@core/match/job-list';
import type { AnsweredQuestion, Case, Missing, Reason } from './advice';
import { designsOf, missingDesign, missingEngine } from './missing';

/** What else to change: what the job takes that is not in the kit; of several designs what all of them take. */
export function adviseAlso(c: Case): AnsweredQuestion {
  if (!c.a.engine) return missingEngine();
  const lists = designsOf(c).map((d) =>
    jobsFor(c.world.catalogue, d.variant.id, c.a).filter((l) => l.source !== 'in_kit'),
  );
  const [first = [], ...rest] = lists;
  const same = (l: JobLine) => rest.every((other) => other.some((o) => o.item.item === l.item.item));
  const lines = first.filter(same);
  const certain = lists.every((l) => l.length === lines.length);
  if (lines.length === 0)
    return {
      standing: certain ? 'cannot' : 'open',
      lead: { code: 'no_jobs' },
      because: [],
      missing: certain ? [] : missingDesign(c),
    };
  return {
    standing: certain ? 'yes' : 'if',
    lead: { code: 'also', lines, certain, kit: kitOfJob(c.a)?.number },
    because: [],
    missing: certain ? [] : missingDesign(c),
    keys: ['kit.number'],
  };
}

/** When it is due: by the interval of the vehicle, from when it was last changed. */
export function adviseDue(c: Case): AnsweredQuestion {
  const { a, state, world } = c;
  if (!a.engine) return missingEngine();
  const answer = dueOf(world.catalogue.pack.intervals, a.engine.code, state, c.today);
  if (!answer) return { standing: 'cannot', lead: { code: 'no_interval' }, because: [], missing: [] };
  const { interval, due } = answer;
  const wanted = ['kit.fitted', 'kit.fitted_odometer', 'vehicle.odometer', 'vehicle.yearly'];
  const missing: Missing[] = wanted.filter((k) => !wasAsked(state, k)).map((key) => ({ key, minutes: 1 }));
  const common = { because: [], missing, keys: [...wanted, 'vehicle.name'] };
  if (answer.runsBack)
    return {
      standing: 'open',
      lead: { code: 'odometer_back' },
      because: [],
      missing: [{ key: 'vehicle.odometer', minutes: 1 }],
      keys: wanted,
    };
  // What a label would say if it is changed now.
  const km = numberOf(state, 'vehicle.odometer');
  const next = km === undefined ? undefined : nextDue(interval, { day: c.today, km }, { day: c.today, km });
  const because: Reason[] = next ? [{ code: 'label', next }] : [];
  return due
    ? { standing: 'yes', lead: { code: 'due', due, interval }, ...common, because }
    : { standing: 'if', lead: { code: 'interval', interval }, ...common, because };
}
