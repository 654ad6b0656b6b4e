import type { Catalogue } from '@core/catalogue/find-records';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { type Answers, answersFor } from './answers';

/** What an answer says with and without one fact. */
export type Move =
  | { what: 'variants'; without: string[]; with: string[] }
  | { what: 'kit'; kit: string; without: string; with: string }
  | { what: 'shown'; without: string; with: string }
  | { what: 'cause'; cause: string; without: number; with: number }
  | { what: 'terms'; without: string; with: string };

/** The answers that a fact moves: those of the whole case against those of the case without it. */
export function movedBy(cat: Catalogue, facts: readonly Fact[], fact: Fact, full?: Answers): Move[] {
  const withIt = full ?? answersFor(cat, reduce(facts));
  const withoutIt = answersFor(cat, reduce(facts.filter((f) => f.id !== fact.id)));
  const moves: Move[] = [];
  const names = (a: Answers) => a.identification?.possible.map((v) => v.name) ?? [];
  if (names(withIt).join() !== names(withoutIt).join())
    moves.push({ what: 'variants', without: names(withoutIt), with: names(withIt) });
  const verdict = (a: Answers, kit: string) => a.kits.find((k) => k.kit.number === kit)?.verdict ?? 'unknown';
  for (const kit of new Set([...withIt.kits, ...withoutIt.kits].map((k) => k.kit.number))) {
    const [a, b] = [verdict(withoutIt, kit), verdict(withIt, kit)];
    if (a !== b) moves.push({ what: 'kit', kit, without: a, with: b });
  }
  const [shownA, shownB] = [withoutIt.drive?.shown ?? 'unknown', withIt.drive?.shown ?? 'unknown'];
  if (shownA !== shownB) moves.push({ what: 'shown', without: shownA, with: shownB });
  for (const c of withIt.ranking.causes) {
    const before = withoutIt.ranking.causes.find((x) => x.cause.key === c.cause.key)?.probability ?? 0;
    if (Math.abs(before - c.probability) >= 0.01)
      moves.push({ what: 'cause', cause: c.cause.key, without: before, with: c.probability });
  }
  const [termsA, termsB] = [withoutIt.terms?.verdict ?? 'unknown', withIt.terms?.verdict ?? 'unknown'];
  if (termsA !== termsB) moves.push({ what: 'terms', without: termsA, with: termsB });
  return moves;
}
