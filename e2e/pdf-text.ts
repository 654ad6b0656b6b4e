import { readFileSync } from 'node:fs';
import { inflateSync } from 'node:zlib';

/**
 * The words of a document that our own report maker set. Every typeface brings its map from glyphs to letters; which typeface a glyph
 * is of is not followed, so all of it is read by each map in turn: words are right in the reading of their own typeface.
 */
export function pdfText(path: string): string {
  const bytes = readFileSync(path);
  const raw = bytes.toString('latin1');
  const streams: string[] = [];
  for (const m of raw.matchAll(/stream\r?\n/g)) {
    const from = m.index + m[0].length;
    const to = raw.indexOf('endstream', from);
    try {
      streams.push(inflateSync(bytes.subarray(from, to)).toString('latin1'));
    } catch {
      // pictures and plain streams hold no text
    }
  }
  const maps = streams.filter((x) => x.includes('beginbfrange')).map(readMap);
  const shown = streams.filter((s) => /\bTJ\b|\bTj\b/.test(s));
  return maps
    .map((letters) =>
      shown
        .map((s) => [...s.matchAll(/<([0-9a-f]+)>/gi)].map((m) => decode(m[1]!, letters)).join(''))
        .join(' '),
    )
    .join('\n')
    .replace(/[ \u00a0]+/g, ' ');
}

function readMap(s: string): Map<string, string> {
  const letters = new Map<string, string>();
  const put = (glyph: number, hex: string) => {
    const key = glyph.toString(16).padStart(4, '0');
    const text = (hex.match(/.{4}/g) ?? []).map((h) => String.fromCharCode(parseInt(h, 16))).join('');
    letters.set(key, text);
  };
  for (const m of s.matchAll(/<([0-9a-f]{4})>\s*<([0-9a-f]{4})>\s*\[([^\]]*)\]/gi)) {
    const first = parseInt(m[1]!, 16);
    [...m[3]!.matchAll(/<([0-9a-f ]+)>/gi)].forEach((h, i) => put(first + i, h[1]!.replace(/ /g, '')));
  }
  return letters;
}

const decode = (hex: string, letters: ReadonlyMap<string, string>): string =>
  (hex.match(/.{4}/g) ?? []).map((g) => letters.get(g.toLowerCase()) ?? '').join('');
