import fc from 'fast-check';
import { factOf as fact } from '@core/facts/facts.fixture';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { costsOf, scaled } from './costs';

const decided = (value: string) => fact('claim.decision', value, { how: 'decided' });
const row = (
  n: number,
  quantity: number,
  rate: number,
  tax: number,
  more: Record<string, number> = {},
): Fact[] => [
  fact('cost.quantity', quantity, { about: `cost:${n}` }),
  fact('cost.rate', rate, { about: `cost:${n}` }),
  fact('cost.tax', tax, { about: `cost:${n}` }),
  ...Object.entries(more).map(([k, v]) => fact(`cost.${k}`, v, { about: `cost:${n}` })),
];
const costs = (...facts: Fact[]) => costsOf(reduce(facts));

/** Second method: schoolbook decimal multiplication of what was written, rounded half up on the digits themselves. */
function byHand(a: string, b: string, places: number): number {
  const digits = (s: string) => s.replace('.', '');
  const after = (s: string) => (s.includes('.') ? s.length - s.indexOf('.') - 1 : 0);
  const product = (BigInt(digits(a)) * BigInt(digits(b))).toString().padStart(20, '0');
  const cut = product.length - (after(a) + after(b)) + places;
  const up = Number(product[cut] ?? '0') >= 5;
  return Number(product.slice(0, cut)) + (up ? 1 : 0);
}

describe('costs of a claim', () => {
  it('law: each line is what schoolbook multiplication gives, rounded half up to the cent', () => {
    const decimal = (max: number, places: number) =>
      fc.integer({ min: 0, max: max * 10 ** places }).map((n) => (n / 10 ** places).toFixed(places));
    fc.assert(
      fc.property(
        decimal(900, 3),
        decimal(90_000, 2),
        decimal(30, 2),
        decimal(100, 0),
        (quantity, rate, tax, share) => {
          const [line] = costs(
            decided('part'),
            fact('claim.share', Number(share) / 100),
            ...row(1, Number(quantity), Number(rate), Number(tax) / 100),
          ).lines;
          const net = byHand(quantity, rate, 2);
          const taxed = byHand(`${net}`, `0.${digits4(tax)}`, 0);
          expect([line?.net, line?.taxed]).toEqual([net, taxed]);
          expect(line?.ours).toBe(byHand(`${net + taxed}`, (Number(share) / 100).toFixed(4), 0));
        },
      ),
      { seed: 9, numRuns: 400 },
    );
  });

  it('law: totals are the sums of their lines, ours and theirs together are all of it, to the cent', () => {
    const money = fc.integer({ min: 0, max: 5_000_000 }).map((n) => n / 100);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 9000 }), money, fc.integer({ min: 0, max: 2500 })), {
          maxLength: 6,
        }),
        fc.integer({ min: 0, max: 100 }),
        (rows, share) => {
          const c = costs(
            decided('part'),
            fact('claim.share', share / 100),
            fact('claim.cost_other', 12.34),
            ...rows.flatMap(([q, r, t], i) => row(i, q / 1000, r, t / 10_000)),
          );
          expect(c.lines.length).toBe(rows.length + 1);
          expect(c.net + c.taxed).toBe(c.gross);
          expect(c.lines.reduce((s, l) => s + l.gross, 0)).toBe(c.gross);
          expect((c.ours ?? NaN) + (c.theirs ?? NaN)).toBe(c.gross);
        },
      ),
      { seed: 10, numRuns: 200 },
    );
  });

  it('are borne as it was decided: all, none, a share, a share of its own; by nobody before', () => {
    const lines = [...row(1, 2, 10, 0), ...row(2, 1, 5.01, 0, { share: 1 })];
    const ours = (...facts: Fact[]) => costs(...lines, ...facts).ours;
    expect(ours()).toBeUndefined();
    expect(ours(decided('wait'))).toBeUndefined();
    expect(ours(decided('part'))).toBeUndefined();
    expect(ours(decided('accept'))).toBe(2501);
    // a line that is borne whole stays so, whatever the rest is
    expect(ours(decided('decline'))).toBe(501);
    expect(ours(decided('goodwill'), fact('claim.share', 0.5))).toBe(1501);
  });

  it('rounds half up and exactly where doubles would not', () => {
    expect(scaled(1, 1, 2)).toBe(1);
    expect(scaled(90_071_992_547, 99_999, 10_000)).toBe(900_710_918_271);
    expect(costs(...row(1, 1.005, 1, 0)).net).toBe(101);
    expect(costs().lines).toEqual([]);
  });
});

/** A percentage as the four digits behind the point of its share: "19.00" is 1900. */
const digits4 = (percent: string): string => percent.replace('.', '').padStart(4, '0');
