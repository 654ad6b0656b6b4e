import fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import { catalogueOf } from '@core/catalogue/find-records';
import { compareParts, wrapShortfall } from './compare-parts';
import { jobList } from './job-list';
import { planQuestions, type PlanQuestion, splits } from './question-plan';

const cat = catalogueOf(demoPack());

/** Second method: every tree of questions written out, without memory. */
function bestMinutes(shares: readonly number[], questions: readonly PlanQuestion[]): number {
  const total = shares.reduce((a, b) => a + b, 0);
  if (shares.filter((s) => s > 0).length < 2) return 0;
  let best = Infinity;
  for (const q of questions) {
    const split = splits(shares, q);
    const informs = split.some((s) =>
      s.some((w, i) => Math.abs(w / s.reduce((a, b) => a + b, 0) - shares[i]! / total) > 1e-12),
    );
    if (split.length < 2 || !informs) continue;
    const rest = questions.filter((x) => x !== q);
    best = Math.min(
      best,
      q.minutes +
        split.reduce((m, s) => m + (s.reduce((a, b) => a + b, 0) / total) * bestMinutes(s, rest), 0),
    );
  }
  return best === Infinity ? 0 : best;
}

describe('asking order', () => {
  it('is as short as the best of all trees of questions, on small random sets, to 1e-9 min', () => {
    const value = fc.constantFrom('a', 'b', 'c');
    const set = fc.integer({ min: 2, max: 5 }).chain((n) =>
      fc.record({
        shares: fc.array(fc.integer({ min: 1, max: 9 }), { minLength: n, maxLength: n }),
        questions: fc.array(
          fc.record({
            minutes: fc.constantFrom(1, 3, 20, 120),
            values: fc.array(fc.uniqueArray(value, { minLength: 1, maxLength: 2 }), {
              minLength: n,
              maxLength: n,
            }),
          }),
          { minLength: 1, maxLength: 4 },
        ),
      }),
    );
    fc.assert(
      fc.property(set, ({ shares, questions }) => {
        const named = questions.map((q, i) => ({ ...q, id: `q${i}` }));
        const plan = planQuestions(shares, named);
        expect(plan.exact).toBeTrue();
        expect(Math.abs(plan.expectedMinutes - bestMinutes(shares, named))).toBeLessThan(1e-9);
      }),
      { numRuns: 200 },
    );
  });

  it('beats bits per minute where two cheap questions together say more than one dear one', () => {
    const q = (id: string, minutes: number, values: string) => ({
      id,
      minutes,
      values: [...values].map((v) => [v]),
    });
    const plan = planQuestions(
      [1, 1, 1, 1],
      [q('left', 3, 'aabb'), q('right', 3, 'abab'), q('all', 20, 'abcd')],
    );
    expect(plan).toEqual({ first: 'left', expectedMinutes: 6, exact: true });
    expect(planQuestions([1, 1], [q('same', 1, 'aa')])).toEqual({ expectedMinutes: 0, exact: true });
  });
});

describe('old part against new', () => {
  const belt = cat.parts.get('MF-TB121-22')!;
  const old = (values: Record<string, number | string>, u?: number) =>
    new Map(
      Object.entries(values).map(([k, value]) => [
        k,
        { value, ...(u && typeof value === 'number' ? { u } : {}) },
      ]),
    );
  const same = { teeth: 121, pitchMm: 8, widthMm: 22, profile: 'rounded', thicknessMm: 4.8 };

  it('is equal, superseded by design, wrong, or not settled', () => {
    expect(compareParts(cat, belt, old(same)).verdict).toBe('equal');
    const before = compareParts(cat, belt, old({ ...same, widthMm: 20 }));
    expect(before.verdict).toBe('superseded');
    expect(before.lines.find((l) => l.attribute.key === 'widthMm')!.by).toBe('MF-TB121-20');
    const profile = compareParts(cat, belt, old({ ...same, profile: 'rounded modified' }));
    expect(profile.verdict).toBe('wrong');
    expect(profile.lines.filter((l) => l.verdict === 'wrong').map((l) => l.attribute.key)).toEqual([
      'profile',
    ]);
    expect(compareParts(cat, belt, old({ teeth: 121 })).verdict).toBe('cannot_tell');
    expect(compareParts(cat, belt, old({ ...same, teeth: 120 })).verdict).toBe('wrong');
  });

  it('cannot tell when a measured width straddles its tolerance', () => {
    const at = (widthMm: number) =>
      compareParts(cat, belt, new Map([['widthMm', { value: widthMm, u: 0.1 }]])).lines.find(
        (l) => l.attribute.key === 'widthMm',
      )!.verdict;
    expect([at(22.2), at(22.5), at(23.2)]).toEqual(['equal', 'cannot_tell', 'wrong']);
  });

  it('expects the shortfall of a belt wrapped round another, as two circles tell', () => {
    const [n, p, t] = [121, 8, 4.8];
    const inner = (n * p) / (2 * Math.PI);
    expect(wrapShortfall(t, p)).toBeCloseTo((2 * Math.PI * (inner + t)) / p - n, 10);
  });
});

describe('job list', () => {
  it('says where each thing comes from, and takes the pump from the kit that holds it', () => {
    const sources = (kit: string) =>
      Object.fromEntries(jobList(cat, 'TE16-CORM/A', cat.kits.get(kit)).map((l) => [l.item.item, l.source]));
    expect(sources('MF-K121-1')).toEqual({
      'Tensioner bolt': 'in_kit',
      'Front crank seal': 'order',
      'Crank pulley bolt': 'order',
      'Seal of the water pump': 'in_kit',
      'Water pump': 'replace_now',
      'Coolant, litres': 'order',
      Thermostat: 'replace_now',
      'Cover screws': 'reuse_after_check',
    });
    expect(sources('MF-K121-2')['Water pump']).toBe('in_kit');
  });
});
