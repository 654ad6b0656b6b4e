import type { CaseSummary } from '@core/answer/case-summary';
import type { Return } from './population';

/** Units that came back, from the summaries of their cases alone: returns and claims that name a kit. */
export function returnsOf(summaries: readonly CaseSummary[]): Return[] {
  return summaries.flatMap(({ id, tag, run, books }): Return[] => {
    if (!run || !books || books.kit === '') return [];
    return [
      {
        id,
        tag,
        kit: books.kit,
        lot: run.lot,
        shop: run.shop,
        fitted: run.fitted,
        failed: run.failed,
        ...(run.km === undefined ? {} : { km: run.km }),
        cause: books.cause,
        faults: books.faults ?? [],
        cost: books.ours ?? books.asked,
        ...(run.lost ? { missing: run.lost } : {}),
      },
    ];
  });
}
