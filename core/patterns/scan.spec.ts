import { expectedByLot, livesOf } from './expected';
import { inventPopulation, STORIES, THREE_YEARS } from './invented';
import { monthOf, populationOf, type Return, type SoldRow } from './population';
import { readingsOf } from './readings';
import { faultFigures, isAlarm, lotFigures, lotWithout, scanAll } from './scan';

const TODAY = '2026-12-01';
const invented = (seed: number, size = THREE_YEARS, planted = STORIES) => {
  const x = inventPopulation(seed, TODAY, size, planted);
  return { ...x, population: populationOf(x.sold, x.returns, TODAY) };
};
const aReturn = (over: Partial<Return>): Return => ({
  id: 'x',
  tag: '1',
  kit: 'K',
  lot: 'A',
  shop: 'S',
  fitted: '2026-01-10',
  failed: '2026-06-10',
  cause: '',
  faults: [],
  cost: 0,
  ...over,
});

describe('the lot of one case', () => {
  it('is held against the others without that case, and not at all where it is the only one', () => {
    const sold = (lot: string): SoldRow => ({ kit: 'K', lot, month: '2026-01', market: '', sold: 100 });
    const returns = ['a', 'b', 'c'].map((id) => aReturn({ id }));
    const p = populationOf([sold('A'), sold('B')], [...returns, aReturn({ id: 'd', lot: 'B' })], TODAY);
    expect(lotWithout(p, ' k', 'a', 'none')!.returns).toBe(3);
    const without = lotWithout(p, 'K', 'A', 'b')!;
    expect([without.returns, without.others.returns, without.cases.map((c) => c.id)]).toEqual([
      2,
      1,
      ['a', 'c'],
    ]);
    // two lots of the same size and age: half of three each
    expect(without.expected).toBeCloseTo(1.5, 9);
    expect(lotWithout(p, 'K', 'X', 'b')).toBeUndefined();
    expect(lotWithout(populationOf([sold('A')], returns, TODAY), 'K', 'A', 'b')).toBeUndefined();
  });
});

describe('a population looked through for patterns', () => {
  const story = invented(2);
  const scan = scanAll(story.population);

  it('finds the three stories that were planted by name, and nothing else above the line', () => {
    const lot =
      story.lots[STORIES.lot!.kit * Math.ceil(THREE_YEARS.lots / THREE_YEARS.kits) + STORIES.lot!.lot];
    expect(scan.lots.filter(isAlarm).map((r) => [r.kit, r.lot])).toEqual([
      [story.kits[STORIES.lot!.kit]!, lot!],
    ]);
    expect(scan.shops.filter(isAlarm).map((r) => [r.shop, r.code])).toEqual([
      [story.shops[STORIES.shop!.shop], STORIES.shop!.code],
    ]);
    expect(scan.steps.filter(isAlarm).map((r) => [r.kit, r.code, r.step])).toEqual([
      [story.kits[STORIES.step!.kit], STORIES.step!.code, STORIES.step!.step],
    ]);
    // what was planted lies within what is told of it
    const { interval } = lotFigures(scan.lots[0]!);
    expect(interval.from).toBeLessThan(3);
    expect(interval.to).toBeGreaterThan(3);
    const shop = faultFigures(scan.shops[0]!);
    expect(shop.interval.from).toBeLessThan(0.57);
    expect(shop.interval.to).toBeGreaterThan(0.53);
    expect(shop.shrunk.ratio).toBeLessThan(
      shop.share / ((scan.shops[0]!.faults + scan.shops[0]!.others.faults) / scan.returns),
    );
  });

  it('reads each signal as what it is: one lot, one workshop, one design with its sheet', () => {
    const [lot, shop, step] = [scan.lots[0]!, scan.shops[0]!, scan.steps[0]!];
    const first = (about: Parameters<typeof readingsOf>[1]) => readingsOf(story.population, about);
    const asLot = first({ kit: lot.kit });
    expect([asLot[0]!.kind, asLot[0]!.name]).toEqual(['lot', lot.lot]);
    expect(asLot[0]!.seen).toBe(lot.returns);
    const asShop = first(shop);
    expect([asShop[0]!.kind, asShop[0]!.name]).toEqual(['shop', shop.shop!]);
    const asDesign = first(step);
    expect([asDesign[0]!.kind, asDesign[0]!.name]).toEqual(['design', step.kit!]);
    for (const all of [asLot, asShop, asDesign]) {
      expect(all.reduce((s, r) => s + r.share, 0)).toBeCloseTo(1, 12);
      expect(all[0]!.share).toBeGreaterThan(0.9);
    }
  });

  it('raises an alarm on at most one desk of twenty where nothing is planted, of a thousand', () => {
    const size = { kits: 4, lots: 80, months: 18, perLot: 60, yearly: 0.06, shops: 24 };
    let alarms = 0;
    for (let desk = 0; desk < 1000; desk++) {
      const s = scanAll(invented(1000 + desk, size, {}).population);
      if ([...s.lots, ...s.shops, ...s.steps].some(isAlarm)) alarms++;
    }
    expect(alarms).toBeLessThanOrEqual(50);
  });

  it('looks at young lots by themselves: the same excess stands out sooner in them, and by nothing but when they were sold', () => {
    const size = { kits: 10, lots: 600, months: 36, perLot: 400, yearly: 0.3, shops: 20 };
    const planted = { lot: { kit: 3, lot: 57, times: 3 } };
    let found = 0;
    for (let seed = 1; seed <= 8; seed++) {
      const { population, lots, kits } = invented(seed, size, planted);
      const s = scanAll(population);
      const young = s.lots.filter((r) => r.young);
      expect(young.length).toBeLessThan(s.lots.length / 5);
      const bad = s.lots.find((r) => r.kit === kits[3] && r.lot === lots[3 * 60 + 57])!;
      expect(bad.young).toBeTrue();
      if (isAlarm(bad)) found++;
      // never worse than half of the alarms over all lots together would be
      expect(bad.q).toBeLessThanOrEqual(Math.max(2 * bad.p * young.length, Number.MIN_VALUE));
    }
    expect(found).toBeGreaterThanOrEqual(6);
  });

  it('expects of each lot what its age lets it have, and of all together what came back', () => {
    const lots = story.population.lots.filter((l) => l.kit === story.kits[20]);
    const expected = expectedByLot(lots, story.population);
    const sum = expected.reduce((s, e) => s + e, 0);
    expect(sum).toBeCloseTo(
      lots.reduce((s, l) => s + l.returns.length, 0),
      6,
    );
    // by hand, on two lots: one ran a month longer, and all came back in that month
    const sold: SoldRow[] = [
      { kit: 'K', lot: 'A', month: '2026-09', market: '', sold: 100 },
      { kit: 'K', lot: 'B', month: '2026-11', market: '', sold: 300 },
    ];
    const p = populationOf(sold, [aReturn({ fitted: '2026-10-03', failed: '2026-11-20' })], '2026-12-01', {
      shelfMonths: 1,
      kmPerMonth: 1000,
    });
    // A ran through its ages 0 and 1 since October; B began today. The return is of age 1, which only A has.
    expect(expectedByLot(p.lots, p)).toEqual([1, 0]);
  });

  it('takes lives apart into months: every unit once, back or still running', () => {
    const lots = story.population.lots.filter((l) => l.kit === story.kits[3]);
    const rows = livesOf(lots, story.population);
    const back = rows.filter((r) => r.to < Infinity).reduce((s, r) => s + r.n!, 0);
    const running = rows.filter((r) => r.to === Infinity).reduce((s, r) => s + r.n!, 0);
    expect(back).toBe(lots.reduce((s, l) => s + l.returns.length, 0));
    const young = lots.flatMap((l) => [...l.began]).filter(([m]) => m >= monthOf(TODAY));
    const sold = lots.reduce((s, l) => s + l.sold, 0);
    expect(running).toBe(sold - back - young.reduce((s, [, n]) => s + n, 0));
  });

  it('keeps returns of lots that nothing was sold of by themselves', () => {
    const p = populationOf(
      [{ kit: 'K', lot: 'a ', month: '2026-01', market: '', sold: 10 }],
      [aReturn({}), aReturn({ lot: 'Z' }), aReturn({ lot: '' })],
      TODAY,
    );
    expect(p.lots[0]!.returns.length).toBe(1);
    expect(p.strays.length).toBe(2);
  });
});
