import { correctedBy, type Fact } from './fact';

/** Id of a fact that corrects or strikes itself by way of others; undefined when there is no such circle. Linear (Kahn 1962). */
export function circleIn(facts: readonly Fact[]): string | undefined {
  const known = new Map(facts.map((f) => [f.id, f]));
  const leads = (f: Fact) =>
    [...correctedBy(f), ...(f.strikes === undefined ? [] : [f.strikes])].filter((id) => known.has(id));
  const pointedAt = new Map<string, number>();
  for (const f of facts) for (const id of leads(f)) pointedAt.set(id, (pointedAt.get(id) ?? 0) + 1);
  const free = facts.filter((f) => !pointedAt.has(f.id));
  const left = new Set(known.keys());
  for (let f = free.pop(); f; f = free.pop()) {
    left.delete(f.id);
    for (const id of leads(f)) {
      const n = pointedAt.get(id)! - 1;
      pointedAt.set(id, n);
      if (n === 0) free.push(known.get(id)!);
    }
  }
  return left.values().next().value;
}
