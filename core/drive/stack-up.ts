/** A measured length and its standard uncertainty, mm. */
export type Length = { value: number; u: number };

/** Depth less thickness (end play), overall less body (stand-out): u² adds (JCGM 100, 5.1.2). */
export const lengthDifference = (a: Length, b: Length): Length => ({
  value: a.value - b.value,
  u: Math.hypot(a.u, b.u),
});
