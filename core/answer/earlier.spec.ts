import { askedThisMonth, earlierCases } from './earlier';
import { workshopOf } from './workshop';
import type { CaseSummary } from './case-summary';

const head = (id: string, more: Partial<CaseSummary>): CaseSummary => ({
  id,
  tag: id,
  engine: 'OL25-FLET',
  who: '',
  kind: 'question',
  waits: 'answer',
  opened: '2026-11-20T08:00:00.000Z',
  touched: '2026-11-20T08:00:00.000Z',
  text: '',
  world: '',
  ...more,
});
const mine = {
  id: 'me',
  who: 'Jory Pellbrook, Tidewall Garage',
  engine: 'OL25-FLET',
  kit: 'MF-K305A-1',
  vehicle: 'Oldhaven Moorland estate',
  asked: ['Marks right'],
};

describe('earlier cases', () => {
  it('are told by workshop, kit, vehicle or question, never by the engine alone nor by the case itself', () => {
    const summaries = [
      head('me', { text: 'marks right' }),
      head('engine', {}),
      head('shop', { engine: 'X', who: 'Another Person, tidewall garage' }),
      head('kit', { engine: 'X', text: 'a\nmf-k305a-1\nb' }),
      head('part of a kit', { engine: 'X', text: 'a\nmf-k305a-12\nb' }),
      head('question', { text: 'marks right' }),
      head('other engine', { engine: 'X', text: 'marks right\noldhaven moorland estate' }),
      head('all', { who: 'Tidewall Garage', text: 'mf-k305a-1\nmarks right\noldhaven moorland estate' }),
    ];
    const found = earlierCases(summaries, mine, 10);
    expect(found[0]!.summary.id).toBe('all');
    expect(found[0]!.shares).toEqual(['caller', 'vehicle', 'kit', 'question', 'engine']);
    expect(found.map((e) => e.summary.id).sort()).toEqual(['all', 'kit', 'question', 'shop']);
    expect(earlierCases(summaries, mine, 2).length).toBe(2);
    expect(earlierCases(summaries, { id: 'me', asked: [] }, 10)).toEqual([]);
  });

  it('count what was asked within a month, to the day', () => {
    const at = (day: string) => head(day, { text: 'marks right', opened: `${day}T08:00:00.000Z` });
    const found = earlierCases([at('2026-11-24'), at('2026-10-25'), at('2026-10-24')], mine, 10);
    expect(askedThisMonth(found, '2026-11-25')).toBe(2);
  });

  it('know a workshop by what stands behind the last comma', () => {
    expect(workshopOf('Jory Pellbrook, Tidewall Garage')).toBe(workshopOf('TIDEWALL GARAGE'));
    expect(workshopOf('')).toBe('');
  });
});
