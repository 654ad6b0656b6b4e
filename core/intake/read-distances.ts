import { nth } from '@core/quantity/must';
import { toBase } from '@core/quantity/units';
import type { IntakeContext } from './context';
import type { DayTold } from './days';
import type { Figure } from './figures';
import { kindNamed } from './lexicon';
import { distanceFacts, type DistanceRole, type DistanceTold } from './distance-facts';
import { findPhrases, hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import { beginOf, sentenceOf, type Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

/** Least distance that is taken for one without its unit. */
const LEAST_BARE = 1000;
const MOST = 3_000_000;
/** Distances by what is said around them: now, when fitted, since fitting, in a year, at an oil change; and what follows from two. */
export function readDistances(
  said: Speech,
  days: readonly DayTold[],
  used: ReadonlySet<number>,
  cases: number,
  ctx: IntakeContext,
): Proposal[] {
  const told: DistanceTold[] = [];
  const miles = inMiles(said);
  for (const f of said.figures) {
    const t = nth(said.tokens, f.at);
    if (used.has(f.at) || days.some((d) => d.span.from < t.to && t.from < d.span.to)) continue;
    const read = distanceOf(f, said, miles);
    if (!read) continue;
    const own = toldOf(f, said, read.km, read.unit, days);
    if (own) told.push(own);
  }
  return distanceFacts(told, said.fixes, cases, ctx);
}

/** Whether bare distances are meant in miles: another one is told so, and none in kilometres. */
function inMiles(said: Speech): boolean {
  if (hasPhrase(said.tokens, WORDS.metric)) return false;
  const units = said.figures.flatMap((f) => unitOf(f.unit) ?? []);
  return units.includes('mi') && !units.includes('km');
}

function unitOf(unit: string | undefined): 'km' | 'mi' | undefined {
  if (unit === undefined) return undefined;
  if (WORDS.miles.includes(unit.toLowerCase())) return 'mi';
  return /^(km|kms|kilomet(re|er)s?)$/i.test(unit) ? 'km' : undefined;
}

function distanceOf(f: Figure, said: Speech, miles: boolean): { km: number; unit: boolean } | undefined {
  const unit = unitOf(f.unit);
  const value = f.grouped ?? f.value;
  const next = said.tokens[f.at + f.digits];
  const near = said.tokens.slice(f.at + f.digits, f.at + f.digits + 8);
  const saysMiles =
    unit === undefined &&
    findPhrases(near, ['miles not k', 'miles not km', 'miles', 'mls']).some(
      (x) => x.at < 5 && next?.sentence === near[x.at]?.sentence,
    );
  if (unit === undefined) {
    const before = said.tokens[f.at - 1];
    if (!(f.whole || f.thousands) || value < LEAST_BARE || value > MOST || !Number.isInteger(value))
      return undefined;
    if (f.unit !== undefined && !/^(k|m|s|c|f|t|h|in)$/i.test(f.unit)) return undefined;
    if (f.unit === 'h' || f.unit === 'hours') return undefined;
    if (!f.thousands && value > 1900 && value < 2100) return undefined;
    if (before && WORDS.notDistance.includes(before.low)) return undefined;
    if (next && WORDS.notOdometer.includes(next.low) && next.sentence === nth(said.tokens, f.at).sentence)
      return undefined;
  }
  if (value > MOST || value <= 0) return undefined;
  const factor = unit === 'mi' || saysMiles || (unit === undefined && miles);
  // "198k" on a vehicle is a distance.
  const k = said.tokens[f.at + f.digits - 1]?.low === 'k' && value >= 10_000;
  return { km: factor ? toBase('distance', value, 'mi') : value, unit: unit !== undefined || k };
}

/** What a distance is of. */
function toldOf(
  f: Figure,
  said: Speech,
  km: number,
  unit: boolean,
  days: readonly DayTold[],
): DistanceTold | undefined {
  const at = nth(said.tokens, f.at);
  const sentence = sentenceOf(said, f.at);
  const k = f.at - beginOf(said, sentence);
  const clause = sentence.filter((t) => t.clause === at.clause);
  const own = clause.indexOf(at);
  const before = clause.slice(Math.max(0, own - 9), own);
  const behind = clause.slice(own + f.n, own + f.n + 7);
  const mood = said.clauses.get(at.clause);
  const factor = km === (f.grouped ?? f.value) ? 1 : 1.609344;
  const u = f.spread !== undefined ? f.spread * factor : f.about ? Math.max(km * 0.02, 500) : undefined;
  const role = roleOf(before, behind, clause, sentence.slice(0, k), unit, km, days, said, at);
  if (role === undefined || role === 'other') return undefined;
  const weak = role === 'now' && !unit && !hasPhrase([...before, ...behind], WORDS.clock);
  const sure: Proposal['sure'] =
    mood && mood.mood !== 'stated' && !(mood.mood === 'plan' && role === 'yearly')
      ? 'ask'
      : weak
        ? 'likely'
        : unit
          ? 'sure'
          : 'likely';
  return {
    role,
    km,
    ...(u === undefined ? {} : { u }),
    sure,
    span: { from: at.from, to: nth(said.tokens, f.at + f.n - 1).to },
    ...(mood?.theirs === undefined ? {} : { hearsay: mood.theirs }),
  };
}

function roleOf(
  before: readonly Token[],
  behind: readonly Token[],
  clause: readonly Token[],
  earlier: readonly Token[],
  unit: boolean,
  km: number,
  days: readonly DayTold[],
  said: Speech,
  at: Token,
): DistanceRole | undefined {
  const D = WORDS.distance;
  if (hasPhrase(before.slice(-2), ['every'])) return 'other';
  const topic = [...earlier]
    .reverse()
    .map(kindNamed)
    .find((k) => k !== undefined);
  const oil = hasPhrase(clause, ['oil']) || topic === 'oil';
  if (hasPhrase(behind.slice(0, 5), D.yearly) || hasPhrase(before, ['km year', 'a year i do', 'yearly']))
    return 'yearly';
  if (
    hasPhrase(behind.slice(0, 2), ['ago', 'before', 'back']) &&
    oil &&
    hasPhrase([...earlier.slice(-9), ...clause], D.changed)
  )
    return 'oil_ago';
  // What a part has on it, it has run since it was fitted.
  if (
    hasPhrase(behind.slice(0, 3), ['on it', 'on them']) &&
    (topic === 'belt' || topic === 'chain' || topic === 'tensioner') &&
    !hasPhrase(before, WORDS.clock)
  )
    return 'since';
  if (topic === 'belt' && hasPhrase(earlier.slice(-4), ['on it'])) return 'since';
  if (km < LEAST_BARE && !hasPhrase([...before.slice(-3), ...behind.slice(0, 3)], WORDS.distance.now))
    return hasPhrase([...earlier, ...behind], D.since) ? 'since' : 'other';
  if (hasPhrase(behind, D.since) || hasPhrase(before.slice(-5), D.ran))
    return hasPhrase(behind, ['in all', 'altogether', 'in total']) ? 'now' : 'since';
  if (
    hasPhrase(before.slice(-3), ['now', 'today', 'odo', 'odometer']) &&
    !hasPhrase(before.slice(-3), ['fitted'])
  )
    return 'now';
  if (oil && hasPhrase([...earlier.slice(-8), ...clause], ['light', 'lamp']) && !hasPhrase(clause, D.now))
    return 'lamp';
  if (
    oil &&
    (hasPhrase(clause, [...D.changed, 'ago at']) ||
      hasPhrase(behind.slice(0, 2), ['oil']) ||
      hasPhrase(before.slice(-3), ['oil'])) &&
    !hasPhrase(before.slice(-2), D.now)
  )
    return 'oil';
  if (hasPhrase([...before.slice(-4), ...behind.slice(0, 3)], D.other))
    return hasPhrase(before.slice(-2), D.now) ? 'now' : 'other';
  if (hasPhrase(behind.slice(0, 5), ['now', 'clock now', 'today'])) return 'now';
  if (fittedHere(before, behind, clause, earlier, days, said, at)) return 'fitted';
  if (hasPhrase([...before, ...behind], D.now)) return 'now';
  if (unit) return km >= LEAST_BARE || hasPhrase(clause, WORDS.clock) ? 'now' : undefined;
  if (
    hasPhrase(before.slice(-3), WORDS.clock) ||
    hasPhrase(behind.slice(0, 3), ['on it', 'on the clock', 'on her', 'on him'])
  )
    return 'now';
  if (hasPhrase(earlier.slice(-6), ['clock', 'odometer', 'dial', 'odo', 'mileage'])) return 'now';
  return km >= 10_000 ? 'bare' : before.at(-1)?.low === 'at' && km >= LEAST_BARE ? 'now' : undefined;
}

/** The fitting is what was spoken of last before the figure. */
function fittedHere(
  before: readonly Token[],
  behind: readonly Token[],
  clause: readonly Token[],
  earlier: readonly Token[],
  days: readonly DayTold[],
  said: Speech,
  at: Token,
): boolean {
  const D = WORDS.distance;
  if (hasPhrase(before.slice(-5), D.atFitting) || hasPhrase(behind.slice(0, 5), D.atFitting)) return true;
  const words = [...earlier.filter((t) => !before.includes(t)), ...before];
  const last = (list: readonly string[]) => findPhrases(words, list).at(-1)?.at ?? -1;
  // What a vehicle has done is no fitting.
  const fit =
    findPhrases(words, [...WORDS.fitted, ...D.fittedToo]).findLast(
      (f) => !/^(has|have|had|it|she)$/.test(words[f.at - 1]?.low ?? '') || f.phrase !== 'done',
    )?.at ?? -1;
  if (fit < 0) return false;
  if (last(D.now) > fit || last(WORDS.failed) > fit) return false;
  const bridged =
    before.at(-1)?.low === 'at' ||
    before.at(-1)?.low === '@' ||
    before.at(-1)?.low === 'with' ||
    hasPhrase(before.slice(-3), ['at', 'with', 'then']) ||
    /^\d/.test(before.at(-1)?.text ?? '');
  const afterDay = days.some(
    (d) =>
      d.span.to <= at.from &&
      at.from - d.span.to < 12 &&
      said.text.slice(d.span.to, at.from).trim().length < 6,
  );
  return bridged || afterDay || (clause.length < 12 && fit >= words.length - 7);
}
