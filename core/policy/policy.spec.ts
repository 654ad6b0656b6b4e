import * as fc from 'fast-check';
import { POLICY_QUESTIONS, policyToKeep, leastTurns, SHIPPED_POLICY, policyFrom, policyWith } from './policy';

const answers = fc
  .tuple(
    ...POLICY_QUESTIONS.map((c) =>
      fc.option(fc.constantFrom(...c.options.map((o) => o.key)), { nil: undefined }),
    ),
  )
  .map((picked) =>
    Object.fromEntries(
      POLICY_QUESTIONS.flatMap((c, i) => (picked[i] === undefined ? [] : [[c.key, picked[i]]])),
    ),
  );

describe('policy', () => {
  it('come back as they were kept, and are one thing for the same answers', () => {
    fc.assert(
      fc.property(answers, (chosen) => {
        const policy = policyWith(chosen);
        for (const c of POLICY_QUESTIONS) expect(policy.chosen[c.key]).toBe(chosen[c.key] ?? c.default);
        const kept = policyToKeep(policy);
        expect(policyFrom(kept)).toBe(policy);
        // What is the default is not kept.
        for (const c of POLICY_QUESTIONS) expect(kept.chosen[c.key]).not.toBe(c.default);
        const asWritten = Object.entries(kept.chosen).map(([k, is]) => `${k}=${is}`);
        expect(policyFrom(asWritten.join('; ') || 'as shipped')).toBe(policy);
      }),
    );
    expect(policyWith({})).toBe(SHIPPED_POLICY);
    expect(policyToKeep(SHIPPED_POLICY).chosen).toEqual({});
    expect(policyFrom(undefined)).toBeUndefined();
    expect(policyFrom(['turns=4'])).toBeUndefined();
  });

  it('leave out what nobody asks, or an answer that is none', () => {
    expect(policyWith({ nobody: 'asks', turns: '40' })).toBe(SHIPPED_POLICY);
    expect(policyFrom('turns=4; nobody=asks; =; x')).toBe(policyWith({ turns: '4' }));
  });

  it('never ask for fewer turns than the procedure or the house', () => {
    expect([
      leastTurns(SHIPPED_POLICY),
      leastTurns(SHIPPED_POLICY, 6),
      leastTurns(policyWith({ turns: '4' }), 2),
    ]).toEqual([2, 6, 4]);
  });

  it('have the fourteen questions of the trade, each with a reason for its default', () => {
    expect(POLICY_QUESTIONS.length).toBe(14);
    for (const c of POLICY_QUESTIONS) {
      expect(c.why.length).withContext(c.key).toBeGreaterThan(20);
      expect(new Set(c.options.map((o) => o.sheet)).size).toBe(c.options.length);
    }
  });
});
