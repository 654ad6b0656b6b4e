import * as fc from 'fast-check';
import {
  byOneAct,
  fileFacts,
  mergeFacts,
  type NewFact,
  ofOneAct,
  redoTarget,
  retractFact,
  undoTarget,
} from './change';
import type { Author, Fact } from './fact';
import { factsOf, rivalsOf, valueOf } from './read';
import { reduce, type State } from './state';

const KEYS = ['belt.back', 'belt.width', 'complaint'] as const;
/** What a desk shows of the keys that are used here. */
const shown = (s: State) => KEYS.map((k) => factsOf(s, k).map((f) => f.value));

type Act = { do: 'file'; keys: readonly number[] } | { do: 'again'; key: number } | { do: 'undo' | 'redo' };
const act = fc.oneof(
  fc.record({ do: fc.constant('file' as const), keys: fc.array(fc.nat(2), { minLength: 1, maxLength: 4 }) }),
  fc.record({ do: fc.constant('again' as const), key: fc.nat(2) }),
  fc.record({ do: fc.constantFrom('undo' as const, 'redo' as const) }),
);

/** A desk whose clock goes where it likes. */
function desk(by: string, jumps: readonly number[]) {
  let [n, at] = [0, Date.UTC(2026, 5, 1)];
  const author: Author = {
    by,
    now: () => new Date((at += jumps[n++ % jumps.length]! * 1000)).toISOString(),
    newId: () => `${by}${++n}`,
  };
  return author;
}

function doIt(log: readonly Fact[], a: Act, author: Author, serial: () => number): Fact[] {
  const state = reduce(log);
  if (a.do === 'file' || a.do === 'again') {
    const entries: NewFact[] =
      a.do === 'file'
        ? a.keys.map((k) => ({ key: KEYS[k]!, value: `v${serial()}`, how: 'seen' as const }))
        : [{ key: KEYS[a.key]!, value: `v${serial()}`, how: 'seen', repeat: true }];
    return [...log, ...byOneAct(fileFacts(state, 'c', entries, author))];
  }
  const target = a.do === 'undo' ? undoTarget(state, author.by) : redoTarget(state, author.by);
  if (!target) return [...log];
  return [...log, ...byOneAct(ofOneAct(state, target).map((f) => retractFact(f, author, log)))];
}

describe('undo and redo, however clocks run', () => {
  it('are a stack of what was shown: undo is the way back, redo the way there', () => {
    let checks = 0;
    fc.assert(
      fc.property(
        fc.array(act, { minLength: 1, maxLength: 14 }),
        fc.array(fc.integer({ min: -5000, max: 5000 }), { minLength: 1, maxLength: 9 }),
        (acts, jumps) => {
          const author = desk('A', jumps);
          let [log, k] = [[] as Fact[], 0];
          const serial = () => ++k;
          let [back, ahead] = [[] as unknown[], [] as unknown[]];
          for (const a of acts) {
            const before = shown(reduce(log));
            log = doIt(log, a, author, serial);
            const now = shown(reduce(log));
            if (a.do === 'undo') {
              if (back.length === 0) expect(now).toEqual(before);
              else {
                expect(now).toEqual(back.pop() as typeof now);
                ahead.push(before);
              }
            } else if (a.do === 'redo') {
              if (ahead.length === 0) expect(now).toEqual(before);
              else {
                expect(now).toEqual(ahead.pop() as typeof now);
                back.push(before);
              }
            } else {
              back.push(before);
              ahead = [];
            }
            checks++;
          }
          [back, ahead] = [[], []];
        },
      ),
      { numRuns: 600 },
    );
    console.log(`undo and redo: ${checks} acts under clocks that run back`);
    expect(checks).toBeGreaterThan(2000);
  });

  it('take back one’s own last act in merged work, and nothing of the other desk’s', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(1), act), { minLength: 2, maxLength: 14 }),
        fc.array(fc.integer({ min: -5000, max: 5000 }), { minLength: 1, maxLength: 9 }),
        (acts, jumps) => {
          const authors = [desk('A', jumps), desk('B', [...jumps].reverse())];
          let [logs, k] = [[[] as Fact[], [] as Fact[]], 0];
          for (const [d, a] of acts) logs[d] = doIt(logs[d]!, a, authors[d]!, () => ++k);
          const union = (a: Fact[], b: Fact[]) => {
            const m = mergeFacts(a, b);
            return m.ok ? m.value : (fail(m.error.code) ?? []);
          };
          const ab = union(logs[0]!, logs[1]!);
          expect(ab).toEqual(union(logs[1]!, logs[0]!));
          logs = [ab, ab];
          const state = reduce(ab);
          const target = undoTarget(state, 'A');
          const after = reduce(doIt(ab, { do: 'undo' }, authors[0]!, () => ++k));
          const fresh = after.log.filter((f) => !ab.includes(f));
          for (const f of fresh) expect(after.log.find((g) => g.id === f.strikes)!.by).toBe('A');
          if (target) expect(fresh.length).toBeGreaterThan(0);
          // Whoever files next stands, alone: what was seen is behind it, whatever any clock says.
          const filed = [
            ...ab,
            ...fileFacts(state, 'c', [{ key: 'belt.back', value: 'x', how: 'seen' }], authors[1]!),
          ];
          expect(valueOf(reduce(filed), 'belt.back')).toBe('x');
          expect(rivalsOf(reduce(filed), 'belt.back')).toEqual([]);
        },
      ),
      { numRuns: 300 },
    );
  });
});
