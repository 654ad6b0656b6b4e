import { editDistance, foldCode } from './find-records';
import type { Pack } from './pack';

export type Hit = { kind: 'engine' | 'kit' | 'part' | 'cross'; key: string; title: string; detail: string };
type Entry = Hit & { code: string; words: string };
export type SearchIndex = { entries: readonly Entry[] };

/** Words folded one by one, so that "orchard" finds "Orchardman" and "0rchard" does too. */
const foldWords = (text: string) =>
  text
    .split(/[\s,;/]+/)
    .map(foldCode)
    .filter(Boolean)
    .join(' ');

/** Everything of a pack that can be found by typing; built once per pack. */
export function buildSearch(pack: Pack): SearchIndex {
  const entries: Entry[] = [];
  const add = (hit: Hit, words: string) =>
    entries.push({ ...hit, code: foldCode(hit.key), words: ` ${foldWords(words)}` });
  for (const e of pack.engines) {
    add(
      {
        kind: 'engine',
        key: e.code,
        title: e.code,
        detail: `${e.maker} ${e.family}: ${e.vehicles.join(', ')}`,
      },
      `${e.maker} ${e.family} ${e.vehicles.join(' ')}`,
    );
  }
  for (const k of pack.kits) add({ kind: 'kit', key: k.number, title: k.number, detail: k.name }, k.name);
  for (const p of pack.parts)
    add({ kind: 'part', key: p.number, title: p.number, detail: p.name }, `${p.name} ${p.kind}`);
  for (const c of pack.cross)
    add({ kind: 'cross', key: c.number, title: c.number, detail: `stands for ${c.names}` }, c.names);
  return { entries };
}

/**
 * Finds by code or words, tolerant of spaces, dashes and look-alike letters: whole code, beginning of a code, beginning
 * of every word typed, inside a code; when nothing is found, codes one or two strokes away.
 */
export function search(index: SearchIndex, typed: string, limit = 12): Hit[] {
  const whole = foldCode(typed);
  if (whole === '') return [];
  const words = foldWords(typed)
    .split(' ')
    .map((w) => ` ${w}`);
  const buckets: Entry[][] = [[], [], [], []];
  const [first = ''] = words;
  for (const e of index.entries) {
    if (e.code === whole) buckets[0]!.push(e);
    else if (e.code.startsWith(whole)) buckets[1]!.push(e);
    else if (e.words.includes(first) && words.every((w) => e.words.includes(w))) buckets[2]!.push(e);
    else if (whole.length > 1 && e.code.includes(whole)) buckets[3]!.push(e);
    if (buckets[1]!.length + buckets[0]!.length >= limit) break;
  }
  const found = buckets.flat().slice(0, limit);
  return (found.length ? found : near(index, whole, limit)).map(({ kind, key, title, detail }) => ({
    kind,
    key,
    title,
    detail,
  }));
}

const NEAR = 2;

/** Codes within two strokes, nearest first. Only codes of like length are compared. */
function near(index: SearchIndex, whole: string, limit: number): Entry[] {
  const out: { e: Entry; d: number }[] = [];
  if (whole.length < 3) return [];
  for (const e of index.entries) {
    const d = editDistance(e.code, whole, NEAR);
    if (d <= NEAR) out.push({ e, d });
  }
  return out
    .sort((a, b) => a.d - b.d)
    .slice(0, limit)
    .map((x) => x.e);
}
