import { doubleAt, nth, num } from '@core/quantity/must';
import type { Finding, Grades, NumberFound } from '@core/examination/finding';
import { normalCdf } from '@core/quantity/normal';
import { type Direct, directEvidence } from './direct';
import type { CauseModel, FindingNode } from './model';
import { isSurely, leftOf, type Sighting, sightingsOf } from './sightings';

/** A finding as it weighs in the network: how likely the inspection is under each of its states, sound first. */
export type Observed = {
  node: FindingNode;
  finding: Finding;
  sound: number;
  grades: Float64Array;
  /** Only a fault explains it, and not use as well. */
  faulty: boolean;
  /** Causes that set off a mechanism which shows it. */
  explainers: ReadonlySet<number>;
};
/** What weighs: on mechanisms, or on causes directly; what no band or grade of the knowledge holds, which is flagged and weighs nothing. */
export type Evidence = {
  observed: readonly Observed[];
  direct: readonly Direct[];
  sightings: readonly Sighting[];
  strange: readonly Finding[];
  /** What says again what another finding says, which counts. */
  again: readonly { finding: Finding; of: Finding }[];
  /** All of it, word for word. */
  findings: readonly Finding[];
};

/**
 * Findings as evidence. Of several things of a kind what is abnormal speaks, since a cause is at work at one of them; each abnormal grade once. A number is laid in bands by its
 * uncertainty, a bracket by its share, what may be of several grades by how likely each is. The distance run outweighs the time run, which says no more of the cause.
 */
export function evidenceOf(model: CauseModel, findings: readonly Finding[]): Evidence {
  const strange: Finding[] = [];
  const byName = new Map<string, Observed[]>();
  for (const finding of findings) {
    const node = model.findings.get(finding.finding);
    if (!node) continue;
    const sharp = observe(node, finding);
    const seen = sharp && screened(model, sharp, findings);
    if (!seen) strange.push(finding);
    else byName.set(finding.finding, [...(byName.get(finding.finding) ?? []), seen]);
  }
  const all = [...byName.values()].flatMap(speaking);
  const again = saidAgain(model, all);
  const repeats = new Set(again.map((a) => a.finding));
  const observed = again.length === 0 ? all : all.filter((o) => !repeats.has(o.finding));
  const { direct, odd } = directEvidence(model, findings);
  return {
    observed,
    direct,
    sightings: sightingsOf(model, findings),
    strange: [...strange, ...odd],
    again,
    findings,
  };
}

/** Findings of a group that says one and the same: but for the first of those that were filed. */
function saidAgain({ data }: CauseModel, observed: readonly Observed[]): Evidence['again'][number][] {
  return (data.same ?? []).flatMap((group) => {
    const said = group.flatMap(([finding, grade]) =>
      observed.filter((o) => o.finding.finding === finding && o.finding.value === grade),
    );
    const [first, ...rest] = said;
    return first === undefined
      ? []
      : rest
          .filter((o) => o.finding.finding !== first.finding.finding)
          .map((o) => ({ finding: o.finding, of: first.finding }));
  });
}

/** A barred cause is left this share of what it would have: it stays in the list, and does not lead. */
const BARRED = Math.log(1e-6);

/** Natural log by which causes are sunk by what denies them; none where nothing does. */
export function barsOf(
  { causes, bars }: CauseModel,
  { findings, observed }: Pick<Evidence, 'findings' | 'observed'>,
): Float64Array | undefined {
  const sunk = new Set<number>();
  const faulty = observed.filter((o) => o.faulty);
  for (const { causes: mine, by } of bars)
    if (by === 'abnormal') {
      for (const i of mine) if (faulty.some((o) => !o.explainers.has(i))) sunk.add(i);
    } else if (denied(findings, by)) for (const i of mine) sunk.add(i);
  return sunk.size === 0 ? undefined : Float64Array.from(causes, (_, i) => (sunk.has(i) ? BARRED : 0));
}

/** Looked at, and nothing but this was found: of several things one that shows otherwise denies nothing. */
function denied(findings: readonly Finding[], by: { finding: string; value: string }): boolean {
  const looks = findings.filter((f) => f.finding === by.finding);
  return looks.length > 0 && looks.every((f) => isSurely(f.value, by.value));
}

/** A look at what was changed since it came off: what is left of it, the rest says nothing. */
function screened(model: CauseModel, o: Observed, findings: readonly Finding[]): Observed {
  const left = leftOf(model, o.finding.finding, findings);
  if (left === 1) return o;
  return observedAs(
    o.node,
    o.finding,
    left * o.sound + 1 - left,
    o.grades.map((g) => left * g + 1 - left),
  );
}

/** Is a value one that needs an explanation, all of it? */
export const isAbnormal = ({ sound }: Observed): boolean => sound === 0;

/** A finding as it weighs, with what explains it. */
function observedAs(node: FindingNode, finding: Finding, sound: number, grades: Float64Array): Observed {
  const there = node.grades.flatMap((grade, g) => (doubleAt(grades, g) > 0 ? [{ grade, g }] : []));
  const [first, ...more] = there;
  return {
    node,
    finding,
    sound,
    grades,
    faulty: sound === 0 && there.some(({ grade }) => !node.ordinary.has(grade)),
    explainers:
      first === undefined
        ? new Set()
        : more.length === 0
          ? nth(node.reach, first.g)
          : new Set(there.flatMap(({ g }) => [...nth(node.reach, g)])),
  };
}

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
  if (typeof value === 'string') return byGrades(node, finding, { grades: { [value]: 1 } });
  if ('grades' in value) return byGrades(node, finding, value);
  const { edges, grades: names } = node.spec;
  if (!edges || !names) return undefined;
  const shares = names.map(
    (name, i) => [name, shareIn(value, num(edges, i), num(edges, i + 1), i === names.length - 1)] as const,
  );
  const grades: Record<string, number> = {};
  for (const [name, share] of shares) grades[name] = (grades[name] ?? 0) + share;
  return shares.reduce((s, [, share]) => s + share, 0) < 1e-6
    ? undefined
    : byGrades(node, finding, { grades });
}

/** Grades by how likely the reading is under each; undefined where the knowledge has none of one of them. */
function byGrades(node: FindingNode, finding: Finding, value: Grades): Observed | undefined {
  const grades = new Float64Array(node.grades.length);
  let sound = 0;
  for (const [name, p] of Object.entries(value.grades)) {
    const at = node.grades.indexOf(name);
    // several sound grades are one state: the likeliest of them says how likely it is
    if (node.spec.sound.includes(name)) sound = node.spec.edges ? sound + p : Math.max(sound, p);
    else if (at >= 0) grades[at] = p;
    else return undefined;
  }
  return observedAs(node, finding, sound, grades);
}

/** Share of a number, by its uncertainty or its bracket, that lies in a band. */
function shareIn(v: NumberFound, from: number, to: number, last: boolean): number {
  if ('from' in v) {
    const wide = v.to - v.from;
    return wide > 0 ? Math.max(0, Math.min(to, v.to) - Math.max(from, v.from)) / wide : 0;
  }
  if (v.u > 0) return normalCdf((to - v.x) / v.u) - normalCdf((from - v.x) / v.u);
  return v.x >= from && (v.x < to || (last && v.x === to)) ? 1 : 0;
}
