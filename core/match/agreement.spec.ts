import * as fc from 'fast-check';
import { cat } from '@core/answer/demo-case.fixture';
import { ATTRIBUTES } from '@core/catalogue/attributes';
import { stateOf } from '@core/facts/facts.fixture';
import { compareParts } from './compare-parts';
import { identify } from './identify';
import { nextQuestions } from './next-question';

describe('an old width against the new one', () => {
  const belt = cat.parts.get('MF-TB121-22')!;
  const fresh = belt.attributes['widthMm'] as number;
  const tolerance = ATTRIBUTES.get('widthMm')!.tolerance!;
  const at = (value: number, u?: number) =>
    compareParts(
      { ...cat, parts: new Map() },
      // none that it replaces, which would have a width of its own
      { ...belt, number: 'replaces none', attributes: { widthMm: fresh } },
      new Map([['widthMm', { value, u }]]),
    ).lines[0]!.verdict;

  it('agrees, differs or cannot tell, by its distance, its uncertainty and the tolerance, on both sides', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (by, u) => {
          const [near, far] = [Math.abs(by) - 2 * u, Math.abs(by) + 2 * u];
          fc.pre(Math.abs(near - tolerance) > 1e-6 && Math.abs(far - tolerance) > 1e-6);
          const said = far < tolerance ? 'equal' : near > tolerance ? 'wrong' : 'cannot_tell';
          expect(at(fresh + by, u)).toBe(said);
        },
      ),
    );
    // at the very limit, without an uncertainty, it is equal; a rounding beyond it is not
    expect([at(fresh + tolerance), at(fresh - tolerance), at(fresh + tolerance + 1e-6)]).toEqual([
      'equal',
      'equal',
      'wrong',
    ]);
  });
});

describe('designs of an engine', () => {
  const variants = cat.variantsOf.get('TE16-CORM')!;
  const shares = (facts: Parameters<typeof stateOf>[0]) => {
    const id = identify(cat, 'TE16-CORM', stateOf(facts));
    return { possible: id.possible.map((v) => v.id), shares: id.shares, id };
  };

  it('share what is possible in the ratio of their numbers, and add up to one', () => {
    const { shares: all } = shares([]);
    const total = variants.reduce((s, v) => s + v.share, 0);
    expect(all).toEqual(variants.map((v) => v.share / total));
    const one = shares([['feature.cover-screws', 'seven']]);
    expect(one.possible.length).toBe(1);
    expect(one.shares).toEqual([1]);
    expect(identify(cat, 'NO-SUCH', stateOf([]))).toEqual({
      standings: [],
      possible: [],
      shares: [],
      contradicted: false,
    });
  });

  it('are ruled out by a day of building beyond their window and its slack, to the day, on both sides', () => {
    const v = variants.find((x) => x.built.from !== undefined || x.built.to !== undefined)!;
    const { from, to, slackDays } = v.built;
    const day = (iso: string, days: number) =>
      new Date(Date.parse(iso) + days * 86_400_000).toISOString().slice(0, 10);
    const excluded = (built: string) => !shares([['vehicle.built', built]]).possible.includes(v.id);
    if (from !== undefined) {
      expect(excluded(day(from, -slackDays))).toBeFalse();
      expect(excluded(day(from, -slackDays - 1))).toBeTrue();
    }
    if (to !== undefined) {
      expect(excluded(day(to, slackDays))).toBeFalse();
      expect(excluded(day(to, slackDays + 1))).toBeTrue();
    }
    expect(slackDays).toBeGreaterThan(0);
  });

  it('are not ruled out by a market that nobody named, in whatever words', () => {
    const open = shares([]).possible;
    for (const said of ['unknown', 'n/a', '?', ' – ', '-', 'None', 'skipped'])
      expect(shares([['vehicle.market', said]]).possible)
        .withContext(said)
        .toEqual(open);
    const sold = cat.pack.variants.find((v) => v.markets.length > 0);
    if (sold) {
      const of = (m: string) => identify(cat, sold.engine, stateOf([['vehicle.market', m]]));
      expect(of('Nowhere').possible.map((v) => v.id)).not.toContain(sold.id);
      expect(of(sold.markets[0]!.toUpperCase()).possible.map((v) => v.id)).toContain(sold.id);
    }
  });

  it('are asked for by what tells them apart, worth what the answer takes from the entropy, and never again', () => {
    const { id } = shares([]);
    const asked = nextQuestions(cat, id, stateOf([]));
    const h = (ps: readonly number[]) => ps.reduce((s, p) => (p > 0 ? s - p * Math.log2(p) : s), 0);
    for (const q of asked.questions) {
      expect(q.outcomes.reduce((s, o) => s + o.probability, 0)).toBeCloseTo(1, 12);
      const left = q.outcomes.reduce((s, o) => {
        const weights = id.possible.map((v, i) => {
          const may = v.features[q.feature.id] ?? q.feature.options.map((x) => x.key);
          return may.includes(o.value) ? id.shares[i]! / may.length : 0;
        });
        return s + o.probability * h(weights.map((w) => w / o.probability));
      }, 0);
      expect(q.bits)
        .withContext(q.feature.id)
        .toBeCloseTo(h(id.shares) - left, 10);
    }
    expect(asked.allMinutes).toBe(asked.questions.reduce((s, q) => s + q.minutes, 0));
    const first = asked.questions[0]!.feature.id;
    const state = stateOf([[`feature.${first}`, { none: 'unknown' }]]);
    expect(nextQuestions(cat, id, state).questions.map((q) => q.feature.id)).not.toContain(first);
  });
});
