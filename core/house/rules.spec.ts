import * as fc from 'fast-check';
import { CHOICES, keptRules, leastTurns, RULES, rulesKept, rulesWith } from './rules';

const answers = fc
  .tuple(
    ...CHOICES.map((c) => fc.option(fc.constantFrom(...c.options.map((o) => o.key)), { nil: undefined })),
  )
  .map((picked) =>
    Object.fromEntries(CHOICES.flatMap((c, i) => (picked[i] === undefined ? [] : [[c.key, picked[i]]]))),
  );

describe('house rules', () => {
  it('come back as they were kept, and are one thing for the same answers', () => {
    fc.assert(
      fc.property(answers, (chosen) => {
        const rules = rulesWith(chosen);
        for (const c of CHOICES) expect(rules.chosen[c.key]).toBe(chosen[c.key] ?? c.default);
        const kept = keptRules(rules);
        expect(rulesKept(kept)).toBe(rules);
        // What is the default is not kept.
        for (const c of CHOICES) expect(kept.chosen[c.key]).not.toBe(c.default);
        const asWritten = Object.entries(kept.chosen).map(([k, is]) => `${k}=${is}`);
        expect(rulesKept(asWritten.join('; ') || 'as shipped')).toBe(rules);
      }),
    );
    expect(rulesWith({})).toBe(RULES);
    expect(keptRules(RULES).chosen).toEqual({});
    expect(rulesKept(undefined)).toBeUndefined();
    expect(rulesKept(['turns=4'])).toBeUndefined();
  });

  it('leave out what nobody asks, or an answer that is none', () => {
    expect(rulesWith({ nobody: 'asks', turns: '40' })).toBe(RULES);
    expect(rulesKept('turns=4; nobody=asks; =; x')).toBe(rulesWith({ turns: '4' }));
  });

  it('never ask for fewer turns than the procedure or the house', () => {
    expect([leastTurns(RULES), leastTurns(RULES, 6), leastTurns(rulesWith({ turns: '4' }), 2)]).toEqual([
      2, 6, 4,
    ]);
  });

  it('have the fourteen questions of the trade, each with a reason for its default', () => {
    expect(CHOICES.length).toBe(14);
    for (const c of CHOICES) {
      expect(c.why.length).withContext(c.key).toBeGreaterThan(20);
      expect(new Set(c.options.map((o) => o.sheet)).size).toBe(c.options.length);
    }
  });
});
