import { CAUSES, causesFor } from './cause-data';
import { supplierShare, suspectLot, suspectTimes } from './suspect-lot';

describe('a lot under suspicion', () => {
  it('makes what the supplier bears as common as the returns beyond the usual make it', () => {
    for (const [share, times] of [
      [0.2, 1.5],
      [0.35, 2],
      [0.5, 3],
    ] as const) {
      // counted out: 1000 usual returns, and those beyond them, all of the product
      const [supplier, all] = [1000 * share + 1000 * (times - 1), 1000 * times];
      const odds = supplier / (all - supplier) / (share / (1 - share));
      expect(suspectTimes(share, times)).toBeCloseTo(odds, 9);
    }
    expect(suspectTimes(0.3, 0.5)).toBe(1);
    expect(suspectTimes(0, 5)).toBe(1);
    expect(suspectTimes(0.01, 40)).toBe(10);
  });

  it('changes nothing where none is told, and only what the supplier bears where one is', () => {
    for (const has of [undefined, new Set(['chain']), new Set(['belt', 'eccentric'])]) {
      const data = causesFor(CAUSES, has, 'return');
      expect(suspectLot(data, undefined)).toBe(data);
      const share = supplierShare(data);
      const more = suspectLot(data, 1.1);
      expect(supplierShare(more)).toBeCloseTo((share + 0.1) / 1.1, 9);
      for (const [i, c] of more.causes.entries()) if (c.bears !== 'supplier') expect(c).toBe(data.causes[i]!);
    }
  });
});
