import { factOf as fact } from '@core/facts/facts.fixture';
import { reduce } from '@core/facts/state';
import { waitingOf } from './promise';
import { checkSeals, makeSeal } from './seal';

const at = (day: string) => `${day}T10:00:00.000Z`;

describe('how long a claim waits', () => {
  it('is counted from its first fact, against what is promised, and ends with a seal over all of it', () => {
    const first = fact('claim.number', 'C-1', { at: at('2026-11-01') });
    const state = reduce([first]);
    const on = (today: string) => waitingOf(state, [], today, 14);
    expect(on('2026-11-15')).toEqual({ since: '2026-11-01', days: 14, over: 0 });
    expect(on('2026-11-16')?.over).toBe(1);
    expect(on('2026-10-20')?.days).toBe(0);
    expect(waitingOf(reduce([]), [], '2026-11-15', 14)).toBeUndefined();
    let n = 0;
    const author = { by: 'T', now: () => at('2026-11-09'), newId: () => `s${++n}` };
    const sealed = reduce([first, ...makeSeal(state, 'c', [], author)]);
    expect(waitingOf(sealed, checkSeals(sealed), '2026-12-24', 14)?.days).toBe(8);
    // issued once more, with nothing new
    const again = reduce([
      ...sealed.log,
      ...makeSeal(sealed, 'c', [], { ...author, now: () => at('2026-11-30') }),
    ]);
    expect(waitingOf(again, checkSeals(again), '2026-12-24', 14)?.days).toBe(8);
    const later = reduce([...sealed.log, fact('belt.back', 'cracked', { at: at('2026-11-20') })]);
    expect(waitingOf(later, checkSeals(later), '2026-11-25', 14)?.days).toBe(24);
  });
});
