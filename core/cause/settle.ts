import { doubleAt, nth } from '@core/quantity/must';
import { APART } from './cause-data';
import { barsOf, type Evidence } from './evidence';
import { type CauseModel, isQuiet } from './model';
import type { Sighting } from './sightings';
import { faultsSeen } from './together';

/**
 * What findings add to each cause, natural log: the sums of the network and of what speaks of causes themselves, and what
 * holds beside them (`judgement` of the knowledge):
 * - What was seen of a cause itself settles it: neither life nor symptom nor sound neighbour leaves it behind a cause that was not seen.
 * - Several faults that were seen stand together: each has its part of the whole by how much of what was found it explains.
 * - A cause that explains nothing that was found does not lead by its distance, its symptom or its prior.
 * - With nothing abnormal each sound inspection makes it likelier that nothing is wrong.
 * - On few findings no cause is nearly sure, unless it was seen itself.
 * @param network what the mechanisms say of each cause
 */
export function causeLogs(model: CauseModel, network: Float64Array, evidence: Evidence): Float64Array {
  const { judgement } = model.data;
  const logs = Float64Array.from(network);
  const add = (by: Float64Array) => by.forEach((x, i) => (logs[i] = doubleAt(logs, i) + x));
  const bars = barsOf(model, evidence);
  if (!judgement) {
    for (const d of evidence.direct) add(d.nats);
    if (bars) add(bars);
    return logs;
  }
  const isTold = (s: Sighting) => s.finding.finding === APART.sheet.finding;
  const told = evidence.sightings.filter(isTold);
  const seen = settling(evidence).filter((s) => !isTold(s));
  const shown = new Set(seen.flatMap((s) => [...s.causes]));
  raise(logs, network, shown);
  const faulty = evidence.observed.filter((o) => o.faulty);
  const explained = new Set(faulty.flatMap((o) => [...o.explainers]));
  const idle = model.causes.map((c, i) => !shown.has(i) && !isQuiet(c) && !explained.has(i));
  const sound = evidence.observed.filter((o) => o.sound === 1).length;
  const nothing = faulty.length === 0 && sound > 0 && evidence.direct.some(isNone);
  for (const { finding, nats } of evidence.direct) {
    const far = finding.finding !== APART.symptom.finding;
    const held = nats.map((x, i) => (nothing && far && nth(idle, i) ? Math.min(x, 0) : x));
    add(held);
    raise(logs, held, shown);
  }
  const lift = (s: Sighting, by: number) => {
    for (const i of s.causes) logs[i] = doubleAt(logs, i) + by;
  };
  for (const s of seen) lift(s, -Math.log(1 - s.sure + s.sure * judgement.deceives));
  for (const s of told) lift(s, Math.log(model.data.sheet.hit / model.data.sheet.background));
  if (faulty.length === 0) {
    const { each, most } = judgement.soundLook;
    const bonus = Math.min(sound * Math.log(each), Math.log(most));
    model.causes.forEach((c, i) => isQuiet(c) && (logs[i] = doubleAt(logs, i) + bonus));
  } else {
    // behind the best of those that explain something; where nothing does, behind none of these
    const score = (i: number) => Math.log(nth(model.causes, i).prior) + doubleAt(logs, i);
    const best = model.causes.reduce(
      (most, c, i) => (nth(idle, i) || isQuiet(c) ? most : Math.max(most, score(i))),
      -Infinity,
    );
    const most = best === -Infinity ? Math.log(model.data.none.prior) : best;
    idle.forEach((is, i) => {
      if (is) logs[i] = doubleAt(logs, i) + Math.min(0, most - BEHIND - score(i));
    });
  }
  if (bars) add(bars);
  // one that explains nothing else stands beside those that do, with its part of the whole
  if (seen.length + told.length > 0) return side(model, logs, undenied(model, evidence));
  const findings = evidence.observed.length + evidence.direct.length;
  return findings > judgement.few.findings ? logs : held(model, logs, judgement.few.most);
}

/**
 * What was seen of causes themselves, as far as it settles: where something else was found that needs a fault, only of those
 * that explain some of it. A fault that has nothing to do with what was found was there as well, and is not what this is about.
 */
function settling({ sightings, observed }: Evidence): Sighting[] {
  const own = new Set(sightings.map((s) => s.finding));
  const rest = observed.filter((o) => o.faulty && !own.has(o.finding));
  if (rest.length === 0) return [...sightings];
  return sightings.flatMap((s) => {
    const causes = new Set([...s.causes].filter((i) => rest.some((o) => o.explainers.has(i))));
    return causes.size === 0 ? [] : [{ ...s, causes }];
  });
}

/** Evidence without what was seen or told of causes that are denied: it stands beside nothing. */
export function undenied(model: CauseModel, evidence: Evidence): Evidence {
  const bars = barsOf(model, evidence);
  if (!bars) return evidence;
  const sightings = evidence.sightings.flatMap((s) => {
    const causes = new Set([...s.causes].filter((i) => doubleAt(bars, i) === 0));
    return causes.size === 0 ? [] : [{ ...s, causes }];
  });
  return { ...evidence, sightings };
}

/** How far a cause that explains nothing stays behind one that explains something, natural log of its share. */
const BEHIND = 0.05;

const isNone = ({ finding }: Evidence['direct'][number]): boolean =>
  finding.finding === APART.symptom.finding && finding.value === 'none';

/** Lifts all causes that were seen by as much as the best of them lies behind the best of all in one part of what is known. */
function raise(logs: Float64Array, part: Float64Array, shown: ReadonlySet<number>): void {
  if (shown.size === 0) return;
  let [best, mine] = [-Infinity, -Infinity];
  part.forEach((x, i) => {
    best = Math.max(best, x);
    if (shown.has(i)) mine = Math.max(mine, x);
  });
  if (mine < best) for (const i of shown) logs[i] = doubleAt(logs, i) + best - mine;
}

/** Faults that were seen side by side: what is held of all of them is shared out by what each explains. */
function side(model: CauseModel, logs: Float64Array, evidence: Evidence): Float64Array {
  const faults = faultsSeen(model, logs, evidence);
  if (faults.length < 2) return logs;
  const prior = (i: number) => Math.log(nth(model.causes, i).prior);
  const held = faults.map((f) => sumOf([...f.causes].map((i) => prior(i) + doubleAt(logs, i))));
  const all = sumOf(held);
  const out = Float64Array.from(logs);
  faults.forEach(({ causes, part }, k) => {
    for (const i of causes) out[i] = doubleAt(out, i) + Math.log(part) + all - nth(held, k);
  });
  return out;
}

/** Log of a sum of what logs are given of. */
function sumOf(logs: readonly number[]): number {
  const top = Math.max(...logs);
  return top + Math.log(logs.reduce((s, x) => s + Math.exp(x - top), 0));
}

/** Shares moved towards what is held of causes at large, as far as it takes to leave the leader at a share. */
function held(model: CauseModel, logs: Float64Array, most: number): Float64Array {
  const { none } = model.data;
  const all = model.causes.reduce((s, c) => s + c.prior, none.prior);
  const score = (i: number) => Math.log(nth(model.causes, i).prior) + doubleAt(logs, i);
  const total = sumOf([Math.log(none.prior), ...model.causes.map((_, i) => score(i))]);
  const share = (i: number) => Math.exp(score(i) - total);
  const leader = model.causes.reduce((best, _, i) => (share(i) > share(best) ? i : best), 0);
  if (model.causes.length === 0 || share(leader) <= most) return logs;
  const large = nth(model.causes, leader).prior / all;
  const by = (share(leader) - most) / (share(leader) - large);
  const mixed = (p: number, prior: number) => (1 - by) * p + (by * prior) / all;
  const base = Math.log(mixed(Math.exp(Math.log(none.prior) - total), none.prior) / none.prior);
  return logs.map((_, i) => {
    const { prior } = nth(model.causes, i);
    return Math.log(mixed(share(i), prior) / prior) - base;
  });
}
