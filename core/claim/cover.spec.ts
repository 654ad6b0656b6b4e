import { PlanSchema, type Plan } from '@core/catalogue/plan';
import { factOf as fact } from '@core/facts/facts.fixture';
import { registryOf } from '@core/facts/observable';
import { OBSERVABLES } from '@core/facts/registry';
import { reduce } from '@core/facts/state';
import { addDays, type Day, daySpan, monthsBetween, plusMonths } from '@core/quantity/dates';
import { costsOf } from './costs';
import { coverOf, shareAfter } from './cover';
import { judgeTerms } from './terms';

const REGISTRY = registryOf(OBSERVABLES);
const EMPTY = reduce([]);

describe('a plan', () => {
  it('without limits is never out, and each limit it has is judged as if it were the only one', () => {
    const failure = daySpan('2026-05-01');
    for (const km of [0, 59_999, 60_001, 900_000])
      for (const start of [undefined, daySpan('2004-01-01'), daySpan('2026-04-01')]) {
        const ran = { km, u: 0 };
        expect(judgeTerms({}, start, failure, ran).verdict).toBe('in');
        expect(judgeTerms({ km: 60_000 }, start, failure, ran).verdict).toBe(km > 60_000 ? 'out' : 'in');
        const byTime = judgeTerms({ months: 24 }, start, failure, ran);
        expect(byTime.verdict).toBe(!start ? 'cannot_tell' : start.first < '2024-05-01' ? 'out' : 'in');
        // both are out where either is, and in only where both are
        const alone = [judgeTerms({ km: 60_000 }, start, failure, ran).verdict, byTime.verdict];
        expect(judgeTerms({ months: 24, km: 60_000 }, start, failure, ran).verdict).toBe(
          alone.includes('out') ? 'out' : alone.includes('cannot_tell') ? 'cannot_tell' : 'in',
        );
      }
  });

  it('begins where its rule says, at the sale only where the fitting is not known', () => {
    const sold = fact('kit.sold', '2025-02-01');
    const fitted = fact('kit.fitted', '2025-06-01');
    const start = (from: Plan['from'], ...facts: ReturnType<typeof fact>[]) =>
      coverOf({ from }, reduce(facts), REGISTRY).start;
    expect(start(undefined, sold)).toBeUndefined();
    expect(start('sold', sold, fitted)?.day.first).toBe('2025-02-01');
    expect(start('fitted_else_sold', sold, fitted)).toEqual(jasmine.objectContaining({ is: 'fitted' }));
    expect(start('fitted_else_sold', sold)?.day.first).toBe('2025-02-01');
    const missing = judgeTerms(
      { months: 1, from: 'fitted_else_sold' },
      undefined,
      daySpan('2026-01-01'),
      undefined,
    );
    expect(missing).toEqual(jasmine.objectContaining({ missing: ['start_or_sale'] }));
  });

  it('shares by months: its ends are those of every pair of days that the dates may be', () => {
    const plan: Plan = {
      shares: [
        { after: 6, share: 0.75 },
        { after: 24, share: 0.5 },
        { after: 36, share: 0 },
      ],
    };
    const days = (around: Day, u: number): Day[] =>
      Array.from({ length: 2 * u + 1 }, (_, i) => addDays(around, i - u));
    for (const months of [0, 5, 6, 23, 24, 35, 36, 50])
      for (const u of [0, 15]) {
        const [start, failure] = ['2022-01-31' as Day, plusMonths('2022-01-31', months)];
        const shares = days(start, u).flatMap((a) =>
          days(failure, u).map((b) => shareAfter(plan, monthsBetween(a, b))),
        );
        const state = reduce([
          fact('kit.fitted', start, u ? { u } : {}),
          fact('case.date', failure, u ? { u } : {}),
        ]);
        expect(coverOf(plan, state, REGISTRY).share)
          .withContext(`${months} ± ${u}`)
          .toEqual({ least: Math.min(...shares), most: Math.max(...shares) });
      }
    expect(coverOf(plan, EMPTY, REGISTRY).share).toBeUndefined();
  });

  it('leaves out what is said to be so, and asks for what nobody said', () => {
    const plan: Plan = { excludes: [{ key: 'kit.renewed', is: ['some_old'], why: 'whole.' }] };
    const stands = (value?: string) =>
      coverOf(plan, reduce(value === undefined ? [] : [fact('kit.renewed', value)]), REGISTRY).exclusions[0]!
        .stands;
    expect([stands(), stands('some_old'), stands('all'), stands('no such answer')]).toEqual([
      'unknown',
      'applies',
      'not',
      'unknown',
    ]);
    const strange = { excludes: [{ key: 'no.such', is: ['x'], why: '' }] };
    expect(coverOf(strange, EMPTY, REGISTRY).exclusions[0]!.stands).toBe('unknown');
  });

  it('that bears parts alone leaves labour to them, unless it is goodwill or a line says otherwise', () => {
    const sums = [fact('claim.cost_part', 100), fact('claim.cost_labour', 40), fact('claim.cost_other', 7)];
    const ours = (decision: string, cover: Parameters<typeof costsOf>[1], share?: number) =>
      costsOf(
        reduce([
          ...sums,
          fact('claim.decision', decision),
          ...(share === undefined ? [] : [fact('claim.share', share)]),
        ]),
        cover,
      ).ours;
    const parts = { bears: ['part'] as const, share: { least: 0.5, most: 0.5 } };
    expect(ours('accept', undefined)).toBe(14_700);
    expect(ours('accept', parts)).toBe(5000);
    expect(ours('part', parts, 0.2)).toBe(2000);
    expect(ours('goodwill', parts, 0.2)).toBe(2940);
    expect(ours('decline', parts)).toBe(0);
    expect(ours('part', parts)).toBeUndefined();
  });

  it('is refused where its shares grow or go back in time', () => {
    const ok = (shares: Plan['shares']) => PlanSchema.safeParse({ shares }).success;
    expect(
      ok([
        { after: 12, share: 0.5 },
        { after: 24, share: 0.5 },
      ]),
    ).toBeTrue();
    expect(
      ok([
        { after: 12, share: 0.5 },
        { after: 24, share: 0.6 },
      ]),
    ).toBeFalse();
    expect(
      ok([
        { after: 24, share: 0.5 },
        { after: 12, share: 0.2 },
      ]),
    ).toBeFalse();
  });
});
