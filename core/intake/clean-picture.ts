import { byteAt } from '@core/quantity/must';
import { joinBytes } from '@core/quantity/bytes';

/**
 * A picture is kept with what is needed to draw it and nothing else: where it was taken, by whom, a smaller picture of it and
 * whatever hangs behind its end stay outside. What may stay is listed; what is not listed goes.
 */
export type Cleaned =
  /** `removed`: something was left out; else the bytes are those that came. */
  | { kind: 'picture'; bytes: Uint8Array<ArrayBuffer>; removed: boolean }
  | { kind: 'other'; bytes: Uint8Array<ArrayBuffer> }
  /** A kind of picture that cannot be cleaned here, or one that does not hold together. */
  | { kind: 'refused'; why: 'format' | 'broken' };

type Bytes = Uint8Array<ArrayBuffer>;
const latin = (b: Uint8Array, at: number, n: number): string =>
  String.fromCharCode(...b.subarray(at, at + n));
const asBytes = (text: string): number[] => [...text].map((c) => c.charCodeAt(0));

/** Orientation in the first directory of a TIFF (CIPA DC-008, Exif 2.32, 4.6.4): 1 to 8, or none. */
function orientationOf(exif: Uint8Array): number | undefined {
  const order = latin(exif, 0, 2);
  if (exif.length < 14 || (order !== 'II' && order !== 'MM')) return undefined;
  const little = order === 'II';
  const view = new DataView(exif.buffer, exif.byteOffset, exif.length);
  const at = view.getUint32(4, little);
  if (at + 2 > exif.length) return undefined;
  for (let i = 0; i < view.getUint16(at, little); i++) {
    const e = at + 2 + 12 * i;
    if (e + 12 > exif.length) return undefined;
    if (view.getUint16(e, little) !== 0x0112) continue;
    const turn = view.getUint16(e + 8, little);
    return turn >= 1 && turn <= 8 ? turn : undefined;
  }
  return undefined;
}

/** A segment that says which way up a picture is, and nothing else. */
const orientationSegment = (turn: number): Uint8Array =>
  new Uint8Array([
    ...[0xff, 0xe1, 0, 34],
    ...asBytes('Exif\0\0II*\0'),
    ...[8, 0, 0, 0, 1, 0],
    ...[0x12, 1, 3, 0, 1, 0, 0, 0, turn, 0, 0, 0],
    ...[0, 0, 0, 0],
  ]);

/** Segments of application markers that a picture is drawn by: its density, its colours, how they are coded (ITU-T T.81, T.871, T.872; ICC.1). */
const KEPT_APP: readonly [number, string][] = [
  [0xe0, 'JFIF\0'],
  [0xe2, 'ICC_PROFILE\0'],
  [0xee, 'Adobe'],
];
/** Tables, frames, scans and restarts. */
const isDrawn = (marker: number): boolean =>
  (marker >= 0xc0 && marker <= 0xcf) || marker === 0xda || marker === 0xdb || marker === 0xdd;

function jpeg(b: Bytes): Bytes | undefined {
  const out: Uint8Array[] = [b.subarray(0, 2)];
  let turn: number | undefined;
  let at = 2;
  while (at + 2 <= b.length) {
    if (b[at] !== 0xff) return undefined;
    const marker = byteAt(b, at + 1);
    if (marker === 0xff) {
      at++;
      continue;
    }
    if (marker === 0xd9) {
      if (turn !== undefined && turn !== 1) out.splice(1, 0, orientationSegment(turn));
      return joinBytes([...out, b.subarray(at, at + 2)]);
    }
    if (at + 4 > b.length) return undefined;
    const end = at + 2 + ((byteAt(b, at + 2) << 8) | byteAt(b, at + 3));
    if (end > b.length || end < at + 4) return undefined;
    if (marker === 0xe1 && latin(b, at + 4, 6) === 'Exif\0\0')
      turn ??= orientationOf(b.subarray(at + 10, end));
    const kept =
      isDrawn(marker) || KEPT_APP.some(([m, name]) => m === marker && latin(b, at + 4, name.length) === name);
    if (kept) out.push(b.subarray(at, end));
    at = end;
    if (marker !== 0xda) continue;
    // Behind a scan's head are its pixels, up to the next marker that is no restart.
    let to = at;
    while (
      to + 1 < b.length &&
      !(b[to] === 0xff && b[to + 1] !== 0 && !(byteAt(b, to + 1) >= 0xd0 && byteAt(b, to + 1) <= 0xd7))
    )
      to++;
    out.push(b.subarray(at, to));
    at = to;
  }
  return undefined;
}

const PNG_KEPT = new Set(
  'IHDR PLTE IDAT IEND tRNS gAMA cHRM sRGB iCCP cICP sBIT bKGD pHYs acTL fcTL fdAT'.split(' '),
);

/** PNG (W3C, 3rd edition): chunks that draw, up to its end. */
function png(b: Bytes): Bytes | undefined {
  const view = new DataView(b.buffer, b.byteOffset, b.length);
  const out: Uint8Array[] = [b.subarray(0, 8)];
  for (let at = 8; at + 12 <= b.length; ) {
    const end = at + 12 + view.getUint32(at);
    const kind = latin(b, at + 4, 4);
    if (end > b.length) return undefined;
    if (PNG_KEPT.has(kind)) out.push(b.subarray(at, end));
    if (kind === 'IEND') return joinBytes(out);
    at = end;
  }
  return undefined;
}

const WEBP_KEPT = new Set(['VP8 ', 'VP8L', 'VP8X', 'ALPH', 'ANIM', 'ANMF', 'ICCP']);
/** Flags of an extended head that announce positions and descriptions. */
const WEBP_SAYS = 0x08 | 0x04;
/** Bytes of a frame's own head before the chunks in it. */
const FRAME_HEAD = 16;

function webpChunks(b: Bytes, from: number, to: number): Uint8Array[] | undefined {
  const view = new DataView(b.buffer, b.byteOffset, b.length);
  const out: Uint8Array[] = [];
  for (let at = from; at < to; ) {
    if (at + 8 > to) return undefined;
    const [kind, length] = [latin(b, at, 4), view.getUint32(at + 4, true)];
    const end = at + 8 + length + (length % 2);
    if (at + 8 + length > to) return undefined;
    if (kind === 'ANMF') {
      const inner = webpChunks(b, at + 8 + FRAME_HEAD, at + 8 + length);
      if (!inner) return undefined;
      const body = joinBytes([b.subarray(at + 8, at + 8 + FRAME_HEAD), ...inner]);
      out.push(chunkOf(kind, body));
    } else if (kind === 'VP8X') {
      const own = b.slice(at, Math.min(end, to));
      own[8] = byteAt(own, 8) & ~WEBP_SAYS;
      out.push(own);
    } else if (WEBP_KEPT.has(kind)) out.push(b.subarray(at, Math.min(end, to)));
    at = end;
  }
  return out;
}

function chunkOf(kind: string, body: Uint8Array): Bytes {
  const head = new Uint8Array(8);
  head.set(asBytes(kind));
  new DataView(head.buffer).setUint32(4, body.length, true);
  return joinBytes([head, body, new Uint8Array(body.length % 2)]);
}

/** WebP (RFC 9649): chunks that draw, inside the length that its head gives. */
function webp(b: Bytes): Bytes | undefined {
  const length = new DataView(b.buffer, b.byteOffset, b.length).getUint32(4, true);
  if (8 + length > b.length || length < 4) return undefined;
  const chunks = webpChunks(b, 12, 8 + length);
  if (!chunks?.length) return undefined;
  const body = joinBytes([b.subarray(8, 12), ...chunks]);
  return chunkOf('RIFF', body);
}

/** GIF (89a): screens, colours, pictures, delays and the loop; no comment, no plain text, no other application's. */
function gif(b: Bytes): Bytes | undefined {
  const table = (flags: number) => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0);
  if (b.length < 14) return undefined;
  let at = 13 + table(byteAt(b, 10));
  const out: Uint8Array[] = [b.subarray(0, at)];
  const behindBlocks = (from: number): number | undefined => {
    let k = from;
    while (k < b.length && b[k] !== 0) k += 1 + byteAt(b, k);
    return k < b.length ? k + 1 : undefined;
  };
  while (at < b.length) {
    const kind = b[at];
    if (kind === 0x3b) return joinBytes([...out, b.subarray(at, at + 1)]);
    const from =
      kind === 0x2c ? at + 10 + table(b[at + 9] ?? 0) + 1 : kind === 0x21 ? at + 2 : Number.POSITIVE_INFINITY;
    const end = Number.isFinite(from) ? behindBlocks(from) : undefined;
    if (end === undefined) return undefined;
    const loop = b[at + 1] === 0xff && latin(b, at + 3, 11) === 'NETSCAPE2.0';
    if (kind === 0x2c || b[at + 1] === 0xf9 || loop) out.push(b.subarray(at, end));
    at = end;
  }
  return undefined;
}

/** How pictures begin that nothing here can clean: camera files, layered ones, newer kinds of JPEG. */
const FOREIGN = [
  'II*\0',
  'MM\0*',
  'IIU\0',
  'IIRO',
  '8BPS',
  'FUJIFILM',
  '\u00ff\n',
  '\0\0\0\fjP  ',
  '\0\0\0\fJXL ',
];
/** Kinds of a phone's container that hold pictures. */
const CONTAINED = ['heic', 'heix', 'heim', 'heis', 'hevc', 'hevx', 'mif1', 'msf1', 'avif', 'avis', 'crx '];

function isForeign(b: Bytes): boolean {
  const begins = latin(b, 0, 16);
  return (
    FOREIGN.some((f) => begins.startsWith(f)) ||
    (begins.slice(4, 8) === 'ftyp' && CONTAINED.includes(begins.slice(8, 12)))
  );
}

/**
 * A file as it is kept: a picture with only what is needed to draw it (JPEG, PNG, WebP, GIF; of a JPEG also which way up it is),
 * anything else as it came. Kinds of pictures that cannot be cleaned so are refused.
 * @param type what the file says it is; one that says it is a picture and is none that can be cleaned is refused
 */
export function cleanPicture(original: Bytes, type = ''): Cleaned {
  const b = original;
  const clean =
    b[0] === 0xff && b[1] === 0xd8
      ? jpeg
      : b[0] === 0x89 && latin(b, 1, 3) === 'PNG'
        ? png
        : latin(b, 0, 4) === 'RIFF' && latin(b, 8, 4) === 'WEBP'
          ? webp
          : /^GIF8[79]a/.test(latin(b, 0, 6))
            ? gif
            : undefined;
  if (!clean)
    return isForeign(b) || type.startsWith('image/')
      ? { kind: 'refused', why: 'format' }
      : { kind: 'other', bytes: b };
  const bytes = clean(b);
  if (!bytes) return { kind: 'refused', why: 'broken' };
  const same = bytes.length === b.length && bytes.every((v, i) => v === b[i]);
  return { kind: 'picture', bytes: same ? b : bytes, removed: !same };
}
