import * as fc from 'fast-check';
import { fileNameText, headerText } from './header-text';

describe('a text in a heading', () => {
  it('is one line that nothing in it can end, turn round or hide', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 400 }), (text) => {
        const h = headerText(text);
        expect(/[\p{Cc}\p{Zl}\p{Zp}\u202e\u2066]/u.test(h)).toBeFalse();
        expect(h.length).toBeLessThanOrEqual(200);
        expect(headerText(h)).toBe(h);
      }),
    );
    expect(headerText('Ada\r\nBcc: all@x.invalid')).toBe('Ada Bcc: all@x.invalid');
  });

  it('names a file by its own name: no folder, no way up, no mark of direction', () => {
    expect(fileNameText('..\\..\\etc/passwd')).toBe('passwd');
    expect(fileNameText('C:\\cam\\belt photo.jpg')).toBe('belt photo.jpg');
    expect(fileNameText('belt\u202egpj.exe')).toBe('belt gpj.exe');
    for (const nothing of ['', '..', '/', '\u202e']) expect(fileNameText(nothing)).toBe('file');
  });
});
