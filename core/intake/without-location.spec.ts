import { withoutLocation } from './without-location';

const text = (s: string) => [...s].map((c) => c.charCodeAt(0));
const MARK = 54321;

/** A TIFF with a turn, a camera and a position, put together by hand. */
function tiff(little: boolean): number[] {
  const n = (v: number, size: 2 | 4) => {
    const bytes = Array.from({ length: size }, (_, i) => (v >>> (8 * i)) & 255);
    return little ? bytes : bytes.reverse();
  };
  const entry = (tag: number, type: number, count: number, value: number[]) => [
    ...n(tag, 2),
    ...n(type, 2),
    ...n(count, 4),
    ...value,
  ];
  const short = (v: number) => [...n(v, 2), 0, 0];
  return [
    ...text(little ? 'II' : 'MM'),
    ...n(42, 2),
    ...n(8, 4),
    // turn 6, camera "bench" at 50, positions at 56
    ...n(3, 2),
    ...entry(0x0112, 3, 1, short(6)),
    ...entry(0x0110, 2, 6, n(50, 4)),
    ...entry(0x8825, 4, 1, n(56, 4)),
    ...n(0, 4),
    ...text('bench\0'),
    // reference N, latitude as three fractions at 86
    ...n(2, 2),
    ...entry(1, 2, 2, text('N\0\0\0')),
    ...entry(2, 5, 3, n(86, 4)),
    ...n(0, 4),
    ...[MARK, 1, MARK, 1, MARK, 1].flatMap((v) => n(v, 4)),
  ];
}
const segment = (marker: number, body: number[]) => [
  0xff,
  marker,
  ((body.length + 2) >> 8) & 255,
  (body.length + 2) & 255,
  ...body,
];
const jpeg = (...segments: number[][]) =>
  new Uint8Array([0xff, 0xd8, ...segments.flat(), ...segment(0xda, [1, 2]), 7, 7, 7, 0xff, 0xd9]);
const exif = (little: boolean) => segment(0xe1, [...text('Exif\0\0'), ...tiff(little)]);
const holds = (b: Uint8Array, bytes: number[]) => b.some((_, i) => bytes.every((v, k) => b[i + k] === v));
const mark = (little: boolean) => (little ? [MARK & 255, MARK >> 8] : [MARK >> 8, MARK & 255]);

describe('where a picture was taken', () => {
  for (const little of [true, false])
    it(`is taken out of a JPEG, and turn, camera and pixels stay (${little ? 'little' : 'big'} end first)`, () => {
      const original = jpeg(exif(little));
      const before = original.slice();
      expect(holds(original, mark(little))).toBeTrue();
      const { bytes, found } = withoutLocation(original);
      expect(found).toBeTrue();
      expect(holds(bytes, mark(little))).toBeFalse();
      expect(holds(bytes, text('bench'))).toBeTrue();
      expect(holds(bytes, little ? [0x12, 1, 3, 0] : [1, 0x12, 0, 3])).toBeTrue();
      expect(bytes.slice(-9)).toEqual(original.slice(-9));
      expect(bytes.length).toBe(original.length);
      // the bytes that came are not touched, and a second time nothing is left to find
      expect(original).toEqual(before);
      expect(withoutLocation(bytes)).toEqual({ bytes, found: false });
    });

  it('is taken out of described properties, which stay when they name no place', () => {
    const packet = (s: string) => segment(0xe1, [...text('http://ns.adobe.com/xap/1.0/\0'), ...text(s)]);
    const named = withoutLocation(jpeg(packet('<x exif:GPSLatitude="54,32.1N"/>')));
    expect(named.found).toBeTrue();
    expect(holds(named.bytes, text('54,32'))).toBeFalse();
    const plain = jpeg(packet('<x xmp:Rating="3"/>'));
    expect(withoutLocation(plain).bytes).toBe(plain);
  });

  it('goes out of a PNG with its chunk and out of a WebP in place', () => {
    const chunk = (kind: string, body: number[]) => [
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
    const head = [0x89, ...text('PNG'), 13, 10, 26, 10];
    const plain = [...head, ...chunk('IHDR', [1, 2]), ...chunk('IDAT', [3]), ...chunk('IEND', [])];
    const png = new Uint8Array([
      ...head,
      ...chunk('IHDR', [1, 2]),
      ...chunk('eXIf', tiff(false)),
      ...chunk('iTXt', text('XML:com.adobe.xmp')),
      ...chunk('IDAT', [3]),
      ...chunk('IEND', []),
    ]);
    expect([...withoutLocation(png).bytes]).toEqual(plain);
    const body = tiff(true);
    const webp = new Uint8Array([
      ...text('RIFF'),
      0,
      0,
      0,
      0,
      ...text('WEBPEXIF'),
      body.length,
      0,
      0,
      0,
      ...body,
    ]);
    const clean = withoutLocation(webp);
    expect([clean.found, clean.bytes.length, holds(clean.bytes, mark(true))]).toEqual([
      true,
      webp.length,
      false,
    ]);
  });

  it('is not looked for in what is no picture, and a picture cut anywhere comes back whole', () => {
    const whole = jpeg(exif(true));
    for (let n = 0; n <= whole.length; n++) expect(withoutLocation(whole.slice(0, n)).bytes.length).toBe(n);
    const paper = new Uint8Array(text('%PDF-1.7 GPSLatitude'));
    expect(withoutLocation(paper)).toEqual({ bytes: paper, found: false });
  });
});
