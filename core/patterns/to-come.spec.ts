import { inventPopulation, STORIES, THREE_YEARS } from './invented';
import { populationOf } from './population';
import { type StoppedEntry, standingStops, stopOf } from './stopped';
import { returnsToCome } from './to-come';

describe('returns still to come of a lot', () => {
  it('hold what came of it a year later as often as they say', () => {
    let held = 0;
    const desks = 60;
    for (let seed = 100; seed < 100 + desks; seed++) {
      const size = { ...THREE_YEARS, kits: 1, lots: 20, months: 24, yearly: 0.03 };
      const later = inventPopulation(seed, '2026-12-01', size, {});
      // the same desk, as it stood a year before
      const then = populationOf(
        later.sold.filter((s) => s.month <= '2025-12'),
        later.returns.filter((r) => r.failed < '2025-12-01'),
        '2025-12-01',
      );
      const lot = later.lots[4]!;
      const to = returnsToCome(then, later.kits[0]!, lot, 12)!;
      const came = later.returns.filter((r) => r.lot === lot && r.failed >= '2025-12-01').length;
      if (came >= to.interval.from && came <= to.interval.to) held++;
    }
    expect(held / desks).toBeGreaterThan(0.85);
  });

  it('follow the lot’s own life once enough failed, and are refused where nothing did', () => {
    const x = inventPopulation(2, '2026-12-01');
    const p = populationOf(x.sold, x.returns, '2026-12-01');
    const each = Math.ceil(THREE_YEARS.lots / THREE_YEARS.kits);
    const [kit, bad, other] = [
      x.kits[STORIES.lot!.kit]!,
      x.lots[STORIES.lot!.kit * each + STORIES.lot!.lot]!,
      x.lots[STORIES.lot!.kit * each + STORIES.lot!.lot + 1]!,
    ];
    const [a, b] = [returnsToCome(p, kit, bad, 12)!, returnsToCome(p, kit, other, 12)!];
    expect(a.by).toBe('lot');
    expect(a.returns).toBeGreaterThan(1.8 * b.returns);
    expect(a.cost).toBeGreaterThan(0);
    const none = populationOf(x.sold, [], '2026-12-01');
    expect(returnsToCome(none, kit, bad, 12)).toBeUndefined();
  });
});

describe('lots that are stopped', () => {
  const entry = (lot: string, does: StoppedEntry['does'], at: string): StoppedEntry => ({
    kit: 'K',
    lot,
    does,
    at,
    by: 'x',
    reason: 'r',
  });
  it('stand so by their last entry, in whatever order entries come', () => {
    const all = [
      entry('A', 'release', '2026-03-01T00:00:00Z'),
      entry('A', 'stop', '2026-01-01T00:00:00Z'),
      entry('B', 'stop', '2026-02-01T00:00:00Z'),
      entry('B', 'release', '2026-01-15T00:00:00Z'),
    ];
    expect(standingStops(all).map((e) => e.lot)).toEqual(['B']);
    expect(stopOf(all, 'k', ' b')?.lot).toBe('B');
    expect(stopOf(all, 'K', 'A')).toBeUndefined();
    expect(stopOf(all, undefined, 'B')).toBeUndefined();
  });
});
