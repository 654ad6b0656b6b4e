import type { Finding } from '@core/examination/finding';
import type { CauseData } from '@core/cause/cause-data';
import { APART } from '@core/cause/cause-data';
import { isAbnormal, type Observed } from '@core/cause/evidence';
import { weigh } from '@core/cause/weighed';

/** Findings of a case in short, by which cases are compared: "belt.edge_front=frayed", or the finding alone where it was looked at and sound. */
export function signsOf(causes: CauseData, findings: readonly Finding[]): string[] {
  const { evidence } = weigh(causes, findings);
  const noticed = evidence.direct.flatMap(({ finding }) =>
    finding.finding === APART.symptom.finding && typeof finding.value === 'string'
      ? [`${finding.finding}=${finding.value}`]
      : [],
  );
  return [...new Set([...evidence.observed.map(signOf), ...noticed])].sort();
}

function signOf(o: Observed): string {
  const { finding } = o.node.spec;
  const most = Math.max(...o.grades);
  return isAbnormal(o) || most > o.sound ? `${finding}=${o.node.grades[o.grades.indexOf(most)]}` : finding;
}

export type SignParts = { finding: string; grade: string | undefined };
export function readSign(sign: string): SignParts {
  const at = sign.indexOf('=');
  return at < 0
    ? { finding: sign, grade: undefined }
    : { finding: sign.slice(0, at), grade: sign.slice(at + 1) };
}
