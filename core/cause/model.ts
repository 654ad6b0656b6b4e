import { oncePer } from '@core/quantity/keep';
import { doubleAt, must, nth } from '@core/quantity/must';
import type { CauseData, CauseEntry, FindingSpec } from './cause-data';

/** A finding as the network has it: grades in order, sound as one. */
export type FindingNode = {
  spec: FindingSpec;
  /** Abnormal grades; a finding's sound grades are one state. */
  grades: readonly string[];
  off: Float64Array;
  /** Of them those that ordinary use comes to as well. */
  ordinary: ReadonlySet<string>;
  /** Of each grade the causes that set off a mechanism showing in it. */
  reach: readonly ReadonlySet<number>[];
  /** Sum of `off`: how often it is abnormal though nothing is at work. */
  off0: number;
  /** Mechanisms that show in it, with the share of each abnormal grade while they are at work, and their sum. */
  parents: readonly Parent[];
  /** How likely each of its states is, sound first, in every state of its parents: bit i is whether the i-th is at work. */
  states: readonly Float64Array[];
};
export type Touch = { mechanism: number; p: number };
type Parent = { mechanism: number; shows: Float64Array; sum: number };
/** The knowledge laid out for computing: causes set off mechanisms, mechanisms show in findings. */
export type CauseModel = {
  data: CauseData;
  causes: readonly CauseEntry[];
  mechanisms: readonly string[];
  leaks: Float64Array;
  /** Of each cause: the mechanisms that it sets off, with the share in which they are then at work. */
  touches: readonly (readonly Touch[])[];
  /** Of each cause: the share in which every mechanism is at work. */
  shares: readonly Float64Array[];
  findings: ReadonlyMap<string, FindingNode>;
  /** Causes that touch each mechanism. */
  touchedBy: readonly (readonly number[])[];
  /** What sinks causes, by their places. */
  bars: readonly { causes: readonly number[]; by: NonNullable<CauseData['bars']>[number]['by'] }[];
  /** Of the last distance and the last time run: what each life said of it, by its figures. */
  runs: Map<string, { run: string; base: number; nats: Map<string, number> }>;
};

/** The family of causes that are no cause. */
const NO_FAULT = 'no fault found';
export const isQuiet = (c: CauseEntry): boolean => c.family === NO_FAULT;

/** The model of a set of knowledge, made once. */
export const modelOf = oncePer((data: CauseData): CauseModel => make(data));

function make(data: CauseData): CauseModel {
  const at = new Map(data.mechanisms.map((m, i) => [m.key, i]));
  const leaks = Float64Array.from(data.mechanisms, (m) => m.leak);
  const touches = data.causes.map((c) =>
    isQuiet(c)
      ? // whatever else it sets off, nothing of the drive is wrong
        data.mechanisms.map(({ key, leak }, mechanism) => ({
          mechanism,
          p: 1 - (1 - data.quiet * leak) * (1 - (c.works[key] ?? 0)),
        }))
      : Object.entries(c.works).flatMap(([key, strength]) => {
          const mechanism = at.get(key);
          return mechanism === undefined
            ? []
            : [{ mechanism, p: 1 - (1 - doubleAt(leaks, mechanism)) * (1 - strength) }];
        }),
  );
  const touchedBy = data.mechanisms.map((): number[] => []);
  touches.forEach((list, cause) => list.forEach(({ mechanism }) => nth(touchedBy, mechanism).push(cause)));
  // where nothing is wrong mechanisms are at work by themselves, and are not set off
  const setOffBy = data.mechanisms.map(({ key }) =>
    data.causes.flatMap((c, i) => ((c.works[key] ?? 0) > 0 ? [i] : [])),
  );
  const findings = new Map<string, FindingNode>();
  for (const spec of data.findings) {
    const grades = Object.keys(spec.off);
    const off = Float64Array.from(grades, (g) => must(spec.off[g]));
    const parents = data.mechanisms.flatMap((m, mechanism) => {
      const shown = m.shows[spec.finding];
      if (!shown) return [];
      const shows = Float64Array.from(grades, (g) => shown[g] ?? 0);
      return [{ mechanism, shows, sum: total(shows) }];
    });
    const own = { off, off0: total(off), parents };
    const states = Array.from({ length: 2 ** parents.length }, (_, s) => statesOf(own, s));
    const reach = grades.map(
      (_, g) => new Set(parents.flatMap((p) => (doubleAt(p.shows, g) > 0 ? nth(setOffBy, p.mechanism) : []))),
    );
    findings.set(spec.finding, {
      spec,
      grades,
      ordinary: new Set(spec.ordinary),
      reach,
      ...own,
      states,
    });
  }
  return {
    data,
    causes: data.causes,
    mechanisms: data.mechanisms.map((m) => m.key),
    leaks,
    touches,
    shares: touches.map((mine) => sharesWith(leaks, mine)),
    findings,
    touchedBy,
    bars: (data.bars ?? []).map(({ causes, by }) => ({
      causes: data.causes.flatMap((c, i) => (causes.includes(c.key) ? [i] : [])),
      by,
    })),
    runs: new Map(),
  };
}

/** Shares in which mechanisms are at work with some of them set off. */
export function sharesWith(leaks: Float64Array, mine: readonly Touch[]): Float64Array {
  const out = Float64Array.from(leaks);
  for (const t of mine) out[t.mechanism] = t.p;
  return out;
}

const total = (xs: Float64Array): number => xs.reduce((a, b) => a + b, 0);

/**
 * How likely each state of a finding is while some of its mechanisms are at work, sound first: it stays sound only if each leaves it so, abnormal its grade is shared out by what
 * each shows. @param at bit i: whether parent i is at work
 */
function statesOf(node: Pick<FindingNode, 'off' | 'off0' | 'parents'>, at: number): Float64Array {
  const out = new Float64Array(node.off.length + 1);
  let [stays, weight] = [1 - node.off0, node.off0];
  out.set(node.off, 1);
  node.parents.forEach((p, i) => {
    if (((at >> i) & 1) === 0) return;
    stays *= 1 - p.sum;
    weight += p.sum;
    for (let g = 0; g < p.shows.length; g++) out[g + 1] = doubleAt(out, g + 1) + doubleAt(p.shows, g);
  });
  for (let g = 1; g < out.length; g++) out[g] = doubleAt(out, g) * ((1 - stays) / weight);
  out[0] = stays;
  return out;
}
