import { addDays, type Day } from '@core/quantity/dates';
import type { CaseSummary } from './case-summary';
import type { LedgerRow } from './ledger';

/** What is to be done by a day: a call that was promised, or a claim that the house promised to answer. */
export type FollowUpDue = Pick<LedgerRow, 'id' | 'tag' | 'who' | 'engine' | 'claim'> & {
  kind: 'call' | 'answer';
  day: Day;
};

/** Of rows of the ledger, every call that was promised and every open claim. @param promised days in which the house answers a claim */
export function followUpsOf(
  rows: readonly LedgerRow[],
  summaries: readonly CaseSummary[],
  promised: number,
): FollowUpDue[] {
  const back = new Map(summaries.map((h) => [h.id, h.back]));
  return rows.flatMap(({ id, tag, who, engine, claim, open, kind, opened }): FollowUpDue[] => {
    const entry = { id, tag, who, engine, claim };
    const call = back.get(id);
    return [
      ...(call === undefined ? [] : [{ ...entry, kind: 'call' as const, day: call }]),
      ...(open && kind === 'claim' && opened !== ''
        ? [{ ...entry, kind: 'answer' as const, day: addDays(opened, promised) }]
        : []),
    ];
  });
}
