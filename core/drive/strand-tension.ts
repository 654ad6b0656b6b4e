import { type Result, err, ok } from '@core/quantity/result';

/** One strand, measured any of four ways. Spans in mm, mass in kg per metre, forces in N. */
export type Strand = { spanMm: number; kgPerM: number };
type TensionInput = 'force' | 'span' | 'deflection' | 'tension' | 'frequency' | 'mass';
export type TensionError =
  | { code: 'not_positive'; what: TensionInput }
  /** Both halves of the strand together cannot carry it: the force must stay below twice the tension. */
  | { code: 'force_too_large'; belowN: number };
/** A figure by the exact form, by the usual one for small deflections, and by how much that one is off (ratio less one). */
export type Deflected = { exact: number; small: number; smallError: number };

function positive(values: Partial<Record<TensionInput, number>>): TensionError | undefined {
  for (const [what, v] of Object.entries(values))
    if (!(v > 0 && Number.isFinite(v))) return { code: 'not_positive', what: what as TensionInput };
  return undefined;
}

const both = (exact: number, small: number): Deflected => ({ exact, small, smallError: small / exact - 1 });

/**
 * Tension, N, while a force at mid-span holds the strand deflected. Equilibrium of both halves: F = 2·T·δ/√(δ² + L²/4);
 * for small δ the usual F = 4·T·δ/L. @example tensionFromDeflection(30, 180, 6) // exact 225.5, small 225
 */
export function tensionFromDeflection(
  forceN: number,
  spanMm: number,
  deflectionMm: number,
): Result<Deflected, TensionError> {
  const bad = positive({ force: forceN, span: spanMm, deflection: deflectionMm });
  if (bad) return err(bad);
  const side = Math.hypot(deflectionMm, spanMm / 2);
  return ok(both((forceN * side) / (2 * deflectionMm), (forceN * spanMm) / (4 * deflectionMm)));
}

/** Deflection, mm, of a strand under a tension while a force presses at mid-span. Inverse of {@link tensionFromDeflection}. */
export function deflectionFromTension(
  tensionN: number,
  forceN: number,
  spanMm: number,
): Result<Deflected, TensionError> {
  const bad = positive({ tension: tensionN, force: forceN, span: spanMm });
  if (bad) return err(bad);
  const sine = forceN / (2 * tensionN);
  if (sine >= 1) return err({ code: 'force_too_large', belowN: 2 * tensionN });
  const exact = ((spanMm / 2) * sine) / Math.sqrt(1 - sine * sine);
  return ok(both(exact, (forceN * spanMm) / (4 * tensionN)));
}

/** First natural frequency of a string, Hz: f = √(T/m)/(2L) (Mersenne's law). */
export function frequencyFromTension(tensionN: number, s: Strand): Result<number, TensionError> {
  const bad = positive({ tension: tensionN, span: s.spanMm, mass: s.kgPerM });
  return bad ? err(bad) : ok(Math.sqrt(tensionN / s.kgPerM) / (2 * (s.spanMm / 1000)));
}

/** T = 4·m·L²·f². Inverse of {@link frequencyFromTension}. */
export function tensionFromFrequency(hz: number, s: Strand): Result<number, TensionError> {
  const bad = positive({ frequency: hz, span: s.spanMm, mass: s.kgPerM });
  return bad ? err(bad) : ok(4 * s.kgPerM * (s.spanMm / 1000) ** 2 * hz ** 2);
}
