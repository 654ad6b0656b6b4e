import { nth } from '@core/quantity/must';
import { distance } from 'fastest-levenshtein';
import { foldCode } from './find-records';
import type { Pack } from './pack';

export type Hit = { kind: 'engine' | 'kit' | 'part' | 'cross'; key: string; title: string; detail: string };
/** `letters`: one bit a symbol of the code, so that most codes are known to be far without counting strokes. */
type Entry = Hit & { code: string; words: string; letters: number };
export type SearchIndex = { entries: readonly Entry[] };

/** Words folded one by one, so that "orchard" finds "Orchardman" and "0rchard" does too. */
const foldWords = (text: string) =>
  text
    .split(/[\s,;/]+/)
    .map(foldCode)
    .filter(Boolean)
    .join(' ');

/** Bits of the symbols in a folded code: 0–9 and A–Z share 31 bits, which loses nothing of a lower bound. */
function lettersOf(code: string): number {
  let bits = 0;
  for (let i = 0; i < code.length; i++) bits |= 1 << code.charCodeAt(i) % 31;
  return bits;
}

function bitCount(x: number): number {
  let n = 0;
  for (let v = x; v !== 0; v &= v - 1) n++;
  return n;
}

/** Entries between two rests of {@link searchBuilder}. */
const SLICE = 500;

/**
 * Builds the search of a pack in slices: it rests after every few hundred entries, so that a screen can be drawn between.
 * Returns the finished index.
 */
export function* searchBuilder(pack: Pack): Generator<undefined, SearchIndex> {
  const entries: Entry[] = [];
  for (const { hit, words } of searchable(pack)) {
    const code = foldCode(hit.key);
    entries.push({ ...hit, code, words: ` ${foldWords(words)}`, letters: lettersOf(code) });
    if (entries.length % SLICE === 0) yield undefined;
  }
  return { entries };
}

/** Everything of a pack that can be found by typing, at once. */
export function buildSearch(pack: Pack): SearchIndex {
  const builder = searchBuilder(pack);
  for (;;) {
    const step = builder.next();
    if (step.done) return step.value;
  }
}

function* searchable(pack: Pack): Generator<{ hit: Hit; words: string }> {
  for (const e of pack.engines) {
    const detail = `${e.maker} ${e.family}: ${e.vehicles.join(', ')}`;
    const words = `${e.maker} ${e.family} ${e.vehicles.join(' ')}`;
    yield { hit: { kind: 'engine', key: e.code, title: e.code, detail }, words };
  }
  for (const k of pack.kits)
    yield { hit: { kind: 'kit', key: k.number, title: k.number, detail: k.name }, words: k.name };
  for (const p of pack.parts)
    yield {
      hit: { kind: 'part', key: p.number, title: p.number, detail: p.name },
      words: `${p.name} ${p.kind}`,
    };
  for (const c of pack.cross)
    yield {
      hit: { kind: 'cross', key: c.number, title: c.number, detail: `stands for ${c.names}` },
      words: c.names,
    };
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
    if (e.code === whole) nth(buckets, 0).push(e);
    else if (e.code.startsWith(whole)) nth(buckets, 1).push(e);
    else if (e.words.includes(first) && words.every((w) => e.words.includes(w))) nth(buckets, 2).push(e);
    else if (whole.length > 1 && e.code.includes(whole)) nth(buckets, 3).push(e);
    if (nth(buckets, 1).length + nth(buckets, 0).length >= limit) break;
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
  const letters = lettersOf(whole);
  for (const e of index.entries) {
    // Each stroke brings or takes one symbol at most.
    if (bitCount(e.letters & ~letters) > NEAR || bitCount(letters & ~e.letters) > NEAR) continue;
    const d = distance(e.code, whole);
    if (d <= NEAR) out.push({ e, d });
  }
  return out
    .sort((a, b) => a.d - b.d)
    .slice(0, limit)
    .map((x) => x.e);
}
