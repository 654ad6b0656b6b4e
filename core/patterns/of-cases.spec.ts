import judged from '../../demo/judged.json';
import type { CaseSummary } from '@core/answer/case-summary';
import { returnsOf } from './of-cases';

const summaries = judged.summaries as unknown as CaseSummary[];

describe('returns from the summaries of cases', () => {
  const all = returnsOf(summaries);
  it('are the returns and claims that name a kit, and no question', () => {
    expect(all.length).toBeGreaterThan(20);
    const kind = new Map(summaries.map((s) => [s.id, s.kind]));
    for (const r of all) expect(kind.get(r.id)).withContext(r.tag).not.toBe('question');
    expect(all.some((r) => r.tag === '2044')).toBeFalse();
  });

  it('say who fitted it, when, how far it ran, and the fault that was recorded with its step', () => {
    const off = all.find((r) => r.tag === '2027')!;
    expect(off.kit).toBe('MF-K121-1');
    expect(off.shop).toBe('low ferry workshop');
    expect(off.km).toBe(6300);
    expect(off.faults).toEqual([{ code: 'SET-WAY', step: 'tension' }]);
    expect(off.fitted < off.failed).toBeTrue();
    // what is not known is empty, never a guess
    for (const r of all) if (r.km !== undefined) expect(r.km).withContext(r.tag).toBeGreaterThanOrEqual(0);
  });
});
