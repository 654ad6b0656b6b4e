import type { CaseSummary } from './case-summary';

const plain = (claim: string): string => claim.toLowerCase().replace(/[\s._/-]+/g, '');

/** Other cases with the number of this claim, however it is parted or written, in the order given: paid twice is paid once too often. */
export function twinsOf(summaries: readonly CaseSummary[], id: string, claim: string): CaseSummary[] {
  const wanted = plain(claim);
  if (wanted === '') return [];
  return summaries.filter((s) => s.id !== id && plain(s.books?.claim ?? '') === wanted);
}
