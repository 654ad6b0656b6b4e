import { agreed } from './agreed';

describe('what all of several say', () => {
  it('is said only where none differs and none is silent', () => {
    expect(agreed([{ a: [1] }, { a: [1] }])).toEqual({ a: [1] });
    expect(agreed(['x'])).toBe('x');
    for (const none of [
      [],
      [undefined],
      ['x', undefined],
      [undefined, 'x'],
      ['x', 'y'],
      [{ a: 1 }, { a: 2 }],
    ])
      expect(agreed<unknown>(none)).toBeUndefined();
  });
});
