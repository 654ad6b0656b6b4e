import type { CheckAnswer, Look } from './checks';
import type { Examined } from './examined';
import type { Registry } from '@core/facts/observable';

/** A look on the bench that would settle something, and what it is worth. */
export type Wanted = Look & { bits: number };
/** What would settle most on this bench, by worth; and what cannot be had since a thing did not come. */
export type ToConclude = { wanted: Wanted[]; lost: { kind: string; wording: string; bits: number }[] };

/**
 * What is missing to conclude, of what is looked at on the bench: each open look once, with the worth of the best check that it is part of; checks come in the order of their bits per
 * minute. Of a thing that did not come no look is proposed; what its best one would have been worth is told.
 */
export function toConclude(
  checks: readonly CheckAnswer[],
  { things }: Examined,
  registry: Registry,
): ToConclude {
  const wanted: Wanted[] = [];
  const lost = new Map<string, { kind: string; wording: string; bits: number }>();
  for (const { bits, looks } of checks)
    for (const look of looks) {
      if (registry.get(look.key)?.station !== 'examine') continue;
      const thing = things.find(
        (t) => t.about === look.about && t.looks.some((l) => l.look.key === look.key && l.status !== 'done'),
      );
      if (!thing) continue;
      const absent = thing.came === 'not_sent';
      const before = lost.get(thing.kind);
      if (absent && (!before || before.bits < bits))
        lost.set(thing.kind, { kind: thing.kind, wording: thing.wording, bits });
      if (!absent && !wanted.some((w) => w.key === look.key && w.about === look.about))
        wanted.push({ ...look, bits });
    }
  return { wanted, lost: [...lost.values()].sort((a, b) => b.bits - a.bits) };
}
