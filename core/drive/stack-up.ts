/** A measured length and its standard uncertainty, mm. */
export type Length = { value: number; u: number };

/** Depth less thickness (end play), overall less body (stand-out): u² adds (JCGM 100, 5.1.2). */
export const difference = (a: Length, b: Length): Length => ({
  value: a.value - b.value,
  u: Math.hypot(a.u, b.u),
});

/** Within its window, outside, or cannot tell: judged at v and v ± 2u. */
export function judgeWindow(
  x: Length,
  window: { from: number; to: number },
): 'within' | 'outside' | 'cannot_tell' {
  const inside = (v: number) => v >= window.from && v <= window.to;
  const all = [x.value - 2 * x.u, x.value, x.value + 2 * x.u].map(inside);
  return all.every(Boolean) ? 'within' : all.some(Boolean) ? 'cannot_tell' : 'outside';
}
