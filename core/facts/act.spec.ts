import * as fc from 'fast-check';
import {
  byOneAct,
  fileFact,
  fileFacts,
  type NewFact,
  ofOneAct,
  redoTarget,
  retractFact,
  undoTarget,
} from './change';
import type { Author, Fact } from './fact';
import { valueOf } from './read';
import { reduce } from './state';

const authorOf = (prefix = 'i'): Author => {
  let n = 0;
  return {
    by: 'T',
    now: () => new Date(Date.UTC(2026, 0, 1) + ++n).toISOString(),
    newId: () => `${prefix}${++n}`,
  };
};
const entry = fc.record({
  key: fc.constantFrom('belt.width', 'belt.back', 'complaint'),
  about: fc.constantFrom(undefined, 'old:belt'),
  value: fc.constantFrom('a', 'b', 'c'),
  how: fc.constant('seen' as const),
});

describe('facts filed by one entry', () => {
  it('are the same as filed one after the other, each from what stands with those before it', () => {
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 8 }), fc.array(entry, { maxLength: 3 }), (entries, before) => {
        const start = fileFacts(reduce([]), 'c', before, authorOf('s'));
        const [a, b] = [authorOf(), authorOf()];
        const mine = fileFacts(reduce(start), 'c', entries, a);
        const theirs: Fact[] = [];
        for (const e of entries as NewFact[]) theirs.push(fileFact(reduce([...start, ...theirs]), 'c', e, b));
        expect(mine).toEqual(theirs);
      }),
    );
  });

  it('are undone together and brought back together; one alone carries no mark', () => {
    const author = authorOf();
    const first = fileFacts(reduce([]), 'c', [{ key: 'complaint', value: 'x', how: 'reported' }], author);
    expect(byOneAct(first)[0]!.act).toBeUndefined();
    const many = byOneAct(
      fileFacts(
        reduce(first),
        'c',
        [
          { key: 'belt.width', value: 25, how: 'measured' },
          { key: 'belt.back', value: 'sound', how: 'seen' },
        ],
        author,
      ),
    );
    let log: Fact[] = [...first, ...many];
    const strike = (f: Fact) => {
      const state = reduce(log);
      log = [...log, ...byOneAct(ofOneAct(state, f).map((x) => retractFact(x, author, state.log)))];
      return reduce(log);
    };
    const undone = strike(undoTarget(reduce(log), 'T')!);
    expect([
      valueOf(undone, 'belt.width'),
      valueOf(undone, 'belt.back'),
      valueOf(undone, 'complaint'),
    ]).toEqual([undefined, undefined, 'x']);
    const redone = strike(redoTarget(undone, 'T')!);
    expect([valueOf(redone, 'belt.width'), valueOf(redone, 'belt.back')]).toEqual([25, 'sound']);
    // What was struck by hand before is not of the act any more.
    const [width] = many;
    log = [...log, retractFact(width!, author, log)];
    expect(ofOneAct(reduce(log), many[1]!).map((f) => f.key)).toEqual(['belt.back']);
  });
});
