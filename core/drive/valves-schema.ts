import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { Deg, Mm, PositiveMm } from './bounds';

/**
 * What is needed to say whether valves can meet pistons. Lengths in mm along the cylinder; crank angles in degrees after
 * the crank's mark, over the 720° of a working cycle.
 */
export const ValveGeometrySchema = z.strictObject({
  strokeMm: PositiveMm,
  rodMm: PositiveMm,
  /** Piston crown below the deck at its top, valve pockets counted as deeper. */
  deckMm: Mm,
  cylinders: z
    .array(
      z.strictObject({ name: z.string(), firingDeg: z.number().min(0).lt(720), bank: z.string().optional() }),
    )
    .min(1)
    .max(24),
  /** Valves of one kind: crank angles after the cylinder's own firing top at which they open and close. */
  valves: z
    .array(
      z.strictObject({
        name: z.string(),
        /** Wheel whose shaft opens them; with several banks, one entry a bank. */
        wheel: z.string(),
        bank: z.string().optional(),
        openDeg: Deg,
        closeDeg: Deg,
        /** How far the fully open valve reaches below the deck. */
        reachMm: Mm,
      }),
    )
    .min(1)
    .max(24),
  /** Two valves of one cylinder on different cams meet when they are open together by this much in all, mm. */
  crossMm: PositiveMm.optional(),
});
export type ValveGeometry = z.infer<typeof ValveGeometrySchema>;
