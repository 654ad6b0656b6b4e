import { dueOf } from '@core/catalogue/due';
import { has } from '@core/facts/read';
import { jobList, type JobLine } from '@core/match/job-list';
import type { Answered, Case, Missing } from './advice';
import { designsOf, missingDesign, missingEngine } from './missing';

/** What else to change: what the job takes that is not in the kit; of several designs what all of them take. */
export function adviseAlso(c: Case): Answered {
  if (!c.a.engine) return missingEngine();
  const lists = designsOf(c).map((d) =>
    jobList(c.world.catalogue, d.variant.id, c.a.kit).filter((l) => l.source !== 'in_kit'),
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
    lead: { code: 'also', lines, certain },
    because: [],
    missing: certain ? [] : missingDesign(c),
    keys: ['kit.number'],
  };
}

/** When it is due: by the interval of the vehicle, from when it was last changed. */
export function adviseDue(c: Case): Answered {
  const { a, state, world } = c;
  if (!a.engine) return missingEngine();
  const answer = dueOf(world.catalogue.pack.intervals, a.engine.code, state, c.today);
  if (!answer) return { standing: 'cannot', lead: { code: 'no_interval' }, because: [], missing: [] };
  const { interval, due } = answer;
  const wanted = ['kit.fitted', 'kit.fitted_odometer', 'vehicle.odometer', 'vehicle.yearly'];
  const missing: Missing[] = wanted.filter((k) => !has(state, k)).map((key) => ({ key, minutes: 1 }));
  const common = { because: [], missing, keys: [...wanted, 'vehicle.name'] };
  if (answer.runsBack)
    return {
      standing: 'open',
      lead: { code: 'odometer_back' },
      because: [],
      missing: [{ key: 'vehicle.odometer', minutes: 1 }],
      keys: wanted,
    };
  return due
    ? { standing: 'yes', lead: { code: 'due', due, interval }, ...common }
    : { standing: 'if', lead: { code: 'interval', interval }, ...common };
}

/** Is the used part still good: a belt is never refitted on a supplier's word; a chain is measured against its limit. */
export function adviseReuse(c: Case): Answered {
  const { a } = c;
  if (!a.engine) return missingEngine();
  const has = a.possible.has;
  const keys = ['chain.length', 'chain.links_over', 'tensioner.extension'];
  const chain = a.drive?.elongations.find((e) => e.limit !== undefined);
  if (chain) {
    const { value: e, u } = chain.elongation;
    const plunger = a.drive?.extensions.find((x) => x.stage === chain.stage);
    return {
      standing: chain.long === 'past' ? 'no' : chain.long === 'within' ? 'yes' : 'cannot',
      lead: { code: 'chain', e, u, limit: chain.limit!, long: chain.long },
      because: plunger?.rest
        ? [
            {
              code: 'extension',
              mm: plunger.reading.value,
              explained: plunger.rest.expected.value,
              verdict: plunger.rest.verdict,
            },
          ]
        : [],
      missing: a.drive!.extensions.length === 0 ? [{ key: 'tensioner.extension', minutes: 3 }] : [],
      keys,
    };
  }
  if (has?.has('chain') && !has.has('belt'))
    return {
      standing: 'open',
      lead: { code: 'chain_unmeasured' },
      because: [],
      missing: [
        { key: 'chain.length', minutes: 5 },
        { key: 'chain.links_over', minutes: 1 },
        { key: 'tensioner.extension', minutes: 3 },
        ...missingDesign(c),
      ],
      keys,
    };
  if (has?.has('belt') && c.a.rules.chosen['used_belt'] === 'inspect')
    return { standing: 'if', lead: { code: 'belt_if_sound' }, because: [], missing: [], keys };
  if (has?.has('belt'))
    return { standing: 'no', lead: { code: 'belt_never' }, because: [], missing: [], keys };
  return { standing: 'open', lead: { code: 'reuse_open' }, because: [], missing: missingDesign(c), keys };
}
