import fc from 'fast-check';
import { checkFacts, circlesIn, consistent, mergeCase } from './consistent';
import { type Fact, MOST_FACTS } from './fact';

const fact = (id: string, more: Partial<Fact> = {}): Fact => ({
  id,
  case: 'c',
  key: 'complaint',
  value: 'x',
  how: 'reported',
  by: 'T',
  at: '2026-11-25T10:00:00.000Z',
  ...more,
});
const kind = (id: string, about: string, value: string, at = id): Fact =>
  fact(id, { about, key: 'thing.kind', value, at: `2026-11-25T10:00:0${at.length % 10}.000Z` });

describe('facts that stand together', () => {
  it('leave the circle alone, not what it leads to or what leads to it', () => {
    const facts = [
      fact('behind', { supersedes: 'a' }),
      fact('a', { supersedes: 'b' }),
      fact('b', { strikes: 'c', value: '' }),
      fact('c', { supersedes: ['a', 'far'] }),
      fact('far'),
    ];
    expect([...circlesIn(facts)].sort()).toEqual(['a', 'b', 'c']);
    expect(consistent(facts).stand.map((f) => f.id)).toEqual(['behind', 'far']);
    expect(circlesIn([fact('a'), fact('b', { supersedes: 'a' })]).size).toBe(0);
    expect([...circlesIn([fact('a', { supersedes: 'a' })])]).toEqual(['a']);
  });

  it('are found in circles as by walking from every fact until it is met again', () => {
    const any = fc.array(fc.tuple(fc.nat(9), fc.nat(9)), { maxLength: 16 });
    let circles = 0;
    fc.assert(
      fc.property(any, (pairs) => {
        const to = new Map<string, string[]>();
        for (const [a, b] of pairs) to.set(`${a}`, [...(to.get(`${a}`) ?? []), `${b}`]);
        const facts = Array.from({ length: 10 }, (_, i) =>
          fact(`${i}`, to.has(`${i}`) ? { supersedes: to.get(`${i}`)! } : {}),
        );
        const reaches = (from: string): Set<string> => {
          const seen = new Set<string>();
          const open = [...(to.get(from) ?? [])];
          for (let id = open.pop(); id !== undefined; id = open.pop())
            if (!seen.has(id)) {
              seen.add(id);
              open.push(...(to.get(id) ?? []));
            }
          return seen;
        };
        const found = circlesIn(facts);
        // on a circle, or between two of them
        for (const f of facts) if (reaches(f.id).has(f.id)) expect(found.has(f.id)).toBeTrue();
        for (const id of found) {
          const into = facts.some((f) => reaches(f.id).has(f.id) && (f.id === id || reaches(f.id).has(id)));
          const out = facts.some((f) => reaches(f.id).has(f.id) && (f.id === id || reaches(id).has(f.id)));
          expect(into && out).toBeTrue();
        }
        circles += found.size > 0 ? 1 : 0;
      }),
      { numRuns: 300, seed: 7 },
    );
    expect(circles).toBeGreaterThan(50);
  });

  it('are refused as a whole where two lawful files together are not', () => {
    const together = (a: Fact[], b: Fact[]) => {
      expect(checkFacts(a)).toBeUndefined();
      expect(checkFacts(b)).toBeUndefined();
      const merged = mergeCase(a, b);
      return merged.ok ? undefined : merged.error.code;
    };
    expect(together([kind('1', 'p-2', 'belt')], [kind('2', 'p-2', 'chain')])).toBe('two_kinds');
    // each corrects a fact that the other file has
    expect(together([fact('a', { supersedes: 'b' })], [fact('b', { supersedes: 'a' })])).toBe('circle');
    expect(together([fact('a')], [fact('a', { value: 'y' })])).toBe('same_id_other_content');
    expect(together([fact('a')], [fact('b')])).toBeUndefined();
  });

  it('are the same whatever order they come in, and what is left with them can stand', () => {
    const facts = [
      kind('1', 'p-2', 'belt'),
      kind('22', 'p-2', 'chain'),
      fact('3', { about: 'p-2' }),
      fact('4', { about: 'ghost' }),
      fact('5', { supersedes: '6' }),
      fact('6', { supersedes: '5' }),
    ];
    const ids = (list: readonly Fact[]) =>
      consistent(list)
        .stand.map((f) => f.id)
        .sort();
    expect(ids(facts)).toEqual(['1', '3']);
    fc.assert(
      fc.property(fc.shuffledSubarray(facts, { minLength: facts.length }), (mixed) => {
        expect(ids(mixed)).toEqual(['1', '3']);
        expect(checkFacts(consistent(mixed).stand)).toBeUndefined();
      }),
      { numRuns: 60 },
    );
  });
});

describe('a case', () => {
  it('holds so many facts and no more', () => {
    const many = Array.from({ length: MOST_FACTS + 1 }, (_, i) => fact(`m${i}`));
    expect(checkFacts(many)?.code).toBe('too_many');
    expect(checkFacts(many.slice(1))).toBeUndefined();
  });
});
