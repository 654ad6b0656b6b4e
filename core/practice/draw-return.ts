import type { CauseData } from '@core/cause/cause-data';
import { type FindingNode, modelOf } from '@core/cause/model';
import type { Finding } from '@core/examination/finding';
import { nth } from '@core/quantity/must';
import { normalFrom, randomFrom } from '@core/quantity/random';
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

/** What goes wrong between the part and the file. */
const ERRORS = {
  /** A look is passed over though the box is complete. */
  passed: 0.05,
  /** What shows is taken for sound, or for another grade. */
  overlooked: 0.06,
  misnamed: 0.04,
  /** A sound look is filed as abnormal: handling after the removal, a mistaken look. What shows a cause itself is not imagined. */
  imagined: 0.005,
  /** Nobody says what was noticed; nobody knows the distance. */
  unsaid: 0.1,
  noDistance: 0.15,
  /** Spread of a reported distance, of 1. */
  odometer: 0.03,
};
/** Parts that a box may hold, by the word in front of what is looked at; a box holds what its cause shows on, belt or chain and tensioner, and of the others some. */
const PARTS = new Set([
  'belt',
  'bolt',
  'cassette',
  'chain',
  'damper',
  'guide',
  'phaser',
  'pump',
  'ring',
  'roller',
  'sprocket',
  'tensioner',
]);
const ALWAYS = new Set(['belt', 'chain', 'tensioner']);
const SENT_ALONG = 0.4;
/** Where the catalogue's interval ends, km: whether it was passed follows from the distance. */
const INTERVAL = 120_000;
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
  const shownOn = new Set(Object.keys(truth.shows).map(partOf));
  const inBox = new Set(
    [...PARTS].filter((p) => [ALWAYS.has(p) || shownOn.has(p), random() < SENT_ALONG].some(Boolean)),
  );
  const direct = new Set(data.causes.flatMap((c) => Object.keys(c.seen ?? {})));
  for (const [finding, node] of modelOf(data).findings) {
    if (node.parents.length === 0) continue;
    if (PARTS.has(partOf(finding)) && !inBox.has(partOf(finding))) continue;
    const shown = shownGrade(finding, node, truth, km, random);
    const looked = random() < complete * (1 - ERRORS.passed);
    const grade = misread(shown, node, direct.has(finding), random);
    if (!looked) continue;
    if (shown !== undefined && grade === shown) visible = true;
    findings.push(filed(finding, node, grade));
  }
  if (random() >= ERRORS.unsaid) {
    const noticed = pickBy(Object.entries(truth.noticed), ([, w]) => w, random)[0];
    findings.push({ finding: 'symptom', value: noticed, facts: ['symptom'] });
  }
  const told = km * (1 + ERRORS.odometer * normalFrom(random));
  if (random() >= ERRORS.noDistance)
    findings.push({
      finding: 'distance.run',
      value: { x: Math.max(1, told), u: Math.max(500, ERRORS.odometer * km) },
      facts: ['km'],
    });
  return { drive: id, truth, findings, visible };
}

/** Grade that a part truly shows; undefined for sound. */
function shownGrade(
  finding: string,
  node: FindingNode,
  truth: Truth,
  km: number,
  random: () => number,
): string | undefined {
  if (finding === INTERVAL_FINDING) return km > INTERVAL ? node.grades[0] : undefined;
  let left = random();
  for (const [grade, share] of Object.entries(truth.shows[finding] ?? {}))
    if (node.grades.includes(grade) && (left -= share) < 0) return grade;
  return undefined;
}

const partOf = (finding: string): string => finding.split('.')[0] ?? '';

/** What is filed of it. */
function misread(
  shown: string | undefined,
  node: FindingNode,
  direct: boolean,
  random: () => number,
): string | undefined {
  const [luck, other] = [random(), Math.floor(random() * node.grades.length)];
  if (shown === undefined) return !direct && luck < ERRORS.imagined ? node.grades[other] : undefined;
  if (luck < ERRORS.overlooked) return undefined;
  return luck < ERRORS.overlooked + ERRORS.misnamed ? node.grades[other] : shown;
}

function filed(finding: string, node: FindingNode, grade: string | undefined): Finding {
  const named = grade ?? nth(node.spec.sound, 0);
  const band = node.spec.grades?.indexOf(named) ?? -1;
  const edges = node.spec.edges;
  const value = band >= 0 && edges ? { from: nth(edges, band), to: nth(edges, band + 1) } : named;
  return { finding, value, facts: [finding] };
}

function pickBy<T>(all: readonly T[], weight: (x: T) => number, random: () => number): T {
  let left = random() * all.reduce((s, x) => s + weight(x), 0);
  return all.find((x) => (left -= weight(x)) < 0) ?? nth(all, all.length - 1);
}
