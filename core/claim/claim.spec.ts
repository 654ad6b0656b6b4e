import { checkSeals, sealedNow } from '@core/claim/seal';
import { factsDigest } from '@core/facts/digest';
import { judgeTerms } from '@core/claim/terms';
import { addDays, type Day, type DaySpan, MONTH_U, daySpan } from '@core/quantity/dates';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { answers, caseOf, plus } from '@core/answer/demo-case.fixture';

describe('claim', () => {
  const terms = { months: 24, km: 60000 };
  it('is in to the last day and kilometre and out by how much', () => {
    const km = (v: number) => ({ km: v, u: 0 });
    expect(judgeTerms(terms, daySpan('2024-11-24'), daySpan('2026-11-24'), km(60000)).verdict).toBe('in');
    expect(judgeTerms(terms, daySpan('2024-11-24'), daySpan('2026-11-25'), km(100))).toEqual({
      verdict: 'out',
      ends: '2026-11-24',
      overKm: 0,
      overDays: 1,
      roughly: false,
    });
    expect(judgeTerms(terms, daySpan('2026-01-01'), daySpan('2026-02-01'), km(60100))).toEqual(
      jasmine.objectContaining({ verdict: 'out', overKm: 100, overDays: 0 }),
    );
    expect(judgeTerms(terms, daySpan('2026-01-01'), daySpan('2026-02-01'), undefined).verdict).toBe(
      'cannot_tell',
    );
    expect(judgeTerms(terms, daySpan('2020-01-01'), daySpan('2026-02-01'), undefined).verdict).toBe('out');
    // 59,800 km between two readings of ± 500 are neither in nor out; three times the distance is out whenever it began.
    expect(judgeTerms(terms, daySpan('2026-01-01'), daySpan('2026-02-01'), { km: 59800, u: 500 })).toEqual(
      jasmine.objectContaining({ verdict: 'cannot_tell', missing: ['distance_near'] }),
    );
    expect(judgeTerms(terms, undefined, undefined, { km: 180000, u: 500 })).toEqual({
      verdict: 'out',
      ends: undefined,
      overKm: 120000,
      overDays: 0,
      roughly: false,
    });
  });

  it('by a date that is known as a month is in or out only where every day of it says so', () => {
    const days = ({ first, last }: DaySpan): Day[] => {
      const out: Day[] = [];
      for (let d = first; d <= last; d = addDays(d, 1)) out.push(d);
      return out;
    };
    const seen = new Set<string>();
    // a fitting in one month, failures in the months around the end of its terms
    for (const month of ['2023-12', '2024-01', '2024-02', '2026-02'])
      for (let shift = -70; shift <= 70; shift += 7)
        for (const u of [0, 3, MONTH_U]) {
          const start = daySpan(`${month}-01`, MONTH_U);
          const failure = daySpan(addDays(`${Number(month.slice(0, 4)) + 2}${month.slice(4)}-15`, shift), u);
          const exact = new Set(
            days(start).flatMap((a) =>
              days(failure).map((b) => judgeTerms(terms, daySpan(a), daySpan(b), { km: 10, u: 0 }).verdict),
            ),
          );
          const t = judgeTerms(terms, start, failure, { km: 10, u: 0 });
          const { verdict } = t;
          expect(verdict).toBe(exact.size === 1 ? [...exact][0]! : 'cannot_tell');
          if (t.verdict === 'cannot_tell') expect(t.missing).toEqual(['date_near']);
          seen.add(verdict);
        }
    expect(seen.size).toBe(3);
  });

  it('may not be declined on a story alone, without an alternative or plain words', () => {
    const told = caseOf('2027').filter(
      (f) =>
        !['measured', 'seen'].includes(f.how) &&
        !f.key.startsWith('claim.alternative') &&
        f.key !== 'claim.reason',
    );
    const codes = answers(told).decision.objections.map((o) => o.code);
    expect(codes).toContain('decline_needs_evidence');
    expect(codes).toContain('decline_needs_alternative');
    expect(codes).toContain('no_reason');
    expect(answers(caseOf('2027')).decision.objections).toEqual([]);
  });

  it('may not be declined on a fact that was not taken from the parts or the fitting, fault or no fault', () => {
    const codes = (facts: readonly Fact[]) => answers(facts).decision.objections.map((o) => o.code);
    // the vehicle's reading was measured, yet says nothing of the parts
    const bare = caseOf('2027').filter(
      (f) => !f.key.startsWith('tensioner.') && !/^(belt|wheel|cover|claim.fault)/.test(f.key),
    );
    const read = bare.map((f) => (f.key === 'vehicle.odometer' ? { ...f, how: 'measured' as const } : f));
    expect(codes(read)).toContain('decline_needs_evidence');
    // A sound look, one that was passed over, one in vain: none of them speaks for a fault.
    for (const value of ['sound', 'skipped', 'unknown'])
      expect(codes(plus(read, 'belt.back', value)))
        .withContext(value)
        .toContain('decline_needs_evidence');
    expect(codes(plus(read, 'belt.back', 'cracked'))).not.toContain('decline_needs_evidence');
  });

  it('waits for a document that the terms require, or for a reason to go on without it', () => {
    const without = caseOf('2027').filter((f) => f.key !== 'claim.invoice' && f.key !== 'report.issue');
    const check = (facts: readonly Fact[]) => answers(facts).decision;
    expect(check(without).objections).toEqual([{ code: 'missing_document', document: 'invoice' }]);
    const reasoned = plus(
      without,
      'claim.without_document',
      'The workshop burnt down; the counter confirms the sale.',
    );
    expect(check(reasoned).objections).toEqual([]);
    expect(check(reasoned).warnings).toContain({ code: 'missing_document', document: 'invoice' });
    expect(check(plus(without, 'claim.decision', 'wait')).objections).toEqual([]);
  });

  it('does not decline over what this desk advised, before somebody says how that bears on it', () => {
    const told = plus(
      caseOf('2027').filter((f) => f.key !== 'report.issue'),
      'call.told',
      'Key clockwise.',
    );
    const codes = (facts: readonly Fact[]) => answers(facts).decision.objections.map((o) => o.code);
    expect(codes(told)).toEqual(['told_unweighed']);
    expect(codes(plus(told, 'claim.told_weighed', 'They were told the other sense.'))).toEqual([]);
    expect(codes(plus(told, 'claim.decision', 'accept'))).toEqual([]);
  });

  it('offers a fault only with evidence that speaks for it', () => {
    const offered = answers(caseOf('2027'))
      .faults.filter((f) => f.evidence.length > 0)
      .map((f) => f.fault.code);
    expect(offered).toEqual(['SET-WAY']);
  });

  it('proves a sealed report and notices what was altered or filed later', () => {
    const sealed = caseOf('2027');
    expect(checkSeals(reduce(sealed))[0]).toEqual(jasmine.objectContaining({ verdict: 'intact', later: 0 }));
    expect(checkSeals(reduce(plus(sealed, 'belt.back', 'cut')))[0]).toEqual(
      jasmine.objectContaining({ verdict: 'intact', later: 1 }),
    );
    // merged later with an earlier time: newer facts exist all the same
    const early = { ...plus(sealed, 'belt.back', 'cut').at(-1)!, at: '2020-01-01T00:00:00.000Z' };
    expect(checkSeals(reduce([...sealed, early]))[0]).toEqual(
      jasmine.objectContaining({ verdict: 'intact', later: 1 }),
    );
    expect(sealedNow(checkSeals(reduce([...sealed, early])))).toBeUndefined();
    const hollow = sealed.map((f) =>
      f.key === 'report.issue' ? { ...f, basis: [], value: factsDigest([]) } : f,
    );
    expect(checkSeals(reduce(hollow))[0]!.verdict).toBe('void');
    const bent = sealed.map((f) => (f.key === 'cover.rub' ? { ...f, value: 'none' } : f));
    expect(checkSeals(reduce(bent))[0]!.verdict).toBe('altered');
    expect(checkSeals(reduce(sealed.filter((f) => f.key !== 'cover.rub')))[0]!.verdict).toBe('altered');
  });
});
