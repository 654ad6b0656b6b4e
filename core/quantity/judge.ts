/** How far on both sides a measured value is judged: about 95 % (JCGM 100, coverage factor 2). */
export const COVERAGE = 2;

/**
 * Judges a measured value: what `classify` says alike at v, v − 2u and v + 2u; undefined when they disagree, so when the
 * edge of a band lies within the uncertainty.
 */
export function judged<T>(value: number, u: number, classify: (v: number) => T): T | undefined {
  const here = classify(value);
  if (!(u > 0)) return here;
  return classify(value - COVERAGE * u) === here && classify(value + COVERAGE * u) === here
    ? here
    : undefined;
}

/** Within a band, outside it, or cannot tell. */
export function judgeBand(
  value: number,
  u: number,
  band: { from: number; to: number },
): 'within' | 'outside' | 'cannot_tell' {
  const side = judged(value, u, (v) => (v < band.from ? 'below' : v > band.to ? 'above' : 'within'));
  if (side === undefined) return 'cannot_tell';
  return side === 'within' ? 'within' : 'outside';
}
