import { consistent } from '@core/facts/consistent';
import type { Fact } from '@core/facts/fact';
import { type Damaged, damagedFact, inconsistentFact } from './damaged';

/** Does a record have the fields by which a fact is sorted, shown and computed with? Cheap: asked of every one. */
function isSound(f: Fact): boolean {
  const list = (x: unknown) => x === undefined || Array.isArray(x);
  return (
    typeof f === 'object' &&
    typeof f.id === 'string' &&
    typeof f.case === 'string' &&
    typeof f.key === 'string' &&
    typeof f.at === 'string' &&
    typeof f.by === 'string' &&
    typeof f.how === 'string' &&
    f.value !== undefined &&
    f.value !== null &&
    list(f.basis) &&
    list(f.files) &&
    (f.about === undefined || typeof f.about === 'string') &&
    (f.place === undefined || (typeof f.place === 'object' && typeof f.place?.on === 'string'))
  );
}

/** The facts that are what they say they are; the others are told. */
export function validFacts(facts: readonly Fact[], tell: (d: Damaged) => void): Fact[] {
  return facts.filter((f) => {
    const good = isSound(f);
    if (!good) tell(damagedFact(f));
    return good;
  });
}

/** Facts of one case that are sound and can stand together; the others are told. */
export function standingOf(facts: readonly Fact[], tell: (d: Damaged) => void): readonly Fact[] {
  const { stand, left } = consistent(validFacts(facts, tell));
  for (const l of left) tell(inconsistentFact(l));
  return stand;
}
