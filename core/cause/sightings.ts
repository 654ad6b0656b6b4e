import type { Finding } from '@core/examination/finding';
import { own } from '@core/quantity/own';
import { APART } from './cause-data';
import type { CauseModel } from './model';

/**
 * What shows a cause itself: a pin still in, a tab beside its slot, a step said to have been left out. `causes`: places of
 * the causes that it shows; `sure`: how surely it is that grade; `grade`: of several things the one that shows it.
 */
export type Sighting = { finding: Finding; grade: string; causes: ReadonlySet<number>; sure: number };

/** A reading that is less surely of a grade shows nothing itself. */
const LEAST_SURE = 0.9;

/** Is a reading surely of a grade, as far as that settles anything? */
export const isSurely = (value: Finding['value'], grade: string): boolean =>
  likely(value).some(([g, p]) => g === grade && p >= LEAST_SURE);

/** Everything among the findings that shows a cause of this drive itself; each thing that was seen once. */
export function sightingsOf(model: CauseModel, findings: readonly Finding[]): Sighting[] {
  if (!model.data.judgement) return [];
  const out = new Map<string, Sighting>();
  for (const finding of findings)
    for (const [grade, read] of likely(finding.value)) {
      const sure = read * leftOf(model, finding.finding, findings);
      const causes = claimants(model, finding.finding, grade);
      const key = `${finding.finding} ${grade}`;
      if (sure >= LEAST_SURE && causes.size > 0 && !out.has(key))
        out.set(key, { finding, grade, causes, sure });
    }
  return [...out.values()];
}

/** How much of a look is left by what was done to its part since it came off; the rest says nothing. */
export const leftOf = ({ data }: CauseModel, finding: string, findings: readonly Finding[]): number =>
  (data.screens ?? []).reduce(
    (left, s) =>
      s.findings.includes(finding) && findings.some((f) => f.finding === s.by[0] && f.value === s.by[1])
        ? Math.min(left, s.left)
        : left,
    1,
  );

function likely(value: Finding['value']): [string, number][] {
  if (typeof value === 'string') return [[value, 1]];
  if (!('grades' in value)) return [];
  const all = Object.values(value.grades).reduce((a, b) => a + b, 0);
  return Object.entries(value.grades).map(([g, p]) => [g, p / all]);
}

/** Causes that a grade of a finding shows. */
function claimants({ causes, data }: CauseModel, finding: string, grade: string): ReadonlySet<number> {
  const named = finding === APART.sheet.finding ? (own(data.sheet.names, grade) ?? []) : [];
  const out = new Set<number>();
  causes.forEach((c, i) => {
    if (named.includes(c.key) || (own(c.seen ?? {}, finding)?.includes(grade) ?? false)) out.add(i);
  });
  return out;
}
