import * as fc from 'fast-check';
import type { FindingValue } from '@core/bench/finding';
import { normalCdf, normalDensity } from '@core/quantity/normal';
import { CAUSES } from './cause-data';
import { cellsOf, type EvidenceRow, isNormal, logRatios, weighs } from './likelihood';

const bands: EvidenceRow = {
  kind: 'bands',
  finding: 'f',
  group: 'g',
  edges: [0, 1, 3, 10],
  normal: [0, 1],
  background: [0.5, 0.3, 0.2],
  causes: { worn: [0.1, 0.2, 0.7] },
};
const normal: EvidenceRow = {
  kind: 'normal',
  finding: 'f',
  group: 'g',
  normal: [4, 6],
  background: { mean: 5, sd: 1 },
  causes: { worn: { mean: 8, sd: 2 } },
};
const life: EvidenceRow = {
  kind: 'life',
  finding: 'f',
  group: 'g',
  background: { shape: 1, scale: 70_000 },
  causes: { worn: { shape: 2, scale: 9000 } },
};
const at = (row: EvidenceRow, value: FindingValue) => logRatios(row, value)('worn');

/** Sum of a density over small steps. */
const area = (f: (x: number) => number, from: number, to: number, n = 20_000): number => {
  const dx = (to - from) / n;
  let sum = 0;
  for (let k = 0; k < n; k++) sum += f(from + (k + 0.5) * dx) * dx;
  return sum;
};

describe('the normal distribution', () => {
  it('agrees with its density summed, with published values, and with itself turned round', () => {
    // Abramowitz and Stegun, table 26.1
    expect(normalCdf(1)).toBeCloseTo(0.841344746068543, 14);
    expect(normalCdf(2)).toBeCloseTo(0.977249868051821, 14);
    expect(normalCdf(-5) / 2.866515718791939e-7).toBeCloseTo(1, 12);
    for (const z of [-3.9, -2.2, -0.4, 0, 0.7, 3.1])
      expect(normalCdf(z)).toBeCloseTo(0.5 + area(normalDensity, 0, z), 8);
    fc.assert(
      fc.property(fc.double({ min: -30, max: 30, noNaN: true }), (z) => {
        expect(normalCdf(z) + normalCdf(-z)).toBeCloseTo(1, 13);
      }),
    );
  });
});

describe('a likelihood', () => {
  const density: Record<string, (x: number, worn: boolean) => number> = {
    bands: (x, w) => {
      const shares = w ? [0.1, 0.2, 0.7] : [0.5, 0.3, 0.2];
      return x < 0 || x > 10 ? 0 : x < 1 ? shares[0]! : x < 3 ? shares[1]! / 2 : shares[2]! / 7;
    },
    normal: (x, w) => (w ? normalDensity((x - 8) / 2) / 2 : normalDensity(x - 5)),
    life: (x, w) => {
      const [k, s] = w ? [2, 9000] : [1, 70_000];
      return x <= 0 ? 0 : (k / s) * (x / s) ** (k - 1) * Math.exp(-((x / s) ** k));
    },
  };
  const cases: [EvidenceRow, { x: number; u: number }[], { from: number; to: number }[]][] = [
    [
      bands,
      [
        { x: 0.9, u: 0.4 },
        { x: 3, u: 1 },
        { x: 7, u: 0.1 },
      ],
      [
        { from: 0.5, to: 4 },
        { from: 8, to: 12 },
      ],
    ],
    [
      normal,
      [
        { x: 6, u: 0.5 },
        { x: 2, u: 2 },
      ],
      [
        { from: 5, to: 9 },
        { from: -1, to: 4 },
      ],
    ],
    [
      life,
      [
        { x: 9000, u: 700 },
        { x: 2000, u: 900 },
      ],
      [
        { from: 0, to: 4000 },
        { from: 8000, to: 60_000 },
      ],
    ],
  ];

  it('of a number is its density weighed with the error of the number, of a bracket its area: by a fine sum, 0.5 %', () => {
    for (const [row, numbers, brackets] of cases) {
      const f = density[row.kind]!;
      for (const v of numbers) {
        const seen = (worn: boolean) =>
          area((x) => f(x, worn) * normalDensity((x - v.x) / v.u), v.x - 9 * v.u, v.x + 9 * v.u);
        expect(Math.exp(at(row, v)) / (seen(true) / seen(false)))
          .withContext(`${row.kind} ${v.x}`)
          .toBeCloseTo(1, 2);
      }
      for (const v of brackets) {
        const seen = (worn: boolean) => area((x) => f(x, worn), v.from, v.to);
        expect(Math.exp(at(row, v)) / (seen(true) / seen(false)))
          .withContext(`${row.kind} ${v.from}`)
          .toBeCloseTo(1, 2);
      }
    }
  });

  it('of a number becomes that of the point as its error shrinks, and of a bracket as it closes', () => {
    for (const [row, x] of [
      [bands, 2],
      [normal, 6.5],
      [life, 12_000],
    ] as const) {
      const point = at(row, { x, u: 0 });
      expect(at(row, { x, u: x * 1e-4 })).toBeCloseTo(point, 3);
      expect(at(row, { from: x * (1 - 1e-4), to: x * (1 + 1e-4) })).toBeCloseTo(point, 3);
    }
  });

  it('says nothing of a cause that its row does not list, nor of a value that it cannot weigh', () => {
    for (const row of [bands, normal, life]) {
      expect(logRatios(row, { x: 5, u: 0 })('other')).toBe(0);
      expect(weighs(row, 'worn')).toBeFalse();
    }
    expect(weighs(bands, { x: 11, u: 0 })).toBeFalse();
    expect(at(bands, { x: 11, u: 0 })).toBe(0);
    expect(isNormal(bands, { x: 1.3, u: 0.2 })).toBeTrue();
    expect(isNormal(bands, { x: 1.5, u: 0.2 })).toBeFalse();
    expect(isNormal(normal, { from: 6.5, to: 9 })).toBeFalse();
  });

  it('has cells that add up to one under every cause, alike at large for what is cut into them', () => {
    const shipped = CAUSES.causes.map((c) => c.key);
    for (const row of [bands, normal, life, ...CAUSES.evidence]) {
      const cells = cellsOf(row);
      for (const cause of [undefined, 'worn', ...shipped]) {
        expect(cells(cause).reduce((a, b) => a + b, 0))
          .withContext(`${row.finding} ${cause ?? ''}`)
          .toBeCloseTo(1, 9);
        for (const p of cells(cause)) expect(p).toBeGreaterThanOrEqual(0);
      }
      if (row.kind === 'normal' || row.kind === 'life')
        for (const p of cells(undefined)) expect(p).toBeCloseTo(1 / 16, 9);
    }
  });
});

describe('the knowledge that ships', () => {
  it('has shares that add up to one, bands in order, and rows only for causes that exist', () => {
    const causes = new Set(CAUSES.causes.map((c) => c.key));
    for (const row of CAUSES.evidence) {
      for (const key of row.kind === 'named' ? Object.values(row.names) : Object.keys(row.causes))
        expect(causes.has(key)).withContext(`${row.finding} ${key}`).toBeTrue();
      if (row.kind !== 'bands') continue;
      expect([...row.edges].sort((a, b) => a - b)).toEqual(row.edges);
      for (const shares of [row.background, ...Object.values(row.causes)]) {
        expect(shares.length).toBe(row.edges.length - 1);
        expect(shares.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
      }
    }
  });
});
