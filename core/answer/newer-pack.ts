import type { Catalogue } from '@core/catalogue/find-records';
import type { State } from '@core/facts/state';
import { type Answers, answersFor } from './answers';

/** What another pack would answer otherwise: designs left, and verdicts of kits. Empty when it agrees. */
export function packDifferences(here: Answers, other: Catalogue, state: State): string[] {
  const there = answersFor(other, state);
  const out: string[] = [];
  const designs = (a: Answers) => (a.identification?.possible ?? []).map((v) => v.name).join(', ') || 'none';
  if (designs(here) !== designs(there)) out.push(`designs: ${designs(here)} → ${designs(there)}`);
  const verdict = (a: Answers, kit: string) =>
    a.kits.find((k) => k.kit.number === kit)?.verdict.replace('_', ' ') ?? 'not listed';
  for (const kit of new Set([...here.kits, ...there.kits].map((k) => k.kit.number))) {
    if (verdict(here, kit) !== verdict(there, kit))
      out.push(`${kit}: ${verdict(here, kit)} → ${verdict(there, kit)}`);
  }
  return out;
}
