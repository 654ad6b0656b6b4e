import * as fc from 'fast-check';
import { cleanPicture } from './clean-picture';

const text = (s: string) => [...s].map((c) => c.charCodeAt(0));
/** What must not come through, wherever it hides. */
const SECRET = 'N54.3210';
const secret = text(SECRET);
const holds = (b: Uint8Array, bytes: readonly number[]) =>
  b.some((_, i) => bytes.every((v, k) => b[i + k] === v));

const segment = (marker: number, body: readonly number[]) => [
  0xff,
  marker,
  ((body.length + 2) >> 8) & 255,
  (body.length + 2) & 255,
  ...body,
];
/** A TIFF whose first directory says which way up, and which holds the secret. */
const tiff = (turn: number) => [
  ...text('II*\0'),
  ...[8, 0, 0, 0, 1, 0, 0x12, 1, 3, 0, 1, 0, 0, 0, turn, 0, 0, 0, 0, 0, 0, 0],
  ...secret,
];
const DRAWN = [...segment(0xdb, [0, 1, 2]), ...segment(0xc0, [8, 0, 1]), ...segment(0xc4, [0, 3])];
const SCAN = [...segment(0xda, [1, 2]), 7, 0xff, 0, 7, 0xff, 0xd0, 7];
const jpeg = (inside: readonly number[] = [], behind: readonly number[] = []) =>
  new Uint8Array([0xff, 0xd8, ...inside, ...DRAWN, ...SCAN, ...segment(0xda, [3]), 9, 0xff, 0xd9, ...behind]);

const chunk = (kind: string, body: readonly number[]) => [
  0,
  0,
  0,
  body.length,
  ...text(kind),
  ...body,
  1,
  2,
  3,
  4,
];
const png = (inside: readonly number[] = [], behind: readonly number[] = []) =>
  new Uint8Array([
    0x89,
    ...text('PNG'),
    ...[13, 10, 26, 10],
    ...chunk('IHDR', [1, 2]),
    ...inside,
    ...chunk('IDAT', [3]),
    ...chunk('IEND', []),
    ...behind,
  ]);
const le = (n: number) => [n & 255, (n >> 8) & 255, (n >> 16) & 255, n >>> 24];
const riff = (kind: string, body: readonly number[]) => [
  ...text(kind),
  ...le(body.length),
  ...body,
  ...(body.length % 2 ? [0] : []),
];
const webp = (inside: readonly number[] = [], behind: readonly number[] = []) =>
  new Uint8Array([
    ...riff('RIFF', [
      ...text('WEBP'),
      ...riff('VP8X', [0x2c, 0, 0, 0, 1, 0, 0, 1, 0, 0]),
      ...riff('VP8 ', [1, 2, 3]),
      ...inside,
    ]),
    ...behind,
  ]);
const blocks = (body: readonly number[]) => [body.length, ...body, 0];
const gif = (inside: readonly number[] = [], behind: readonly number[] = []) =>
  new Uint8Array([
    ...text('GIF89a'),
    ...[1, 0, 1, 0, 0x80, 0, 0],
    ...[0, 0, 0, 9, 9, 9],
    ...inside,
    ...[0x2c, 0, 0, 0, 0, 1, 0, 1, 0, 0, 2],
    ...blocks([4, 1]),
    0x3b,
    ...behind,
  ]);

/** Where a camera, a phone or a program puts what it knows of a place. */
const HIDDEN: readonly [string, Uint8Array<ArrayBuffer>][] = [
  ['JPEG: positions', jpeg(segment(0xe1, [...text('Exif\0\0'), ...tiff(6)]))],
  ['JPEG: described properties', jpeg(segment(0xe1, [...text('http://ns.adobe.com/xap/1.0/\0'), ...secret]))],
  [
    'JPEG: extended properties',
    jpeg(segment(0xe1, [...text('http://ns.adobe.com/xmp/extension/\0'), ...secret])),
  ],
  ['JPEG: captions', jpeg(segment(0xed, [...text('Photoshop 3.0\0'), ...secret]))],
  ['JPEG: a comment', jpeg(segment(0xfe, secret))],
  ['JPEG: a camera’s own segment', jpeg(segment(0xe5, secret))],
  ['JPEG: an index of second pictures', jpeg(segment(0xe2, [...text('MPF\0'), ...secret]))],
  ['JPEG: a small picture', jpeg(segment(0xe0, [...text('JFXX\0'), ...secret]))],
  ['JPEG: behind its end', jpeg([], secret)],
  ['JPEG: a second picture behind its end', jpeg([], [...jpeg(segment(0xfe, secret))])],
  ['PNG: positions', png(chunk('eXIf', secret))],
  ['PNG: a text', png(chunk('tEXt', secret))],
  ['PNG: a packed text', png(chunk('zTXt', secret))],
  ['PNG: a text of any language', png(chunk('iTXt', secret))],
  ['PNG: a time', png(chunk('tIME', secret))],
  ['PNG: a program’s own chunk', png(chunk('vpAg', secret))],
  ['PNG: behind its end', png([], secret)],
  ['WebP: positions', webp(riff('EXIF', secret))],
  ['WebP: described properties', webp(riff('XMP ', secret))],
  ['WebP: an unknown chunk', webp(riff('ZZZZ', secret))],
  ['WebP: inside a frame', webp(riff('ANMF', [...Array<number>(16).fill(0), ...riff('ZZZZ', secret)]))],
  ['WebP: behind its end', webp([], secret)],
  ['GIF: a comment', gif([0x21, 0xfe, ...blocks(secret)])],
  ['GIF: another application', gif([0x21, 0xff, 11, ...text('XMP DataXMP'), ...blocks(secret)])],
  ['GIF: plain text', gif([0x21, 0x01, ...blocks(secret)])],
  ['GIF: behind its end', gif([], secret)],
];

describe('where a picture was taken', () => {
  for (const [where, original] of HIDDEN)
    it(`stays outside: ${where}`, () => {
      const before = original.slice();
      expect(holds(original, secret)).toBeTrue();
      const r = cleanPicture(original);
      if (r.kind !== 'picture') return fail(r.kind);
      expect(r.removed).toBeTrue();
      expect(holds(r.bytes, secret)).toBeFalse();
      expect(original).toEqual(before);
      // a second time nothing is left to leave out
      expect(cleanPicture(r.bytes)).toEqual({ kind: 'picture', bytes: r.bytes, removed: false });
    });

  it('leaves what draws as it was, and which way up a picture is', () => {
    for (const plain of [jpeg(), png(), gif()])
      expect(cleanPicture(plain)).toEqual({ kind: 'picture', bytes: plain, removed: false });
    for (const turn of [2, 6, 8]) {
      const r = cleanPicture(jpeg(segment(0xe1, [...text('Exif\0\0'), ...tiff(turn)])));
      if (r.kind !== 'picture') return fail(r.kind);
      const exif = r.bytes.findIndex((_, i) => holds(r.bytes.subarray(i, i + 4), text('Exif')));
      expect(r.bytes[exif + 6 + 18]).toBe(turn);
      expect([...r.bytes.slice(-SCAN.length - 8)]).toEqual([...jpeg().slice(-SCAN.length - 8)]);
    }
    // An extended head no longer announces what is gone; colours stay.
    const w = cleanPicture(webp(riff('ICCP', [5, 5])));
    expect(w.kind === 'picture' && w.bytes[20]! & 0x0c).toBe(0);
    expect(w.kind === 'picture' && holds(w.bytes, text('ICCP'))).toBeTrue();
  });

  it('is refused where it cannot be left out: kinds that are not cleaned here, and pictures that do not hold together', () => {
    const foreign = [
      'II*\0',
      'MM\0*',
      '8BPS',
      '\0\0\0\x18ftypheic',
      '\0\0\0\x18ftypavif',
      '\0\0\0\x18ftypcrx ',
      '\0\0\0\x0cjP  ',
      '\xff\x0a',
    ];
    for (const f of foreign)
      expect(cleanPicture(new Uint8Array([...text(f), ...secret, ...secret])))
        .withContext(f)
        .toEqual({ kind: 'refused', why: 'format' });
    expect(cleanPicture(new Uint8Array(text(`<svg>${SECRET}</svg>`)), 'image/svg+xml').kind).toBe('refused');
    const paper = new Uint8Array(text('%PDF-1.7 of a claim'));
    expect(cleanPicture(paper, 'application/pdf')).toEqual({ kind: 'other', bytes: paper });
  });

  it('does not come through by cutting a file anywhere, nor by any bytes at all', () => {
    for (const [where, whole] of HIDDEN)
      for (let n = 2; n <= whole.length; n++) {
        const r = cleanPicture(whole.slice(0, n), 'image/jpeg');
        if (r.kind === 'picture') expect(holds(r.bytes, secret)).withContext(`${where} ${n}`).toBeFalse();
        else expect(r.kind).withContext(`${where} ${n}`).toBe('refused');
      }
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), fc.constantFrom(...HIDDEN), (noise, [, whole]) => {
        const bent = whole.slice();
        noise.forEach((v, i) => {
          if (i % 9 === 0) bent[2 + ((v * 7 + i) % (bent.length - 2))] = v;
        });
        expect(['picture', 'refused', 'other']).toContain(cleanPicture(bent).kind);
      }),
    );
  });
});
