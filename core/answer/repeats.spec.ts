import { caseOf, cat } from './demo-case.fixture';
import { type CaseSummary, summaryOf } from './case-summary';
import { repeatsOf } from './repeats';
import { fitterOf } from './workshop';
import { worldOf } from './world';
import type { Fact } from '@core/facts/fact';
import { factOf } from '@core/facts/facts.fixture';
import { reduce } from '@core/facts/state';

const world = worldOf(cat);
/** The demo's settled case again, from another shop or begun on another day. */
function again(id: string, opened: string, ...more: Fact[]): CaseSummary {
  const facts = caseOf('2027').map((f) => ({ ...f, case: id }));
  return { ...summaryOf(id, [...facts, ...more], world), opened };
}
const codes = (s: CaseSummary) => (s.books?.faults ?? []).map((f) => f.code);

describe('faults that a workshop had before', () => {
  const mine = again('mine', '2026-06-01');
  const [fault] = mine.books!.faults!;
  const ask = (summaries: CaseSummary[], code = fault!.code, step: string | null = fault!.step) =>
    repeatsOf(summaries, {
      id: 'mine',
      opened: mine.opened,
      shop: mine.books!.shop!,
      code,
      step: step ?? undefined,
    });

  it('are those that were recorded, of the same workshop, on cases begun before', () => {
    expect(codes(mine).length).toBeGreaterThan(0);
    const other = factOf('call.who', 'Ann Lee, Another Yard', { at: '2036-12-01T00:00:00Z', seen: 1e6 });
    const all = [
      again('a', '2026-01-01'),
      again('b', '2026-05-31'),
      mine,
      again('later', '2026-06-02'),
      again('other', '2026-01-01', { ...other, id: 'zz', case: 'other' }),
    ];
    expect(ask(all).fault.map((s) => s.id)).toEqual(['a', 'b']);
    expect(ask(all).step).toEqual([]);
    // another fault at the same step is told apart; a step that is not known is like no other
    expect(ask(all, 'ANO-THER').step.map((s) => s.id)).toEqual(['a', 'b']);
    expect(ask(all, 'ANO-THER', null).step).toEqual([]);
  });

  it('are laid to nobody where somebody else fitted it', () => {
    const by = (value?: string) =>
      fitterOf(
        reduce([
          factOf('call.who', 'Odo, Reed Lane Motors'),
          ...(value === undefined ? [] : [factOf('kit.fitted_by', value)]),
        ]),
      );
    expect([by(), by('caller'), by('other'), by('owner'), by('before')]).toEqual([
      'reed lane motors',
      'reed lane motors',
      '',
      '',
      '',
    ]);
    expect(
      repeatsOf([again('a', '2026-01-01')], { id: 'x', opened: '2027', shop: '', code: 'SET-WAY', step: 's' })
        .fault,
    ).toEqual([]);
  });
});
