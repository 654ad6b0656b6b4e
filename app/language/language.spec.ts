import { list } from './list';
import { lower } from './lower';
import { counted, plural } from './plural';

describe('the parts of a sentence', () => {
  it('are lists of none, one, two and more, of all or of any', () => {
    expect([[], ['a'], ['a', 'b'], ['a', 'b', 'c']].map((w) => list(w))).toEqual([
      '',
      'a',
      'a and b',
      'a, b and c',
    ]);
    expect(list(['a', 'b', 'c'], 'or')).toBe('a, b or c');
  });

  it('are numbers with their word: one of it, or none, several, a part', () => {
    expect([0, 1, 2, 21, 0.5].map((n) => counted(n, 'tooth', 'teeth'))).toEqual([
      '0 teeth',
      '1 tooth',
      '2 teeth',
      '21 teeth',
      '0.5 teeth',
    ]);
    expect(plural(1, 'is', 'are')).toBe('is');
  });

  it('are names with a small letter, but for signs', () => {
    expect(['Tooth roots', 'TDC', 'M8 thread'].map(lower)).toEqual(['tooth roots', 'TDC', 'M8 thread']);
  });
});
