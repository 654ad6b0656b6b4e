import { nth } from '@core/quantity/must';
import { hasPlunger } from '@core/examination/extension';
import { stageOf } from '@core/examination/stage-of';
import { type Has, driveHas } from '@core/drive/drive-has';
import type { Stage } from '@core/drive/stages';
import { textOf } from '@core/facts/read';
import type { AnsweredQuestion, Case, Missing, ReuseOf, Standing } from './advice';
import { designsOf, missingDesign, missingEngine } from './missing';

const KEYS = [
  'call.about',
  'chain.length',
  'chain.links_over',
  'tensioner.extension',
  'tensioner.leak_series',
];

/**
 * Are the used parts still good, part by part: a belt by the policy, a chain by its length against its limit, an old
 * plunger about itself: by the policy replaced, or let on by a recorded leak-down alone.
 */
export function adviseReuse(c: Case): AnsweredQuestion {
  if (!c.a.engine) return missingEngine();
  const designs = designsOf(c);
  const has = designs.map((d) => driveHas(d.stages));
  const drawn = designs.length > 0 && designs.every((d) => d.stages.length > 0);
  const how = (part: Has) => {
    const n = has.filter((h) => h.has(part)).length;
    return n === 0 ? undefined : { some: n < has.length };
  };
  const one = designs.length === 1 ? nth(designs, 0).stages : undefined;
  const all = [
    ...plungersOf(c, how('plunger'), one),
    ...chainsOf(c, how('chain'), one),
    ...beltOf(c, how('belt')),
  ];
  // The part that is asked for is answered; where the drive has no such part, or none was named, all of them.
  const about = textOf(c.state, 'call.about');
  const asked = all.filter((p) => p.part === (about === 'tensioner' ? 'plunger' : about));
  const parts = asked.length > 0 ? asked : all;
  if (!drawn || parts.length === 0)
    return { standing: 'open', lead: { code: 'design_open' }, because: [], missing: missingDesign(c) };
  return {
    standing: standingOf(parts),
    lead: { code: 'reuse', parts },
    because: (c.a.drive?.extensions ?? []).flatMap((answer) => {
      const layout = c.a.drive?.stages[answer.stage]?.layout;
      return answer.rest && layout ? [{ code: 'extension' as const, layout, answer }] : [];
    }),
    missing: [...measurements(c, parts), ...(parts.some((p) => p.some) ? missingDesign(c) : [])],
    keys: KEYS,
  };
}

type Some = { some: boolean } | undefined;

/** Where one of several such stages is meant, its name. */
const stageName = (stages: readonly Stage[], i: number): string =>
  stages.length > 1 ? (stages[i]?.layout.name ?? stages[i]?.layout.id ?? '') : '';

function plungersOf({ a, state }: Case, how: Some, one: readonly Stage[] | undefined): ReuseOf[] {
  if (!how) return [];
  const by = a.policy.chosen['old_plunger'] === 'reuse' ? ('tested' as const) : ('replaced' as const);
  if (!one) return [{ part: 'plunger', by, stage: '', ...how }];
  return one.flatMap(({ layout }, i): ReuseOf[] => {
    if (!hasPlunger(layout)) return [];
    const stage = stageName(one, i);
    if (by === 'replaced') return [{ part: 'plunger', by, stage, ...how }];
    const leak = a.leaks.find((l) => stageOf(state, l.about, 'tensioner', one, hasPlunger) === i);
    return [{ part: 'plunger', by, stage, ...how, ...(leak ? { leak } : {}) }];
  });
}

function chainsOf({ a }: Case, how: Some, one: readonly Stage[] | undefined): ReuseOf[] {
  if (!how) return [];
  if (!one) return [{ part: 'chain', stage: '', ...how }];
  return one.flatMap(({ layout }, i): ReuseOf[] => {
    if (layout.kind !== 'chain') return [];
    const length = a.drive?.elongations.find((e) => e.stage === i);
    return [{ part: 'chain', stage: stageName(one, i), ...how, ...(length ? { length } : {}) }];
  });
}

const beltOf = ({ a }: Case, how: Some): ReuseOf[] =>
  how
    ? [{ part: 'belt', by: a.policy.chosen['used_belt'] === 'inspect' ? 'if_sound' : 'never', ...how }]
    : [];

/** How one part stands. */
export function reuseStanding(p: ReuseOf): Standing {
  if (p.part === 'belt') return p.by === 'never' ? 'no' : 'if';
  if (p.part === 'chain') {
    if (!p.length) return 'open';
    return p.length.long === 'past' ? 'no' : p.length.long === 'within' ? 'yes' : 'cannot';
  }
  if (p.by === 'replaced') return 'no';
  if (!p.leak) return 'open';
  return p.leak.verdict === 'above' ? 'no' : p.leak.verdict === 'within' ? 'yes' : 'cannot';
}

/** One answer where all parts stand alike; what is open first, else it depends on the part. */
function standingOf(parts: readonly ReuseOf[]): Standing {
  const all = new Set(parts.map(reuseStanding));
  if (all.size === 1) return nth([...all], 0);
  return all.has('open') ? 'open' : 'if';
}

function measurements({ a }: Case, parts: readonly ReuseOf[]): Missing[] {
  const chain = parts.some((p) => p.part === 'chain' && !p.length);
  const plunger = parts.some((p) => p.part === 'plunger');
  const untested = parts.some((p) => p.part === 'plunger' && p.by === 'tested' && !p.leak);
  return [
    ...(chain
      ? [
          { key: 'chain.length', minutes: 5 },
          { key: 'chain.links_over', minutes: 1 },
        ]
      : []),
    ...(plunger && chain && !a.drive?.tensioners.length ? [{ key: 'tensioner.extension', minutes: 3 }] : []),
    ...(untested ? [{ key: 'tensioner.leak_series', minutes: 15 }] : []),
  ];
}
