import { must } from '@core/quantity/must';
import type { CauseData } from '@core/cause/cause-data';
import type { Ranking } from '@core/cause/rank';
import { SHIPPED_POLICY, type Policy } from '@core/policy/policy';
import type { Fitted } from '@core/fitting/fitted';
import type { Sheet, SheetStep } from '@core/fitting/sheet';

/** A step that could have caused what is seen, by which faults, how likely, and what is open about it. */
export type Suspect = {
  step: SheetStep;
  codes: string[];
  /** Causes that it would be, by key. */
  causes: string[];
  /** Share of the weight that falls on this step; suspects are sorted by it. */
  share: number;
  state: 'shown' | 'confirmed' | 'open';
};

/**
 * Steps that could have led to what is seen, most likely first: the share of each cause is dealt out over the steps whose
 * fault it is, less to those that were confirmed (all of them confirmed, some of it falls on none), more to those that the
 * sheet itself shows. Causes that no finding speaks for yet keep their prior.
 */
export function suspects(
  sheet: Sheet,
  ranking: Ranking,
  causes: Pick<CauseData, 'sheet'>,
  fitted: Fitted | undefined,
  left: Policy['suspicion'] = SHIPPED_POLICY.suspicion,
): Suspect[] {
  const { names } = causes.sheet;
  const likely = new Map(ranking.causes.map((c) => [c.cause.key, c.probability]));
  const shown = new Set(fitted?.faults.map((f) => f.step));
  const found = sheet.steps.flatMap((step): (Suspect & { keys: string[] })[] => {
    const codes = [...new Set(Object.values(step.faults ?? {}))];
    const of = (code: string) => (names[code] ?? []).filter((k) => likely.has(k));
    const keys = [...new Set(codes.flatMap(of))];
    if (keys.length === 0) return [];
    const said = fitted?.said.get(step.id)?.state;
    const state = shown.has(step.id) ? 'shown' : said === 'done' ? 'confirmed' : 'open';
    return [{ step, codes: codes.filter((c) => of(c).length > 0), causes: keys, keys, share: 0, state }];
  });
  const total = new Map<string, number>();
  for (const s of found) for (const k of s.keys) total.set(k, (total.get(k) ?? 0) + left[s.state]);
  return found
    .map(({ keys, ...s }) => ({
      ...s,
      share: keys.reduce(
        (sum, k) => sum + (must(likely.get(k)) * left[s.state]) / Math.max(1, must(total.get(k))),
        0,
      ),
    }))
    .sort((a, b) => b.share - a.share || a.step.number - b.step.number);
}
