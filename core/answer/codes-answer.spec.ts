import { codeMeaning } from '@core/examination/codes';
import { causesFor, CAUSES } from '@core/cause/cause-data';
import { reduce } from '@core/facts/state';
import { codesAnswer } from './codes-answer';

const filed = (codes: string[]) =>
  reduce([
    {
      id: 'a',
      case: 'c',
      key: 'fault.codes',
      value: codes,
      how: 'reported',
      by: 'me',
      at: '2026-11-26T08:00:00.000Z',
    },
  ]);

describe('fault codes', () => {
  it('accuse a shaft, a bank and a sensor; those of other families nothing', () => {
    const meaning = (code: string) => {
      const m = codeMeaning(code);
      return m && [m.kind, m.shaft ?? `${m.bank}${m.sensor}`];
    };
    expect(meaning('P0017')).toEqual(['correlation', '1B']);
    expect(meaning('P0339')).toEqual(['signal', 'crank']);
    expect(meaning('P0391')).toEqual(['signal', '2B']);
    expect(meaning('P0021')).toEqual(['response', '2A']);
    for (const other of ['P0026', 'P0334', 'P0420', 'P0395', 'P1016'])
      expect(meaning(other)).withContext(other).toBeUndefined();
    expect(codesAnswer(filed(['P0420']), CAUSES)).toEqual([]);
  });

  it('name what of this drive sets them, the surest first, and nothing that it cannot have', () => {
    const of = (has: string[]) => codesAnswer(filed(['P0016']), causesFor(CAUSES, new Set(has)))[0]!.setBy;
    const share = (wording: string) =>
      CAUSES.mechanisms.find((m) => m.wording === wording)!.shows['codes.shown']!['correlation']!;
    const shares = of(['belt', 'mark']).map(share);
    expect(shares.length).toBeGreaterThan(2);
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
    const every = CAUSES.mechanisms.filter((m) => m.shows['codes.shown']?.['correlation']);
    expect(of([]).length).toBe(every.filter((m) => !m.needs?.length).length);
  });
});
