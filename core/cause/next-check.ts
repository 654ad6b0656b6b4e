import type { Finding } from '@core/bench/finding';
import type { CauseData } from './cause-data';
import { cellsOf, type EvidenceRow } from './likelihood';
import type { Ranking } from './rank';

export type Check = { finding: string; bits: number };

/**
 * What each check not yet made would tell about the cause, in bits: the mutual information between the cause
 * (as it stands) and the check's result (Lindley 1956). A group that already spoke is left out.
 */
export function checkWorth(data: CauseData, ranking: Ranking, findings: readonly Finding[]): Check[] {
  const spoken = new Set(
    findings
      .map((f) => data.evidence.find((r) => r.finding === f.finding)?.group)
      .filter((g) => g !== undefined),
  );
  return data.evidence
    .filter((row) => !spoken.has(row.group))
    .map((row) => ({ finding: row.finding, bits: information(row, ranking) }))
    .sort((a, b) => b.bits - a.bits);
}

function information(row: EvidenceRow, ranking: Ranking): number {
  const cells = cellsOf(row);
  const given = [
    ...ranking.causes.map((c) => ({ p: c.probability, shares: cells(c.cause.key) })),
    { p: ranking.none, shares: cells(undefined) },
  ];
  let bits = 0;
  for (let k = 0; k < (given[0]?.shares.length ?? 0); k++) {
    const mean = given.reduce((s, g) => s + g.p * g.shares[k]!, 0);
    for (const g of given) {
      const q = g.shares[k]!;
      if (g.p > 0 && q > 0) bits += g.p * q * Math.log2(q / mean);
    }
  }
  return bits;
}
