import { every, found, rank, run } from './laws.fixture';
import { sidesTie } from './sides';

describe('supplier or fitter', () => {
  const { data } = every.find((d) => d.id === 'OL15-QUOI/A')!;
  const jammed = [found('tensioner.activated', 'collapsed'), found('tensioner.backdrive', 'stuck'), run(12)];

  it('is said where both sides have a likely cause and neither has so many times the other', () => {
    const { causes } = rank(data, jammed);
    const tie = sidesTie(causes, 4)!;
    expect(tie.supplier.cause.bears).toBe('supplier');
    expect(tie.fitter.cause.bears).toBe('fitter');
    for (const side of [tie.supplier, tie.fitter]) {
      const mine = causes.filter((c) => c.cause.bears === side.cause.bears);
      expect(side.share).toBeCloseTo(
        mine.reduce((s, c) => s + c.probability, 0),
        12,
      );
      expect(side.cause).toBe(mine[0]!.cause);
    }
    const ratio =
      Math.max(tie.supplier.share, tie.fitter.share) / Math.min(tie.supplier.share, tie.fitter.share);
    expect(sidesTie(causes, ratio * 1.001)).toBeDefined();
    expect(sidesTie(causes, ratio * 0.999)).toBeUndefined();
  });

  it('is not said where what was found parts them, where nobody of both leads, or nothing is known', () => {
    expect(sidesTie(rank(data, [...jammed, found('tensioner.bore', 'burr')]).causes, 4)).toBeUndefined();
    const oil = [found('oil.pressure_hot', 'none'), found('oil.lamp', 'before'), found('chain.film', 'dry')];
    expect(sidesTie(rank(data, oil).causes, 4)).toBeUndefined();
    expect(sidesTie(rank(data, []).causes, 4)).toBeUndefined();
  });
});
