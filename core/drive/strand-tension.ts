/** One strand, measured any of four ways. Spans in mm, mass in kg per metre, forces in N. */
export type Strand = { spanMm: number; kgPerM: number };

/**
 * Tension from a deflection at mid-span under a force, both sides of equilibrium: F = 4·T·δ/L for small δ, so
 * T = F·L/(4·δ). @example tensionFromDeflection(30, 180, 6) // 225 N
 */
export const tensionFromDeflection = (forceN: number, spanMm: number, deflectionMm: number): number =>
  (forceN * spanMm) / (4 * deflectionMm);

/** Deflection for a tension. Inverse of {@link tensionFromDeflection}. */
export const deflectionFromTension = (tensionN: number, forceN: number, spanMm: number): number =>
  (forceN * spanMm) / (4 * tensionN);

/** First natural frequency of a string, Hz: f = √(T/m)/(2L) (Mersenne's law). */
export const frequencyFromTension = (tensionN: number, s: Strand): number =>
  Math.sqrt(tensionN / s.kgPerM) / (2 * (s.spanMm / 1000));

/** T = 4·m·L²·f². Inverse of {@link frequencyFromTension}. */
export const tensionFromFrequency = (hz: number, s: Strand): number =>
  4 * s.kgPerM * (s.spanMm / 1000) ** 2 * hz ** 2;
