import { BOX_DIALECTS, boxCapture, camOf } from './capture-box';

describe('a simulated capture box', () => {
  it('gives the same file for the same question, another for another seed, and edges that take turns', () => {
    const ask = { engine: 'QU13-STOA', fault: 'good', dialect: 'bare', seed: 3, zCrank: 20 } as const;
    expect(boxCapture(ask)).toBe(boxCapture(ask));
    expect(boxCapture({ ...ask, seed: 4 })).not.toBe(boxCapture(ask));
    for (const engine of ['QU13-STOA', 'TE16-CORM', 'x']) {
      const edges = camOf(engine);
      expect(edges.length).toBeGreaterThanOrEqual(6);
      edges.forEach((e, i) => {
        expect(e.rising).toBe(i % 2 === 0);
        if (i > 0) expect(e.deg - edges[i - 1]!.deg).toBeGreaterThanOrEqual(30);
      });
      expect(edges.at(-1)!.deg).toBeLessThan(720 + edges[0]!.deg - 15);
    }
    const firsts = new Set(BOX_DIALECTS.map((dialect) => boxCapture({ ...ask, dialect }).slice(0, 40)));
    expect(firsts.size).toBe(BOX_DIALECTS.length);
  });
});
