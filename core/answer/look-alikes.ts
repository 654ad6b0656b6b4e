import { oncePer } from '@core/quantity/keep';
import { APART, type CauseData } from '@core/cause/cause-data';
import { own } from '@core/quantity/own';
import type { CaseSummary } from './case-summary';
import { readSign } from './signs';

/** A settled case that is like the one in hand: what both show, what differs, and what was found. */
export type LookAlike = {
  summary: CaseSummary;
  decided: string;
  /** Signs of both, the rarest first. */
  shares: string[];
  /** Findings that the one shows otherwise than the other. */
  differs: string[];
  /** How much they have in common, bits. */
  bits: number;
};

type Grades = ReadonlyMap<string, ReadonlySet<string>>;
/** Of each finding its abnormal grades; none of one that was looked at and is sound. Read once for the same list of signs. */
const gradesOf = oncePer((signs: readonly string[]): Grades => {
  const out = new Map<string, Set<string>>();
  for (const { finding, grade } of signs.map(readSign)) {
    const grades = out.get(finding) ?? new Set();
    out.set(finding, grade === undefined ? grades : grades.add(grade));
  }
  return out;
});

/**
 * Settled cases nearest by their findings: each that both show counts by how rarely it shows at large, −log2 of its share, since what is rare tells more; what the one shows and the
 * other does not, though it was looked at, counts against it. What only one of them was looked at for counts nothing.
 */
export function lookAlikes(
  causes: CauseData,
  summaries: readonly CaseSummary[],
  mine: { id: string; signs: readonly string[] },
  most: number,
): LookAlike[] {
  const specs = new Map(causes.findings.map((f) => [f.finding, f]));
  const worth = (finding: string, grade: string): number => {
    if (finding === APART.symptom.finding) return causes.alike.noticed;
    const share = own(specs.get(finding)?.off, grade);
    return share === undefined ? 0 : -Math.log2(share);
  };
  const here = gradesOf(mine.signs);
  return summaries
    .flatMap((summary): LookAlike[] => {
      if (summary.id === mine.id || summary.settled === undefined) return [];
      const shares: { sign: string; bits: number }[] = [];
      const differs: string[] = [];
      for (const [finding, there] of gradesOf(summary.settled.signs)) {
        const grades = here.get(finding);
        if (!grades) continue;
        const both = [...there].filter((g) => grades.has(g));
        shares.push(...both.map((g) => ({ sign: `${finding}=${g}`, bits: worth(finding, g) })));
        if (both.length === 0 && there.size + grades.size > 0) differs.push(finding);
      }
      const common = shares.reduce((s, x) => s + x.bits, 0);
      // what is noticed alone makes no likeness
      if (shares.every((x) => readSign(x.sign).finding === APART.symptom.finding)) return [];
      return [
        {
          summary,
          decided: summary.settled.decided,
          shares: shares.sort((a, b) => b.bits - a.bits).map((x) => x.sign),
          differs,
          bits: common - causes.alike.differs * differs.length,
        },
      ];
    })
    .filter((x) => x.bits > 0)
    .sort((a, b) => b.bits - a.bits || (a.summary.opened < b.summary.opened ? 1 : -1))
    .slice(0, most);
}
