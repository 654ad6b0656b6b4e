import { doubleAt, intAt, nth } from '@core/quantity/must';
import type { Finding } from '@core/examination/finding';
import type { CauseData, CauseEntry } from './cause-data';
import type { Evidence } from './evidence';
import {
  baseOf,
  type ConditionedModel,
  partLikelihood,
  scores,
  shares,
  shiftOf,
  touchesOfBoth,
} from './infer';
import { type CauseModel, isQuiet, sharesWith } from './model';
import { weigh, type Without, withoutFinding } from './weighed';

/** What a finding does between two causes, in decibans: above nought for the leader. */
export type ExplainedFinding = { finding: Finding; decibans: number };
/** A mechanism that the leader sets off, how surely it is at work by all findings, and the abnormal findings that show it. */
type Working = { mechanism: string; wording: string; probability: number; shows: Finding[] };
export type Explanation = {
  leader: CauseEntry;
  runner: CauseEntry;
  /** For the leader and against it, the strongest first. Together with the priors they do not add up exactly, since findings of one mechanism share what they say. */
  lines: ExplainedFinding[];
  /** From the primary mechanism to what follows. */
  working: Working[];
  /** A few findings without which another cause would lead; none where no few would. */
  turns: Finding[];
  /** Two causes that explain significantly more together than any one. */
  pair?: { causes: [CauseEntry, CauseEntry]; odds: number };
};

/** Decibans of a natural log of odds. */
export const decibans = (nats: number): number => (10 * nats) / Math.LN10;
/** Most findings that are left out together to find what would turn the order. */
const MOST_TURNS = 3;
/** Findings that are tried for it. */
const TRIED = 6;
/** Causes that pairs are tried of: one that is likely, with one that need not be. */
const PAIRED = { likely: 10, other: 30 };

/** Why the leader leads: against the runner-up, through its mechanisms, and what would turn it. None with fewer than two causes or no finding. */
export function explain(data: CauseData, findings: readonly Finding[]): Explanation | undefined {
  const { model, evidence, conditioned, logs, without } = weigh(data, findings);
  if (model.causes.length < 2 || evidence.observed.length + evidence.direct.length === 0) return undefined;
  const order = orderOf(model, logs);
  const [first, second] = order as [number, number];
  const gap = (l: Float64Array) => doubleAt(l, first) - doubleAt(l, second);
  const lines = without()
    .map(({ finding, logs: l }) => ({ finding, decibans: decibans(gap(logs) - gap(l)) }))
    .sort((a, b) => Math.abs(b.decibans) - Math.abs(a.decibans));
  const [leader, runner] = [nth(model.causes, first), nth(model.causes, second)];
  const pair = pairOf(model, evidence, conditioned, logs, order);
  return {
    leader,
    runner,
    lines,
    working: workingOf(model, conditioned, first),
    turns: turnsOf(model, evidence, first, lines, without()),
    ...(pair ? { pair } : {}),
  };
}

function orderOf(model: CauseModel, logs: Float64Array): number[] {
  const { causes } = shares(model, logs);
  return [...causes.keys()].sort((a, b) => doubleAt(causes, b) - doubleAt(causes, a));
}

/** How surely each mechanism of a cause is at work, given the cause and all findings: by Bayes' rule over its two states. */
function workingOf(model: CauseModel, conditioned: ConditionedModel, cause: number): Working[] {
  const mine = nth(model.touches, cause);
  const keys = new Map(Object.keys(nth(model.causes, cause).works).map((k, i) => [k, i]));
  return mine
    .flatMap(({ mechanism, p }): (Working & { place: number })[] => {
      const key = nth(model.mechanisms, mechanism);
      const place = keys.get(key);
      if (place === undefined) return [];
      const part = intAt(conditioned.partOf, mechanism);
      const like = (state: number) => {
        if (part < 0) return state === 1 ? doubleAt(conditioned.sound, mechanism) : 1;
        // the table has what sound findings do to a mechanism at work
        const shares = sharesWith(nth(model.shares, cause), [{ mechanism, p: state }]);
        return partLikelihood(nth(conditioned.parts, part), conditioned.sound, shares);
      };
      const [on, off] = [p * like(1), (1 - p) * like(0)];
      const shows = conditioned.coupling
        .filter((o) => o.node.parents.some((x) => x.mechanism === mechanism && shown(o.grades, x.shows)))
        .map((o) => o.finding);
      const { wording } = nth(model.data.mechanisms, mechanism);
      return [{ mechanism: key, wording, probability: on / (on + off), shows, place }];
    })
    .sort((a, b) => a.place - b.place)
    .map(({ mechanism, wording, probability, shows }) => ({ mechanism, wording, probability, shows }));
}

const shown = (grades: Float64Array, shows: Float64Array): boolean =>
  grades.some((g, i) => g > 0 && doubleAt(shows, i) > 0);

/** Findings without which another cause leads: taken out greedily, the one that brings the nearest rival nearest first. */
function turnsOf(
  model: CauseModel,
  evidence: Evidence,
  leader: number,
  lines: readonly ExplainedFinding[],
  without: readonly Without[],
): Finding[] {
  // only what speaks for the leader can turn it, and the strongest of it first
  const speaking = new Set(
    lines
      .filter((l) => l.decibans > 0)
      .slice(0, TRIED)
      .map((l) => l.finding),
  );
  let now = evidence;
  const gone: Finding[] = [];
  while (gone.length < MOST_TURNS) {
    const all = [...now.observed, ...now.direct, ...now.sightings].filter((x) => speaking.has(x.finding));
    let best: { evidence: Evidence; finding: Finding; lead: number } | undefined;
    for (const x of all) {
      const next = withoutFinding(now, x.finding);
      // of one alone it is known already
      const one = gone.length === 0 ? without.find((w) => w.finding === x.finding) : undefined;
      const causes = one?.causes ?? shares(model, scores(model, next)).causes;
      const rival = causes.reduce((m, p, i) => (i === leader ? m : Math.max(m, p)), 0);
      const lead = doubleAt(causes, leader) / rival;
      if (!best || lead < best.lead) best = { evidence: next, finding: x.finding, lead };
    }
    if (!best) return [];
    gone.push(best.finding);
    if (best.lead < 1) return gone;
    now = best.evidence;
  }
  return [];
}

/** The best pair of causes, where it explains significantly more than the best single one. What speaks of causes themselves (noticed, run, sheet) is owed to the one of them that makes it likelier. */
function pairOf(
  model: CauseModel,
  evidence: Evidence,
  conditioned: ConditionedModel,
  logs: Float64Array,
  order: readonly number[],
): Explanation['pair'] {
  const { pair, none } = model.data;
  const base = baseOf(model, conditioned);
  const all = model.causes.reduce((s, c) => s + c.prior, none.prior);
  const prior = (i: number) => Math.log(nth(model.causes, i).prior / all);
  const single = Math.max(...order.map((i) => prior(i) + doubleAt(logs, i)));
  const something = order.filter((i) => !isQuiet(nth(model.causes, i))).slice(0, PAIRED.other);
  let best: Explanation['pair'];
  something.slice(0, PAIRED.likely).forEach((a, k) => {
    for (const b of something.slice(k + 1)) {
      const direct = evidence.direct.reduce(
        (s, d) => s + Math.max(doubleAt(d.nats, a), doubleAt(d.nats, b)),
        0,
      );
      const seen = evidence.sightings.reduce(
        (s, x) =>
          s - (x.causes.has(a) || x.causes.has(b) ? Math.log(model.data.judgement?.deceives ?? 1) : 0),
        0,
      );
      const both = touchesOfBoth(model, a, b);
      const together = shiftOf(model, conditioned, base, both, sharesWith(model.leaks, both)) + direct + seen;
      const odds = Math.exp(prior(a) + prior(b) + Math.log(pair.penalty) + together - single);
      if (odds > Math.max(pair.odds, best?.odds ?? 0))
        best = { causes: [nth(model.causes, a), nth(model.causes, b)], odds };
    }
  });
  return best;
}
