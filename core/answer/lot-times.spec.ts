import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { answers, caseOf, plus } from './demo-case.fixture';
import { lotFacts, lotTimes } from './lot-times';

describe('a lot that comes back more often than others', () => {
  const told = plus(caseOf('2033'), 'kit.lot', 'L77');
  const weighed = plus(told, 'kit.lot_times', 2.3).map(
    (f): Fact => (f.key === 'kit.lot_times' ? { ...f, how: 'computed', basis: lotFacts(reduce(told)) } : f),
  );
  /** Odds of what the supplier bears, as priors of the ranking's causes. */
  const supplier = (facts: readonly Fact[]): number => {
    const { causes } = answers(facts).causes;
    const of = (is: boolean) =>
      causes.reduce((s, c) => s + ((c.bears === 'supplier') === is ? c.prior : 0), 0);
    return of(true) / of(false);
  };

  it('weighs in its case, by what the counts make of it', () => {
    const usual = supplier(told) / (1 + supplier(told));
    expect(supplier(weighed) / supplier(told)).toBeCloseTo((usual + 1.3) / usual, 6);
    expect(lotTimes(reduce(weighed))).toBe(2.3);
  });

  it('weighs no more once the lot or the kit turns out to be another', () => {
    for (const later of [plus(weighed, 'kit.lot', 'L78'), plus(weighed, 'kit.number', 'MF-K123-1')]) {
      expect(lotTimes(reduce(later))).toBeUndefined();
    }
    expect(supplier(plus(weighed, 'kit.lot', 'L78'))).toBeCloseTo(supplier(told), 12);
    expect(lotFacts(reduce(caseOf('2041')))).toEqual([]);
  });
});
