import { normalQuantile } from './normal';
import { once } from './once';

/** How far on both sides a measured value is judged: about 95 % (JCGM 100, coverage factor 2). */
const COVERAGE = 2;

/** Points of equal share of the standard normal, by which a reading is spread out. */
const POINTS = 101;
const spread = once(() => Array.from({ length: POINTS }, (_, k) => normalQuantile((k + 0.5) / POINTS)));

/**
 * Shares in which a measured value falls into each class, its error being normal: classes at points of equal share, so each
 * within half a hundredth. A value without uncertainty is of one class. Classes that are undefined are left out.
 */
export function chancesOf<T extends string>(
  { value, u }: Uncertain,
  classify: (v: number) => T | undefined,
): Partial<Record<T, number>> {
  const out: Partial<Record<T, number>> = {};
  const points = u > 0 ? spread() : [0];
  for (const z of points) {
    const of = classify(value + z * u);
    if (of !== undefined) out[of] = (out[of] ?? 0) + 1 / points.length;
  }
  return out;
}

/** A value with its standard uncertainty, in one unit. */
export type Uncertain = { value: number; u: number };
/** The least and the most that a measured value may be. */
export const lowest = ({ value, u }: Uncertain): number => value - COVERAGE * u;
export const highest = ({ value, u }: Uncertain): number => value + COVERAGE * u;
/** Standard uncertainty of an interval of which half is so wide, and that half of a standard uncertainty. */
export const uOfHalf = (half: number): number => half / COVERAGE;
export const halfOf = (u: number): number => COVERAGE * u;
/** Above a limit wherever it lies. */
export const surelyAbove = (m: Uncertain, limit: number): boolean => lowest(m) > limit;
/** Below a limit wherever it lies. */
export const surelyBelow = (m: Uncertain, limit: number): boolean => highest(m) < limit;

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

/** Above a limit wherever the value lies, below it wherever it lies, or cannot tell. On the limit is above. */
export function judgedAbove<A extends string, B extends string>(
  m: Uncertain,
  limit: number,
  says: { above: A; below: B },
): A | B | 'cannot_tell' {
  const above = judged(m.value, m.u, (v) => v >= limit);
  return above === undefined ? 'cannot_tell' : above ? says.above : says.below;
}
