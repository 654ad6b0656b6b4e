import { type CaseSummary, summaryOf } from '@core/answer/case-summary';
import { knowledgeDigest, type World, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import type { Fact, FileRef } from '@core/facts/fact';
import { demoPack } from './catalogue';

/** What hangs on the knowledge of causes: reports and decisions among the facts, and how each case stands on the rack. */
export type Judged = {
  format: 'hollow-sprocket-demo-judged';
  /** Digest of that knowledge: where it is today's, nothing has to be judged again. */
  knowledge: string;
  facts: readonly Fact[];
  summaries: readonly CaseSummary[];
};

/** Facts that knowledge computes, or that stand on what it says. */
const judged = (f: Fact): boolean => f.key.startsWith('report.') || f.key.startsWith('cause.');

/**
 * The demo's files as they ship: what was told, seen and measured, and beside it, in a file of its own, what the knowledge
 * makes of it. A change of the knowledge changes that one file.
 */
export function shipped<T extends { facts: readonly Fact[]; files?: readonly FileRef[] }, K extends string>(
  parts: Readonly<Record<K, T>>,
): Record<K, T> & { judged: Judged } {
  const all = Object.values<T>(parts).flatMap((p) => p.facts);
  const entries = Object.entries<T>(parts).map(([name, p]) => [
    name,
    { ...p, facts: p.facts.filter((f) => !judged(f)) },
  ]);
  return {
    ...(Object.fromEntries(entries) as Record<K, T>),
    judged: judgedOf(all, worldOf(catalogueOf(demoPack()))),
  };
}

/** What the knowledge of a world makes of facts. */
export function judgedOf(facts: readonly Fact[], world: World): Judged {
  const byCase = new Map<string, Fact[]>();
  for (const f of facts) byCase.set(f.case, [...(byCase.get(f.case) ?? []), f]);
  return {
    format: 'hollow-sprocket-demo-judged',
    knowledge: knowledgeDigest(),
    facts: facts.filter(judged),
    summaries: [...byCase].map(([id, own]) => summaryOf(id, own, world)),
  };
}
