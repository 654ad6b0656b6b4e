import { must, nth, num } from '@core/quantity/must';
import type { Finding, FindingValue } from '@core/examination/finding';
import { normalCdf } from '@core/quantity/normal';
import { own } from '@core/quantity/own';
import { APART, type CauseData, type CauseEntry } from './cause-data';
import { logDistance, logTime } from './life';
import type { CauseModel, FindingNode } from './model';

/** A finding as it weighs in the network: how likely the inspection is under each of its states, sound first. */
export type Observed = { node: FindingNode; finding: Finding; sound: number; grades: Float64Array };
/** What weighs: on mechanisms, or on causes directly; what no band or grade of the knowledge holds, which is flagged and weighs nothing. */
export type Evidence = {
  observed: readonly Observed[];
  /** Natural log of how much likelier each cause makes it than returns at large. */
  direct: readonly { finding: Finding; nats: Float64Array }[];
  strange: readonly Finding[];
  /** Natural log by which causes are sunk; none where nothing sinks one. */
  bars?: Float64Array;
};

/**
 * Findings as evidence. Of several things of a kind what is abnormal speaks, since a cause is at work at one of them; each abnormal grade once. A number is laid in bands by its
 * uncertainty, a bracket by its share. The distance run outweighs the time run, which says no more of the cause.
 */
export function evidenceOf(model: CauseModel, findings: readonly Finding[]): Evidence {
  const strange: Finding[] = [];
  const byName = new Map<string, Observed[]>();
  for (const finding of findings) {
    const node = model.findings.get(finding.finding);
    if (!node) continue;
    const seen = observe(node, finding);
    if (!seen) strange.push(finding);
    else byName.set(finding.finding, [...(byName.get(finding.finding) ?? []), seen]);
  }
  const observed = [...byName.values()].flatMap(speaking);
  const { direct, odd } = directly(model, findings);
  const bars = barsOf(model, findings, observed);
  return { observed, direct, strange: [...strange, ...odd], ...(bars ? { bars } : {}) };
}

/** A barred cause is left this share of what it would have: it stays in the list, and does not lead. */
const BARRED = Math.log(1e-6);

function barsOf(
  { causes, data }: CauseModel,
  findings: readonly Finding[],
  observed: readonly Observed[],
): Float64Array | undefined {
  const sunk = new Set<string>();
  for (const { causes: keys, by } of data.bars ?? []) {
    const holds =
      by === 'abnormal'
        ? observed.some(isAbnormal)
        : findings.some((f) => f.finding === by.finding && f.value === by.value);
    if (holds) for (const k of keys) sunk.add(k);
  }
  return sunk.size === 0 ? undefined : Float64Array.from(causes, (c) => (sunk.has(c.key) ? BARRED : 0));
}

/** Is a value one that needs an explanation, all of it? */
export const isAbnormal = ({ sound }: Observed): boolean => sound === 0;

/** Of looks at several things the abnormal ones, each grade once; else one sound look. */
function speaking(seen: readonly Observed[]): Observed[] {
  const abnormal = seen.filter((o) => o.sound < 0.5);
  if (abnormal.length === 0) return [nth(seen, 0)];
  const byGrade = new Map(
    abnormal.map((o) => [o.grades.indexOf(Math.max(...o.grades)), o] as const).reverse(),
  );
  return [...byGrade.values()].reverse();
}

function observe(node: FindingNode, finding: Finding): Observed | undefined {
  const { value } = finding;
  const grades = new Float64Array(node.grades.length);
  if (typeof value === 'string') {
    if (node.spec.sound.includes(value)) return { node, finding, sound: 1, grades };
    const at = node.grades.indexOf(value);
    if (at < 0) return undefined;
    grades[at] = 1;
    return { node, finding, sound: 0, grades };
  }
  const { edges, grades: names } = node.spec;
  if (!edges || !names) return undefined;
  let sound = 0;
  let all = 0;
  names.forEach((name, i) => {
    const share = shareIn(value, num(edges, i), num(edges, i + 1), i === names.length - 1);
    all += share;
    const at = node.grades.indexOf(name);
    if (at < 0) sound += share;
    else grades[at] = share;
  });
  return all < 1e-6 ? undefined : { node, finding, sound, grades };
}

/** Share of a number, by its uncertainty or its bracket, that lies in a band. */
function shareIn(v: Exclude<FindingValue, string>, from: number, to: number, last: boolean): number {
  if ('from' in v) {
    const wide = v.to - v.from;
    return wide > 0 ? Math.max(0, Math.min(to, v.to) - Math.max(from, v.from)) / wide : 0;
  }
  if (v.u > 0) return normalCdf((to - v.x) / v.u) - normalCdf((from - v.x) / v.u);
  return v.x >= from && (v.x < to || (last && v.x === to)) ? 1 : 0;
}

/** What speaks of causes themselves: what was noticed, how far or how long it ran, what the fitting sheet shows. */
function directly(
  model: CauseModel,
  findings: readonly Finding[],
): { direct: Evidence['direct'][number][]; odd: Finding[] } {
  const { causes, data } = model;
  const odd: Finding[] = [];
  const known = findings.some((f) => f.finding === APART.distance.finding && typeof f.value !== 'string');
  const weigh = (finding: Finding): ((c: CauseEntry) => number) | undefined => {
    const { value } = finding;
    switch (finding.finding) {
      case APART.symptom.finding:
        return typeof value === 'string' ? noticed(data, value) : undefined;
      case APART.distance.finding:
        if (typeof value === 'string') return undefined;
        return against(model, finding, (life) => logDistance(value, life));
      case APART.time.finding:
        if (typeof value === 'string' || known) return undefined;
        return against(model, finding, (life) => logTime(value, life, data.yearly));
      case APART.sheet.finding: {
        const named = typeof value === 'string' ? own(data.sheet.names, value) : undefined;
        const nats = Math.log(data.sheet.hit / data.sheet.background);
        return named === undefined ? undefined : (c) => (c.key === named ? nats : 0);
      }
      default:
        return undefined;
    }
  };
  const direct = findings.flatMap((finding) => {
    const of = weigh(finding);
    if (!of) return [];
    const nats = Float64Array.from(causes, of);
    return nats.every(Number.isFinite) ? [{ finding, nats }] : (odd.push(finding), []);
  });
  return { direct, odd };
}

/** How much likelier each life makes a run than returns at large have it; kept of the last run, which most facts leave as it was. */
function against(
  model: CauseModel,
  { finding, value }: Finding,
  log: (life: CauseEntry['life']) => number,
): (c: CauseEntry) => number {
  const { atLarge, sure } = model.data.lives;
  const run = JSON.stringify(value);
  let known = model.runs.get(finding);
  if (known?.run !== run) model.runs.set(finding, (known = { run, base: log(atLarge), nats: new Map() }));
  const { base, nats } = known;
  return ({ life }) => {
    // many causes have one and the same life
    const key = `${life.shape} ${life.scale}`;
    let mine = nats.get(key);
    if (mine === undefined) nats.set(key, (mine = Math.log(sure * Math.exp(log(life) - base) + 1 - sure)));
    return mine;
  };
}

/** How much likelier each cause makes a symptom than returns at large, which have the causes' own mixture. */
function noticed(data: CauseData, symptom: string): ((c: CauseEntry) => number) | undefined {
  const of = (c: CauseEntry) => own(data.symptoms[c.symptoms], symptom);
  if (data.causes.length === 0 || data.causes.some((c) => of(c) === undefined)) return undefined;
  const all = data.causes.reduce((s, c) => s + c.prior, 0);
  const base = data.causes.reduce((s, c) => s + c.prior * must(of(c)), 0) / all;
  return (c) => Math.log(must(of(c)) / base);
}
