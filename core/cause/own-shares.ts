import { type CauseData, causesFor, MOST_COMMON } from './cause-data';

/** A settled case as it counts: what was decided, what its drive has, how it came. */
export type Settled = { decided: string; has?: readonly string[] | undefined; arrival?: string | undefined };
/** A cause in the house's own cases: how often it was decided, how often what ships expects it among them, and its prior now and by them. */
export type OwnShare = { cause: string; seen: number; expected: number; prior: number; proposed: number };

/** Priors nearer than this, as a ratio, are left as they are. */
const SAME = 0.02;

/**
 * Priors by the house's own settled cases, shrunk towards what ships. Among the cases each cause is expected by its share of the priors where it can occur; how many times
 * commoner it is here has a gamma prior of mean 1 and weight w, so that the mean afterwards is (w + seen) / (w + expected) (gamma and Poisson are conjugate: Clayton and Kaldor 1987).
 * @param weight w: expected cases at which what was seen counts as much as what ships
 */
export function ownShares(shipped: CauseData, cases: readonly Settled[], weight: number): OwnShare[] {
  const seen = new Map<string, number>();
  const expected = new Map<string, number>();
  const add = (to: Map<string, number>, key: string, by: number) => to.set(key, (to.get(key) ?? 0) + by);
  for (const { decided, has, arrival } of cases) {
    const { causes } = causesFor(shipped, has && new Set(has), arrival);
    if (!causes.some((c) => c.key === decided)) continue;
    add(seen, decided, 1);
    const all = causes.reduce((s, c) => s + c.prior, 0);
    for (const c of causes) add(expected, c.key, c.prior / all);
  }
  return shipped.causes.flatMap(({ key, prior }): OwnShare[] => {
    const [n, e] = [seen.get(key) ?? 0, expected.get(key) ?? 0];
    const ratio = (weight + n) / (weight + e);
    if (Math.abs(ratio - 1) < SAME) return [];
    return [{ cause: key, seen: n, expected: e, prior, proposed: Math.min(MOST_COMMON, prior * ratio) }];
  });
}
