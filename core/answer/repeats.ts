import type { CaseSummary } from './case-summary';

/** Earlier cases of one workshop with one fault, and those with another fault at the same step. */
export type FaultRepeats = { fault: CaseSummary[]; step: CaseSummary[] };

/**
 * How often a workshop had this fault, or missed this step, on cases that were opened before this one.
 * @param step id of the step; one that is not known is like no other
 */
export function repeatsOf(
  summaries: readonly CaseSummary[],
  mine: { id: string; opened: string; shop: string; code: string; step: string | undefined },
): FaultRepeats {
  const found: FaultRepeats = { fault: [], step: [] };
  if (mine.shop === '') return found;
  for (const s of summaries) {
    if (s.id === mine.id || s.opened >= mine.opened || s.books?.shop !== mine.shop) continue;
    const faults = s.books.faults ?? [];
    if (faults.some((f) => f.code === mine.code)) found.fault.push(s);
    else if (mine.step !== undefined && faults.some((f) => f.step === mine.step)) found.step.push(s);
  }
  return found;
}
