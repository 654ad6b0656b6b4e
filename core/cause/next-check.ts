import { doubleAt, intAt, nth, num } from '@core/quantity/must';
import { lastPer } from '@core/quantity/keep';
import type { Finding } from '@core/examination/finding';
import { APART, type CauseData } from './cause-data';
import { type ConditionedModel, shares as sharesOf } from './infer';
import type { CauseModel, FindingNode } from './model';
import { LEAKS_ALONE, partSums, type PartSum, type PartSums } from './part-sums';
import { weigh } from './weighed';

/** Causes below this share are taken as the others are, which expect nothing of an inspection. */
const NEGLIGIBLE = 1e-5;

/** A check, and what it would tell about whether it is the leader, bits, all that is held of causes being doubted (`DOUBTED`). */
export type Check = { finding: string; settles: number };

/**
 * A leader that is nearly sure is still worth proving, by what proves it or its nearest rivals: shares are taken to a power
 * at which no cause has more than this, and made to add up to one.
 */
const DOUBTED = 0.6;
/** So many causes are rivals of the leader: its proof has to part it from these. */
const RIVALS = 8;
/** Enough for a power that nobody sees. */
const HALVINGS = 16;

/**
 * What each check not yet made would settle: the mutual information between whether the leader is the cause and the check's result (Lindley 1956). What an inspection would
 * show is worked out under each cause with all findings known, so that an inspection that says again what one said already is worth little.
 * @param wanted whether a check can be made at all; what cannot be is not worked out
 * @param least bits below which nobody asks
 */
export function checkWorth(
  data: CauseData,
  findings: readonly Finding[],
  wanted: (finding: string) => boolean = () => true,
  least = 0,
): Check[] {
  const known = knownOf(data, findings);
  const made = new Set(findings.map((f) => f.finding));
  const out: Check[] = [];
  for (const [finding, node] of known.model.findings)
    if (!made.has(finding) && wanted(finding)) out.push({ finding, settles: settles(known, node) });
  return out.filter((c) => c.settles > 0 && c.settles >= least).sort((a, b) => b.settles - a.settles);
}

/** What a check would tell about which cause it is, bits: the mutual information between the cause as it stands and its result. */
export function checkBits(data: CauseData, findings: readonly Finding[], finding: string): number {
  const known = knownOf(data, findings);
  if (finding === APART.symptom.finding) return ofSymptom(known.model, known.p, known.none);
  const node = known.model.findings.get(finding);
  if (!node || node.parents.length === 0) return 0;
  const touching = touchingOf(known, node).filter((i) => doubleAt(known.p, i) >= NEGLIGIBLE);
  const { qs, states } = rowsOf(known, node, touching);
  const others = 1 - touching.reduce((sum, i) => sum + doubleAt(known.p, i), 0);
  return mutual([others, ...touching.map((i) => doubleAt(known.p, i))], qs, states);
}

const kept = lastPer<readonly Finding[], Known>();
const knownOf = (data: CauseData, findings: readonly Finding[]): Known =>
  kept(
    findings,
    (before) => before.model.data === data,
    () => {
      const { model, conditioned, logs } = weigh(data, findings);
      const { causes: p, none } = sharesOf(model, logs);
      const most = Math.max(1, ...[...model.findings.values()].map((n) => n.states.length));
      return {
        model,
        conditioned,
        sums: partSums(model, conditioned),
        p,
        none,
        room: new Float64Array(most),
        doubted: doubt(p, none),
        leader: p.reduce((best, x, i) => (x > doubleAt(p, best) ? i : best), 0),
      };
    },
  );

function doubt(p: Float64Array, none: number): { causes: Float64Array; none: number } {
  const most = p.reduce((a, b) => Math.max(a, b), 0);
  const least = num(
    [...p].sort((a, b) => b - a),
    Math.min(RIVALS, p.length - 1),
  );
  const total = (power: number) => p.reduce((s, x) => s + (x >= least ? x ** power : 0), none ** power);
  let [low, high] = [0, 1];
  if (most > DOUBTED)
    for (let k = 0; k < HALVINGS; k++) {
      const middle = (low + high) / 2;
      if (most ** middle / total(middle) > DOUBTED) high = middle;
      else low = middle;
    }
  const power = most > DOUBTED ? low : 1;
  const all = total(power);
  return { causes: p.map((x) => (x >= least ? x ** power / all : 0)), none: none ** power / all };
}

type Known = {
  model: CauseModel;
  conditioned: ConditionedModel;
  sums: PartSums;
  p: Float64Array;
  none: number;
  doubted: { causes: Float64Array; none: number };
  leader: number;
  /** Room for the weights of the states of an inspection's parents, while they are worked out. */
  room: Float64Array;
};

/** Causes that expect anything else of an inspection than the others do: they touch what shows in it, or what is coupled to that. */
function touchingOf({ model, conditioned }: Known, node: FindingNode): number[] {
  const all = new Set<number>();
  for (const { mechanism } of node.parents) {
    const part = intAt(conditioned.partOf, mechanism);
    for (const m of part < 0 ? [mechanism] : nth(conditioned.parts, part).mechanisms)
      for (const i of nth(model.touchedBy, m)) all.add(i);
  }
  return [...all];
}

/** How likely each state of an inspection is under causes that nothing tells of it, then under each of some causes, row by row. */
function rowsOf(
  { model, conditioned, sums, room }: Known,
  node: FindingNode,
  causes: readonly number[],
): { qs: Float64Array; states: number } {
  const around = aroundOf(conditioned, sums, node);
  const states = nth(around.states, 0).length;
  const qs = new Float64Array((causes.length + 1) * states);
  expected(conditioned, around, room, LEAKS_ALONE, model.leaks, qs, 0);
  causes.forEach((i, k) =>
    expected(conditioned, around, room, i, nth(model.shares, i), qs, (k + 1) * states),
  );
  return { qs, states };
}

/** What an inspection would settle, bits. */
function settles(known: Known, node: FindingNode): number {
  const { p, doubted, leader } = known;
  if (node.parents.length === 0) return 0;
  const rivals = touchingOf(known, node).filter((i) => doubleAt(doubted.causes, i) > 0);
  if (rivals.length === 0) return 0;
  const { qs, states } = rowsOf(known, node, rivals);
  return near(p, node, leader) * ofLeader(rivals, qs, states, doubted, leader);
}

/** A look that could show the leader, or a cause not far behind it, comes before one that only rules others out. */
const CLOSE = 0.2;
const ELSEWHERE = 0.15;
function near(p: Float64Array, node: FindingNode, leader: number): number {
  const close = CLOSE * doubleAt(p, leader);
  const shown = node.reach.some((causes) => [...causes].some((i) => doubleAt(p, i) >= close));
  return shown ? 1 : ELSEWHERE;
}

/** Bits between whether it is the leader and what comes of an inspection. Rows: the others together, then each that touches it. */
function ofLeader(
  touching: readonly number[],
  qs: Float64Array,
  states: number,
  { causes, none }: Known['doubted'],
  leader: number,
): number {
  const mine = touching.indexOf(leader) + 1;
  const rest = new Float64Array(states);
  const lead = doubleAt(causes, leader);
  let others = none + causes.reduce((a, b) => a + b, 0);
  const add = (row: number, share: number) => {
    for (let s = 0; s < states; s++) rest[s] = doubleAt(rest, s) + share * doubleAt(qs, row * states + s);
  };
  touching.forEach((i, k) => {
    others -= doubleAt(causes, i);
    if (i !== leader) add(k + 1, doubleAt(causes, i));
  });
  add(0, Math.max(0, mine === 0 ? others - lead : others));
  const both = Float64Array.from({ length: 2 * states }, (_, k) =>
    k < states ? doubleAt(qs, mine * states + k) : doubleAt(rest, k - states) / (1 - lead),
  );
  return mutual([lead, 1 - lead], both, states);
}

/** Bits between which row it is and what comes of it. @param ps share of each row @param qs row by row: how likely each state is */
function mutual(ps: readonly number[], qs: Float64Array, states: number): number {
  let bits = 0;
  for (let s = 0; s < states; s++) {
    let mean = 0;
    for (let r = 0; r < ps.length; r++) mean += num(ps, r) * doubleAt(qs, r * states + s);
    for (let r = 0; r < ps.length; r++) {
      const q = doubleAt(qs, r * states + s);
      if (num(ps, r) > 0 && q > 0) bits += num(ps, r) * q * Math.log2(q / mean);
    }
  }
  return Math.max(0, bits);
}

function ofSymptom({ causes, data }: CauseModel, p: Float64Array, none: number): number {
  const states = Object.keys(Object.values(data.symptoms)[0] ?? {});
  const all = causes.reduce((s, c) => s + c.prior, 0);
  const of = (symptoms: string) => Float64Array.from(states, (s) => data.symptoms[symptoms]?.[s] ?? 0);
  const rows = causes.map((c) => of(c.symptoms));
  const mean = Float64Array.from(states, (_, s) =>
    causes.reduce((sum, c, i) => sum + (c.prior / all) * doubleAt(nth(rows, i), s), 0),
  );
  const qs = Float64Array.from([...rows, mean].flatMap((q) => [...q]));
  return mutual([...p, none], qs, states.length);
}

type Around = {
  /** How each part of what was laid that shows in it is summed down to the parents; parents in no part. */
  parts: readonly PartSum[];
  single: readonly number[];
  /** How likely each state of the inspection is in each state of its parents, in the order of the parts, then the single ones. */
  states: readonly Float64Array[];
};

function aroundOf(conditioned: ConditionedModel, sums: PartSums, node: FindingNode): Around {
  const mine = node.parents.map((x) => x.mechanism);
  const ids = [...new Set(mine.map((m) => intAt(conditioned.partOf, m)))].filter((k) => k >= 0);
  const keeps = ids.map((k) => nth(conditioned.parts, k).mechanisms.filter((m) => mine.includes(m)));
  const single = mine.filter((m) => intAt(conditioned.partOf, m) < 0);
  const order = [...keeps.flat(), ...single];
  const bit = mine.map((m) => order.indexOf(m));
  // the node has its parents in its own order
  const states = node.states.map((_, s) =>
    nth(
      node.states,
      bit.reduce((at, from, i) => at | (((s >> from) & 1) << i), 0),
    ),
  );
  return { parts: ids.map((k, i) => sums(k, nth(keeps, i))), single, states };
}

/** How likely each state of an inspection is, with all findings known, under a cause and the shares in which mechanisms are then at work; put into `out` from a place on. */
function expected(
  conditioned: ConditionedModel,
  { parts, single, states }: Around,
  weights: Float64Array,
  cause: number,
  shares: Float64Array,
  out: Float64Array,
  from: number,
): void {
  weights[0] = 1;
  let length = 1;
  for (const sum of parts) {
    const next = sum(cause, shares);
    // from the end, so that what is multiplied is still there
    for (let b = next.length - 1; b >= 0; b--)
      for (let a = 0; a < length; a++) weights[b * length + a] = doubleAt(weights, a) * doubleAt(next, b);
    length *= next.length;
  }
  for (const m of single) {
    const [off, on] = [1 - doubleAt(shares, m), doubleAt(shares, m) * doubleAt(conditioned.sound, m)];
    for (let a = 0; a < length; a++) {
      weights[length + a] = doubleAt(weights, a) * on;
      weights[a] = doubleAt(weights, a) * off;
    }
    length *= 2;
  }
  const count = nth(states, 0).length;
  let total = 0;
  for (let s = 0; s < length; s++) {
    const [w, of] = [doubleAt(weights, s), nth(states, s)];
    total += w;
    for (let k = 0; k < count; k++) out[from + k] = doubleAt(out, from + k) + w * doubleAt(of, k);
  }
  for (let k = 0; k < count; k++) out[from + k] = doubleAt(out, from + k) / total;
}
