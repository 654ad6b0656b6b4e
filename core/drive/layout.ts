import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { Deg, Mm, PositiveMm, Teeth } from './bounds';
import { CarrierSchema } from './carrier';
import { ValveGeometrySchema } from './valves-schema';

/** How far a carried wheel may lie off its carrier's circle, mm: rounding of a file, no more. */
const ON_CIRCLE_MM = 0.05;

const WheelSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  role: z.enum([
    'crank',
    'cam',
    'pump',
    'idler',
    'tensioner',
    'guide',
    'intermediate',
    'injection',
    'balance',
  ]),
  x: Mm,
  y: Mm,
  /** Toothed wheels give their teeth; smooth ones and shoes the outside radius of the surface that carries the belt. */
  teeth: Teeth.optional(),
  outsideMm: PositiveMm.optional(),
  /** +1 when the toothed inside of the belt lies on it, −1 when the back does. */
  side: z.union([z.literal(1), z.literal(-1)]),
  /** Height of a rim (flange) above the surface that carries the belt; 0 when it has none. */
  rimMm: z.number().nonnegative().max(200),
  /**
   * A shoe has its surface only from `fromDeg` anticlockwise to `toDeg`, seen from the centre of its arc. A carried shoe
   * turns with its carrier; the angles hold where x and y are.
   */
  arc: z.strictObject({ fromDeg: Deg, toDeg: Deg }).optional(),
  carrier: CarrierSchema.optional(),
  /** Timing mark: its direction from the wheel's centre, degrees anticlockwise from +x, with the crank at its mark. */
  markDeg: Deg.optional(),
  /** The mark stands at a tooth of the wheel rather than at a space between two. */
  markOnTooth: z.boolean().optional(),
  /** Part of the engine that it sits on, where that part can come nearer to the crank. */
  bank: z.string().optional(),
  /** Slotted hub: bolts at this radius may stand so far to either side of mid-slot. */
  slots: z.strictObject({ radiusMm: PositiveMm, halfMm: PositiveMm }).optional(),
  /** How it sits on its shaft; keyed where nothing is given. Slots are given by `slots`. */
  seat: z.enum(['keyed', 'taper', 'friction']).optional(),
  /** At a cam: whether it sits on a phaser; it may where nobody said. */
  phaser: z.boolean().optional(),
  /** At the crank: the wheel that its sensor reads, slots less missing teeth ("60-2") or ones and noughts, and what the sensor gives. */
  reluctor: z.strictObject({ notation: z.string().max(400), kind: z.enum(['square', 'swing']) }).optional(),
  /** At a cam: the edges of its sensor's signal with the drive set right, crank degrees behind where the first tooth after the crank's gap is read, at the middle of a swing or the first edge of a square wave. */
  signal: z
    .array(z.strictObject({ deg: z.number().min(0).lt(720), rising: z.boolean() }))
    .min(2)
    .max(60)
    .optional(),
});
export type Wheel = z.infer<typeof WheelSchema>;

/**
 * One belt or chain and its wheels, seen from the timing side, y upwards, in the order in which a point of the belt
 * meets them, starting at the driving wheel.
 */
const LayoutShape = z.strictObject({
  id: z.string(),
  name: z.string().optional(),
  kind: z.enum(['belt', 'chain']),
  /** Sense in which the driving wheel runs, seen from the timing side. */
  runs: z.enum(['cw', 'ccw']),
  pitchMm: z.number().positive().max(100),
  /** Teeth of the belt or links of the chain. */
  count: z.number().int().positive().max(5000),
  /** From the pitch line to the back, and to the tips of the teeth. */
  backMm: z.number().nonnegative().max(100),
  toothMm: z.number().nonnegative().max(100),
  wheels: z.array(WheelSchema).min(2).max(60),
  /** Which row it lies in, from the one that is reached first; 1 where nothing is given. */
  row: z.number().int().min(1).max(20).optional(),
  /** It runs in the engine's oil: a chain always does. */
  inOil: z.boolean().optional(),
  /** End of the engine that its timing side is; the front where nothing is given. At the rear the crank is turned from the other end. */
  end: z.enum(['front', 'rear']).optional(),
  /** A further stage: its driving wheel turns with this wheel of another layout. */
  follows: z.strictObject({ layout: z.string(), wheel: z.string() }).optional(),
  /** Parts that move when heads, block or gaskets are changed; the direction points away from the crank. */
  banks: z
    .array(
      z.strictObject({
        id: z.string(),
        name: z.string(),
        dirDeg: Deg,
        /** Most that machining and gasket together can bring it nearer or further, mm. */
        mostMm: PositiveMm.optional(),
      }),
    )
    .optional(),
  /** Half-width of what still counts as "as predicted" at a mark, in teeth. */
  markToleranceTeeth: z.number().positive().max(0.45).optional(),
  /** Elongation at which the chain or belt is worn out, as a ratio. */
  elongationLimit: z.number().positive().max(0.2).optional(),
  /** Growth of centre distances, per kelvin; temperature for which the layout is drawn. */
  heat: z
    .strictObject({ perKelvin: z.number().positive().max(0.001), drawnAtC: z.number().min(-100).max(300) })
    .optional(),
  /** Mass of a metre and strand tension when set, for the methods of measuring it. */
  strand: z
    .strictObject({ kgPerM: z.number().positive().max(100), setN: z.number().positive().max(100_000) })
    .optional(),
  valves: ValveGeometrySchema.optional(),
});
export type Layout = z.infer<typeof LayoutShape>;

/** A layout with what single fields cannot say: each wheel has an id of its own, and a carried one lies where its carrier puts it. */
export const LayoutSchema = LayoutShape.superRefine((l, ctx) => {
  const seen = new Set<string>();
  l.wheels.forEach((w, i) => {
    const refuse = (field: string, message: string) =>
      ctx.addIssue({ code: 'custom', path: ['wheels', i, field], message });
    if (seen.has(w.id)) refuse('id', `another wheel has the id “${w.id}” already`);
    seen.add(w.id);
    if (!w.carrier) return;
    const { pivot, arm } = w.carrier;
    const off = Math.hypot(w.x - pivot.x, w.y - pivot.y) - arm;
    if (Math.abs(off) > ON_CIRCLE_MM)
      refuse(
        'carrier',
        `“${w.name}” lies ${Math.abs(off).toFixed(2)} mm off its carrier’s circle of ${arm} mm`,
      );
  });
});

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

/**
 * Length of belt or chain that lies on a wheel per radian, mm: z·p/2π on teeth, so that one turn takes z pitches also on
 * a chain, whose pins stand on a slightly larger circle; the radius on smooth wheels and shoes.
 */
export function layRadius(
  layout: Pick<Layout, 'kind' | 'pitchMm' | 'backMm' | 'toothMm'>,
  wheel: Pick<Wheel, 'teeth' | 'outsideMm' | 'side'>,
): number {
  return wheel.teeth === undefined
    ? pitchRadius(layout, wheel)
    : (wheel.teeth * layout.pitchMm) / (2 * Math.PI);
}

/** Length that the belt or chain must have: count · pitch, mm. */
export const nominalLength = (layout: Pick<Layout, 'count' | 'pitchMm'>): number =>
  layout.count * layout.pitchMm;

/** +1 when the belt goes round anticlockwise. */
export const senseOf = (layout: Pick<Layout, 'runs'>): 1 | -1 => (layout.runs === 'ccw' ? 1 : -1);

/** Row in which a stage lies, counted from the one that is reached first. */
export const rowOf = (layout: Pick<Layout, 'row'>): number => layout.row ?? 1;

/** True for a wheel that stands on its shaft by friction, a taper or slots: freed, it turns without its shaft. */
export const isFree = (w: Pick<Wheel, 'seat' | 'slots'>): boolean =>
  w.slots !== undefined || w.seat === 'taper' || w.seat === 'friction';

/** Index of the wheel that takes up slack, or −1. */
export const tensionerIndex = (layout: Pick<Layout, 'wheels'>): number =>
  layout.wheels.findIndex((w) => w.role === 'tensioner' && w.carrier !== undefined);
