import { doubleAt, nth } from '@core/quantity/must';
import type { Finding } from '@core/examination/finding';
import { APART } from './cause-data';
import { type Evidence, isAbnormal } from './evidence';
import type { CauseModel } from './model';
import type { Sighting } from './sightings';

/** A fault that was seen: what shows it, the causes that it can be, and its part in what was found. */
export type FaultSeen = {
  causes: ReadonlySet<number>;
  /** The likeliest of them. */
  leader: number;
  shownBy: readonly Sighting[];
  /** What was found beside, and it explains. */
  explains: readonly Finding[];
  /** Its share in what was found; all of them add up to one. */
  part: number;
  /** It alone explains whatever any of them does. */
  suffices: boolean;
};

/**
 * Faults that were seen, each once: the cause that most of what was seen shows comes first, then what it leaves. What was
 * found beside is shared by those that explain it; where nothing was, they have equal parts.
 */
export function faultsSeen(model: CauseModel, logs: Float64Array, evidence: Evidence): FaultSeen[] {
  let left = [...evidence.sightings];
  const found: { causes: Set<number>; leader: number; shownBy: Sighting[] }[] = [];
  const taken = new Set<number>();
  while (left.length > 0) {
    const count = new Map<number, number>();
    for (const s of left) for (const i of s.causes) if (!taken.has(i)) count.set(i, (count.get(i) ?? 0) + 1);
    if (count.size === 0) break;
    const better = (a: number, b: number) =>
      (count.get(a) ?? 0) - (count.get(b) ?? 0) ||
      doubleAt(logs, a) +
        Math.log(nth(model.causes, a).prior) -
        doubleAt(logs, b) -
        Math.log(nth(model.causes, b).prior);
    const leader = [...count.keys()].reduce((best, i) => (better(i, best) > 0 ? i : best));
    const shownBy = left.filter((s) => s.causes.has(leader));
    const causes = new Set([...count.keys()].filter((i) => shownBy.every((s) => s.causes.has(i))));
    for (const i of causes) taken.add(i);
    found.push({ causes, leader, shownBy });
    left = left.filter((s) => !s.causes.has(leader));
  }
  const seen = new Set(evidence.sightings.map((s) => s.finding));
  const beside = evidence.observed.filter((o) => isAbnormal(o) && !seen.has(o.finding));
  const mine = found.map((f) => beside.filter((o) => o.explainers.has(f.leader)));
  const explained = beside.filter((o) => mine.some((list) => list.includes(o)));
  // what several explain is shared; each has something of the whole, what was only told half as much
  const weight = mine.map((list, k) => {
    const own = nth(found, k).shownBy.some((s) => s.finding.finding !== APART.sheet.finding) ? 1 : 0.5;
    return list.reduce((s, o) => s + 1 / mine.filter((l) => l.includes(o)).length, own / found.length);
  });
  const all = weight.reduce((a, b) => a + b, 0);
  return found.map((f, k) => ({
    ...f,
    explains: nth(mine, k).map((o) => o.finding),
    part: nth(weight, k) / all,
    suffices: explained.every((o) => nth(mine, k).includes(o)),
  }));
}
