import type { CaseSummary } from './case-summary';

/** Summaries whose text holds every word typed, in the order given. */
export function findSummaries(summaries: readonly CaseSummary[], typed: string): readonly CaseSummary[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return words.length === 0 ? summaries : summaries.filter((h) => words.every((w) => h.text.includes(w)));
}
