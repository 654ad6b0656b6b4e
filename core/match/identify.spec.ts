import { findCode, nearestCodes } from '@core/catalogue/find-records';
import type { Fact } from '@core/facts/fact';
import { answers, caseOf, cat, plus } from '@core/answer/demo-case.fixture';

const FITS_IF: Record<string, 'fits' | 'no' | 'fits_if'> = {
  'MF-K121-0': 'fits_if',
  'MF-K121-1': 'fits_if',
  'MF-K121-2': 'fits_if',
  'MF-K123-1': 'fits_if',
  'MF-K123-2': 'fits_if',
};

describe('identification and kits', () => {
  const verdicts = (facts: readonly Fact[]) =>
    Object.fromEntries(answers(facts).kits.map((k) => [k.kit.number, k.verdict]));

  it('never rules out on unknown, and answers in three values', () => {
    const call = caseOf('2041');
    expect(verdicts(call)).toEqual(FITS_IF);
    expect(verdicts(plus(call, 'feature.cover-screws', 'unknown'))).toEqual(FITS_IF);
    expect(verdicts(plus(call, 'feature.cover-screws', 'seven'))).toEqual(
      jasmine.objectContaining({ 'MF-K121-1': 'no', 'MF-K123-1': 'fits' }),
    );
    expect(verdicts(plus(call, 'kit.number', 'MF-K117-1'))['MF-K117-1']).toBe('no');
  });

  it('shows facts that contradict each other instead of resolving them', () => {
    const both = plus(plus(caseOf('2041'), 'feature.cover-screws', 'seven'), 'feature.guide-roller', 'steel');
    const a = answers(both);
    expect(a.identification?.contradicted).toBeTrue();
    expect(a.identification?.standings.map((s) => s.excludedBy.length)).toEqual([1, 1]);
    expect(a.drive).toBeUndefined();
  });

  it('asks the cheaper of two equally telling questions first, worth the entropy of the shares', () => {
    const [first, second] = answers(caseOf('2041')).asking.questions;
    const h = -(0.62 * Math.log2(0.62) + 0.38 * Math.log2(0.38));
    expect(first!.feature.id).toBe('cover-screws');
    expect(first!.bits).toBeCloseTo(h, 12);
    expect(second!.minutes).toBeGreaterThan(first!.minutes);
  });

  it('finds a code however it is written and names the nearest otherwise', () => {
    expect(findCode(cat.engines.keys(), 'te 16 c0rm')).toBe('TE16-CORM');
    expect(nearestCodes(cat.engines.keys(), 'TE15-CORM', 1)).toEqual(['TE14-CORM']);
  });
});
