import {
  bulletinEffect,
  bulletinsOf,
  BulletinsSchema,
  isUnchanged,
  standingBulletins,
  writeBulletin,
} from './bulletin';
import type { Return } from './population';
import { whoHas } from './who-has';

const said = {
  kit: 'K1',
  step: 'tension',
  code: 'SET-HOT',
  does: 'issue' as const,
  text: 'Wait until it is cold.',
  at: '2026-03-01T08:00:00Z',
  by: 'Ida',
};
const aReturn = (fitted: string, faulty: boolean, over: Partial<Return> = {}): Return => ({
  id: fitted,
  tag: fitted,
  kit: 'k1 ',
  lot: 'A',
  shop: 'Quay',
  fitted,
  failed: '2026-09-01',
  cause: '',
  faults: faulty ? [{ code: 'SET-HOT', step: 'tension' }] : [],
  cost: 0,
  ...over,
});

describe('a bulletin', () => {
  const first = writeBulletin([], said);
  const second = writeBulletin([first], { ...said, text: ' Measure it. ', at: '2026-04-01T08:00:00Z' });
  const back = writeBulletin([first, second], { ...said, does: 'withdraw', at: '2026-05-01T08:00:00Z' });
  const other = writeBulletin([first], { ...said, step: 'release', at: '2026-02-01T08:00:00Z' });

  it('counts its versions, stands until it is taken back, and shows when it was altered', () => {
    expect([first, second, back, other].map((b) => b.version)).toEqual([1, 2, 2, 1]);
    expect(standingBulletins([second, other, first])).toEqual([second, other]);
    expect(standingBulletins([first, second, back, other])).toEqual([other]);
    expect(bulletinsOf([first], ' k1')).toEqual([first]);
    expect(bulletinsOf([first], undefined)).toEqual([]);
    expect(bulletinsOf([first], 'K2')).toEqual([]);
    const kept = BulletinsSchema.parse(JSON.parse(JSON.stringify([first, second])));
    expect(kept.every(isUnchanged)).toBeTrue();
    expect(isUnchanged({ ...second, text: 'Measure it!' })).toBeFalse();
    expect(isUnchanged({ ...second, version: 3 })).toBeFalse();
  });

  it('tells its effect by the days of fitting, against the same sum by hand', () => {
    const returns = [
      ...Array.from({ length: 20 }, (_, i) => aReturn('2026-01-10', i < 10)),
      ...Array.from({ length: 20 }, (_, i) => aReturn('2026-03-01', i < 1)),
      aReturn('', true),
      aReturn('2026-04-01', true, { kit: 'K2' }),
    ];
    const effect = bulletinEffect([second, first], first, returns)!;
    expect([effect.before, effect.after]).toEqual([
      { faults: 10, of: 20 },
      { faults: 1, of: 20 },
    ]);
    // of 11 in all, one or more fell on a half of them: 1 − 2⁻¹¹
    expect(effect.compared!.p).toBeCloseTo(1 - 2 ** -11, 12);
    expect(effect.compared!.ratio).toBeCloseTo(0.1, 12);
    expect(effect.compared!.interval.to).toBeLessThan(1);
    expect(bulletinEffect([], first, returns)).toBeUndefined();
    expect(bulletinEffect([first], first, returns.slice(0, 20))!.compared).toBeUndefined();
  });
});

describe('who has a lot', () => {
  it('is told by market and by workshop, however the table writes them', () => {
    const row = { kit: 'K1', lot: 'A', month: '2026-03', market: 'North', sold: 5 };
    const has = whoHas(
      [
        row,
        { ...row, market: 'south', sold: 9 },
        { ...row, kit: 'k1', market: 'NORTH', month: '2026-01', sold: 7 },
        { ...row, lot: 'B', sold: 99 },
      ],
      [
        aReturn('2026-01-01', false),
        aReturn('2026-01-02', false, { shop: '' }),
        aReturn('2026-01-03', false, { lot: 'B' }),
      ],
      'k1',
      'a ',
    );
    expect(has.sold).toBe(21);
    expect(has.markets).toEqual([
      { market: 'North', sold: 12, from: '2026-01', to: '2026-03' },
      { market: 'south', sold: 9, from: '2026-03', to: '2026-03' },
    ]);
    expect(has.shops.map((s) => [s.shop, s.cases.map((c) => c.tag)])).toEqual([['Quay', ['2026-01-01']]]);
  });
});
