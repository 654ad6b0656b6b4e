import type { CaseSummary } from './case-summary';

/** Whether a summary's text holds every word typed. */
export function saysAll(typed: string): (s: Pick<CaseSummary, 'text'>) => boolean {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return (s) => words.every((w) => s.text.includes(w));
}

/** Summaries whose text holds every word typed, in the order given. */
export function findSummaries(summaries: readonly CaseSummary[], typed: string): readonly CaseSummary[] {
  return typed.trim() === '' ? summaries : summaries.filter(saysAll(typed));
}
