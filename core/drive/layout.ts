import * as z from 'zod';

const Mm = z.number().finite();

/** An eccentric: the wheel's centre stands at pivot + arm·(cos t, sin t). Angles in degrees, anticlockwise from +x. */
export const CarrierSchema = z.strictObject({
  kind: z.literal('eccentric'),
  pivot: z.strictObject({ x: Mm, y: Mm }),
  arm: z.number().positive(),
  /** Carrier angle t when the pointer stands at its start mark. */
  startDeg: z.number(),
  /** Sense in which the carrier is turned from the start mark to take up slack, seen from the front. */
  turn: z.enum(['cw', 'ccw']),
  /** Sense in which the setting key is turned to do so; it can be opposite to the carrier's. */
  keyTurn: z.enum(['cw', 'ccw']),
  /** Pointer readings, degrees from the start mark, positive in the `turn` sense. */
  window: z.strictObject({ from: z.number(), nominal: z.number(), to: z.number() }),
  /** Reading at the end mark: worn out, not nominal. */
  endDeg: z.number(),
});
export type Carrier = z.infer<typeof CarrierSchema>;

export const WheelSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  role: z.enum(['crank', 'cam', 'pump', 'idler', 'tensioner', 'intermediate', 'injection']),
  x: Mm,
  y: Mm,
  /** Toothed wheels give their teeth; smooth ones the outside radius of the surface on which the belt's back runs. */
  teeth: z.number().int().positive().optional(),
  outsideMm: z.number().positive().optional(),
  /** +1 when the toothed inside of the belt lies on it, −1 when the back does. */
  side: z.union([z.literal(1), z.literal(-1)]),
  /** Height of a rim (flange) above the surface that carries the belt; 0 when it has none. */
  rimMm: z.number().nonnegative(),
  carrier: CarrierSchema.optional(),
});
export type Wheel = z.infer<typeof WheelSchema>;

/**
 * One belt or chain and its wheels, seen from the timing side, y upwards, in the order in which a point of the belt
 * meets them, starting at the crank.
 */
export const LayoutSchema = z.strictObject({
  id: z.string(),
  kind: z.enum(['belt', 'chain']),
  /** Sense in which the crank runs, seen from the timing side. */
  runs: z.enum(['cw', 'ccw']),
  pitchMm: z.number().positive(),
  /** Teeth of the belt or links of the chain. */
  count: z.number().int().positive(),
  /** From the pitch line to the back, and to the tips of the teeth. */
  backMm: z.number().nonnegative(),
  toothMm: z.number().nonnegative(),
  wheels: z.array(WheelSchema).min(2),
});
export type Layout = z.infer<typeof LayoutSchema>;

/**
 * Pitch radius of a wheel, mm. Belt wheel: z·p/2π. Chain wheel: p/(2 sin(π/z)), the circle through the pins.
 * Smooth wheel: outside radius plus the distance from the face of the belt that lies on it to the pitch line.
 * @example pitchRadius(belt8, { teeth: 24, side: 1 }) // 30.558, that is 24·8/2π
 */
export function pitchRadius(
  layout: Pick<Layout, 'kind' | 'pitchMm' | 'backMm' | 'toothMm'>,
  wheel: Pick<Wheel, 'teeth' | 'outsideMm' | 'side'>,
): number {
  if (wheel.teeth !== undefined) {
    return layout.kind === 'belt'
      ? (wheel.teeth * layout.pitchMm) / (2 * Math.PI)
      : layout.pitchMm / (2 * Math.sin(Math.PI / wheel.teeth));
  }
  return (wheel.outsideMm ?? 0) + (wheel.side === 1 ? layout.toothMm : layout.backMm);
}

/** Length that the belt or chain must have: count · pitch, mm. */
export const nominalLength = (layout: Pick<Layout, 'count' | 'pitchMm'>): number =>
  layout.count * layout.pitchMm;
