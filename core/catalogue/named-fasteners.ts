import { stemOf } from '@core/quantity/stem';

/** Words of a fastener's name that tell nothing. */
const PLAIN = new Set(['bolt', 'screw', 'new', 'the', 'of', 'a'].map(stemOf));
/** Share of the telling words of a name that have to be there. */
const ENOUGH = 0.5;

const stemsOfName = (name: string): string[] =>
  name
    .toLowerCase()
    .split(/[^\p{L}\d]+/u)
    .map(stemOf)
    .filter((w) => w !== '' && !PLAIN.has(w));

/** How well words, as stems, name a fastener: 0 where they do not, more the more of its name they say. */
export function namedBy(fastener: string, stems: ReadonlySet<string>): number {
  const words = stemsOfName(fastener);
  const found = words.filter((w) => stems.has(w)).length;
  const score = found / words.length + found * 0.1;
  return found > 0 && score >= ENOUGH ? score : 0;
}

/** Those of several that words name best, all of them where they are named alike; none where nothing names any. */
export function bestNamed<T>(list: readonly T[], fastener: (of: T) => string, words: string): T[] {
  const stems = new Set(stemsOfName(words));
  const scored = list.map((of) => ({ of, score: namedBy(fastener(of), stems) }));
  const best = Math.max(0, ...scored.map((s) => s.score));
  return best === 0 ? [] : scored.filter((s) => s.score === best).map((s) => s.of);
}
