/** Where a picture was taken is nobody's business on a bench: what says so is taken out, pixels and the rest stay as they are. */
export type Cleaned = { bytes: Uint8Array<ArrayBuffer>; found: boolean };

/** Tag of the directory of positions in the first directory of a TIFF (CIPA DC-008, Exif 2.32, 4.6.3). */
const POSITIONS = 0x8825;
const SPACE = 0x20;
const SIZES = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8];

const latin = (b: Uint8Array, at: number, n: number): string =>
  String.fromCharCode(...b.subarray(at, at + n));

/**
 * Blanks the directory of positions of a TIFF in place: its entries, what they point at, and the pointer to it. What does not hold together is left alone.
 * @param from first byte of the TIFF; @param to one behind its last
 */
function blankPositions(bytes: Uint8Array, from: number, to: number): boolean {
  const order = latin(bytes, from, 2);
  if (to - from < 14 || (order !== 'II' && order !== 'MM')) return false;
  const little = order === 'II';
  const view = new DataView(bytes.buffer, bytes.byteOffset + from, to - from);
  const fits = (at: number, n: number) => at >= 8 && at + n <= to - from;
  const entriesOf = (at: number): number[] =>
    fits(at, 2) && fits(at + 2, 12 * view.getUint16(at, little))
      ? Array.from({ length: view.getUint16(at, little) }, (_, i) => at + 2 + 12 * i)
      : [];
  let found = false;
  for (const e of entriesOf(view.getUint32(4, little))) {
    if (view.getUint16(e, little) !== POSITIONS) continue;
    for (const p of entriesOf(view.getUint32(e + 8, little))) {
      found = true;
      const length = (SIZES[view.getUint16(p + 2, little)] ?? 0) * view.getUint32(p + 4, little);
      const at = view.getUint32(p + 8, little);
      if (length > 4 && fits(at, length)) bytes.fill(0, from + at, from + at + length);
      bytes.fill(0, from + p, from + p + 12);
    }
    bytes.fill(0, from + e + 8, from + e + 12);
  }
  return found;
}

/** A packet of described properties (XMP) is text: blanked as a whole when it names a position. */
function blankPacket(bytes: Uint8Array, from: number, to: number): boolean {
  const text = new TextDecoder('latin1').decode(bytes.subarray(from, to));
  if (!/GPS|Location|Coordinates/i.test(text)) return false;
  bytes.fill(SPACE, from, to);
  return true;
}

const EXIF = 'Exif\0\0';
const PACKET = 'http://ns.adobe.com/xap/1.0/\0';

function cleanJpeg(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  let found = false;
  // Segments up to the start of the scan; behind it are pixels.
  for (let at = 2; at + 4 <= bytes.length && bytes[at] === 0xff; ) {
    const [marker, length] = [bytes[at + 1]!, view.getUint16(at + 2)];
    if (marker === 0xda || length < 2) break;
    const [from, to] = [at + 4, Math.min(bytes.length, at + 2 + length)];
    if (marker === 0xe1 && latin(bytes, from, EXIF.length) === EXIF)
      found = blankPositions(bytes, from + EXIF.length, to) || found;
    else if (marker === 0xe1 && latin(bytes, from, PACKET.length) === PACKET)
      found = blankPacket(bytes, from + PACKET.length, to) || found;
    at += 2 + length;
  }
  return found;
}

/** Chunks of a PNG that say more than pixels: their check sums forbid blanking, so they go as a whole. */
function cleanPng(bytes: Uint8Array<ArrayBuffer>): Cleaned {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const kept: Uint8Array[] = [bytes.subarray(0, 8)];
  let found = false;
  let at = 8;
  while (at + 12 <= bytes.length) {
    const [length, kind] = [view.getUint32(at), latin(bytes, at + 4, 4)];
    const end = Math.min(bytes.length, at + 12 + length);
    const says = latin(bytes, at + 8, Math.min(40, length));
    const place = kind === 'eXIf' || (/^[it]TXt|zTXt/.test(kind) && /^(XML:com|Raw profile type)/.test(says));
    if (place) found = true;
    else kept.push(bytes.subarray(at, end));
    at = end;
  }
  if (!found) return { bytes, found };
  const out = new Uint8Array(kept.reduce((n, k) => n + k.length, 0) + bytes.length - at);
  let to = 0;
  for (const k of [...kept, bytes.subarray(at)]) {
    out.set(k, to);
    to += k.length;
  }
  return { bytes: out, found };
}

/** Chunks of a WebP have no check sums. */
function cleanWebp(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  let found = false;
  for (let at = 12; at + 8 <= bytes.length; ) {
    const [kind, length] = [latin(bytes, at, 4), view.getUint32(at + 4, true)];
    const [from, to] = [at + 8, Math.min(bytes.length, at + 8 + length)];
    if (kind === 'EXIF')
      found =
        blankPositions(bytes, latin(bytes, from, EXIF.length) === EXIF ? from + EXIF.length : from, to) ||
        found;
    if (kind === 'XMP ') found = blankPacket(bytes, from, to) || found;
    at += 8 + length + (length % 2);
  }
  return found;
}

/**
 * A picture without where it was taken: JPEG and WebP are blanked in place, PNG loses the chunks; turn, time and camera stay in the first two. Bytes of any
 * other kind come back as they are.
 * @returns the bytes, new ones when something was found
 */
export function withoutLocation(original: Uint8Array<ArrayBuffer>): Cleaned {
  if (original[0] === 0x89 && latin(original, 1, 3) === 'PNG') return cleanPng(original);
  const clean =
    original[0] === 0xff && original[1] === 0xd8
      ? cleanJpeg
      : latin(original, 0, 4) === 'RIFF' && latin(original, 8, 4) === 'WEBP'
        ? cleanWebp
        : undefined;
  if (!clean) return { bytes: original, found: false };
  const bytes = original.slice();
  return clean(bytes) ? { bytes, found: true } : { bytes: original, found: false };
}
