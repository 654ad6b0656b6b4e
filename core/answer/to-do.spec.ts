import fc from 'fast-check';
import type { CaseSummary, Waits } from './case-summary';
import { tasksOf, toDo } from './to-do';

const TODAY = '2026-11-25';
const summary = (more: Partial<CaseSummary>): CaseSummary => ({
  id: 'c',
  tag: '1',
  engine: '',
  who: 'Ada',
  kind: 'claim',
  waits: 'settle',
  opened: '2026-11-20T12:00:00.000Z',
  touched: '2026-11-20T12:00:00.000Z',
  text: '',
  world: '',
  ...more,
});
const WAITS: Waits[] = [
  'call',
  'identify',
  'examine',
  'cause',
  'settle',
  'answer',
  'told',
  'issue',
  'sealed',
];

describe('what is to be done', () => {
  it('a promised call on its day, whatever else is done with the case; a question when asked; a claim within the promise', () => {
    const due = (more: Partial<CaseSummary>) => {
      const [t] = toDo([summary(more)], 14, TODAY);
      return t && [t.task, t.due, t.days];
    };
    expect(due({})).toEqual(['settle', '2026-12-04', 9]);
    expect(due({ kind: 'return', waits: 'examine', opened: '2026-11-01T12:00:00.000Z' })).toEqual([
      'examine',
      '2026-11-15',
      -10,
    ]);
    expect(due({ kind: 'question', waits: 'answer' })).toEqual(['answer', '2026-11-20', -5]);
    expect(due({ waits: 'told', back: '2026-11-25' })).toEqual(['call_back', '2026-11-25', 0]);
    expect(due({ waits: 'told' })).toBeUndefined();
    expect(due({ waits: 'sealed' })).toBeUndefined();
    expect(due({ kind: 'question', waits: 'call', who: '“belt noise”' })?.[0]).toBe('read');
    expect(due({ kind: 'question', waits: 'call' })?.[0]).toBe('call');
  });

  it('law: what is due first comes first, nothing is lost or doubled, and the counts come to the whole', () => {
    const some = fc.array(
      fc.record({
        waits: fc.constantFrom(...WAITS),
        kind: fc.constantFrom('question' as const, 'claim' as const),
        back: fc.option(fc.constantFrom('2026-11-24', '2026-11-25', '2026-12-01'), { nil: undefined }),
        day: fc.integer({ min: 1, max: 25 }),
      }),
      { maxLength: 40 },
    );
    fc.assert(
      fc.property(some, (list) => {
        const all = list.map(({ back, day, ...more }, i) =>
          summary({
            ...more,
            id: `c${i}`,
            opened: `2026-11-${String(day).padStart(2, '0')}T12:00:00.000Z`,
            ...(back === undefined ? {} : { back }),
          }),
        );
        const todo = toDo(all, 14, TODAY);
        for (const [i, t] of todo.entries()) expect(t.days).toBeGreaterThanOrEqual(todo[i - 1]?.days ?? -99);
        const waits = all.filter((s) => s.back !== undefined || (s.waits !== 'told' && s.waits !== 'sealed'));
        expect(todo.map((t) => t.summary.id).sort()).toEqual(waits.map((s) => s.id).sort());
        const counts = tasksOf(todo);
        expect(counts.reduce((n, t) => n + t.count, 0)).toBe(todo.length);
        expect(counts.every((t) => t.count > 0)).toBeTrue();
      }),
      { seed: 29, numRuns: 100 },
    );
  });
});
