import type { CauseData } from '@core/cause/cause-data';
import { type FindingNode, modelOf } from '@core/cause/model';
import type { Finding } from '@core/examination/finding';
import { nth } from '@core/quantity/must';
import { normalFrom, randomFrom } from '@core/quantity/random';
import { VIRTUAL_BENCH } from './bench';
import { type Truth, TRUTHS } from './truths';

/** A drive with the causes that it can have, in its words. */
export type PracticeDrive = { id: string; data: CauseData };
/** A return that nobody sent: what it truly has, and what was found of it. */
export type VirtualReturn = {
  drive: string;
  truth: Truth;
  findings: Finding[];
  /** Something of the cause was filed as it shows: who looks well can find it. */
  visible: boolean;
};

const INTERVAL_FINDING = 'interval.run';

/**
 * Draws a return from a truth, not from the table: what shows, what is looked at, what is misread, misnamed or never said.
 * @param complete share of the looks that are made
 */
export function drawVirtual(drives: readonly PracticeDrive[], seed: number, complete: number): VirtualReturn {
  const random = randomFrom(seed);
  const { id, data } = nth(drives, Math.floor(random() * drives.length));
  const possible = TRUTHS.filter((t) => data.causes.some((c) => c.key === t.cause));
  const truth = pickBy(possible, (t) => t.weight, random);
  const km = truth.km.median * Math.exp(truth.km.spread * normalFrom(random));
  const findings: Finding[] = [];
  let visible = false;
  const shownOn = new Set(Object.keys(truth.shows).map(findingPart));
  const inBox = new Set(
    VIRTUAL_BENCH.parts.filter((p) =>
      [VIRTUAL_BENCH.always.includes(p) || shownOn.has(p), random() < VIRTUAL_BENCH.sentAlong].some(Boolean),
    ),
  );
  const direct = new Set(data.causes.flatMap((c) => Object.keys(c.seen ?? {})));
  for (const [finding, node] of modelOf(data).findings) {
    if (node.parents.length === 0) continue;
    if (VIRTUAL_BENCH.parts.includes(findingPart(finding)) && !inBox.has(findingPart(finding))) continue;
    const shown = shownGrade(finding, node, truth, km, random);
    const looked = random() < complete * (1 - VIRTUAL_BENCH.passed);
    const grade = misread(shown, node, direct.has(finding), random);
    if (!looked) continue;
    if (shown !== undefined && grade === shown) visible = true;
    findings.push(filed(finding, node, grade));
  }
  if (random() >= VIRTUAL_BENCH.unsaid) {
    const noticed = pickBy(Object.entries(truth.noticed), ([, w]) => w, random)[0];
    findings.push({ finding: 'symptom', value: noticed, facts: ['symptom'] });
  }
  const told = km * (1 + VIRTUAL_BENCH.odometer * normalFrom(random));
  if (random() >= VIRTUAL_BENCH.noDistance)
    findings.push({
      finding: 'distance.run',
      value: { x: Math.max(1, told), u: Math.max(500, VIRTUAL_BENCH.odometer * km) },
      facts: ['km'],
    });
  return { drive: id, truth, findings, visible };
}

/** Grade that a part truly shows; undefined for sound. */
export function shownGrade(
  finding: string,
  node: FindingNode,
  truth: Truth,
  km: number,
  random: () => number,
): string | undefined {
  if (finding === INTERVAL_FINDING) return km > VIRTUAL_BENCH.interval ? node.grades[0] : undefined;
  let left = random();
  for (const [grade, share] of Object.entries(truth.shows[finding] ?? {}))
    if (node.grades.includes(grade) && (left -= share) < 0) return grade;
  return undefined;
}

/** Kind of part that a finding is of. */
export const findingPart = (finding: string): string => finding.split('.')[0] ?? '';

/** What is filed of it. */
function misread(
  shown: string | undefined,
  node: FindingNode,
  direct: boolean,
  random: () => number,
): string | undefined {
  const [luck, other] = [random(), Math.floor(random() * node.grades.length)];
  if (shown === undefined) return !direct && luck < VIRTUAL_BENCH.imagined ? node.grades[other] : undefined;
  if (luck < VIRTUAL_BENCH.overlooked) return undefined;
  return luck < VIRTUAL_BENCH.overlooked + VIRTUAL_BENCH.misnamed ? node.grades[other] : shown;
}

function filed(finding: string, node: FindingNode, grade: string | undefined): Finding {
  const named = grade ?? nth(node.spec.sound, 0);
  const band = node.spec.grades?.indexOf(named) ?? -1;
  const edges = node.spec.edges;
  const value = band >= 0 && edges ? { from: nth(edges, band), to: nth(edges, band + 1) } : named;
  return { finding, value, facts: [finding] };
}

/** One of all, each as often as it weighs. */
export function pickBy<T>(all: readonly T[], weight: (x: T) => number, random: () => number): T {
  let left = random() * all.reduce((s, x) => s + weight(x), 0);
  return all.find((x) => (left -= weight(x)) < 0) ?? nth(all, all.length - 1);
}
