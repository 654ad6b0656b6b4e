import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { Deg, Mm, PositiveMm } from './bounds';

const PointSchema = z.strictObject({ x: Mm, y: Mm });
export type Point = z.infer<typeof PointSchema>;
const Sense = z.enum(['cw', 'ccw']);
const Window = z.strictObject({ from: Mm, nominal: Mm, to: Mm });

/** An eccentric: the wheel's centre stands at pivot + arm·(cos t, sin t). Angles in degrees, anticlockwise from +x. */
const EccentricSchema = z.strictObject({
  kind: z.literal('eccentric'),
  pivot: PointSchema,
  arm: PositiveMm,
  /** Carrier angle t when the pointer stands at its start mark. */
  startDeg: Deg,
  /** Sense in which the carrier is turned from the start mark to take up slack, seen from the front. */
  turn: Sense,
  /** Sense in which the setting key is turned to do so; it can be opposite to the carrier's. */
  keyTurn: Sense,
  /** Pointer readings, degrees from the start mark, positive in the `turn` sense. */
  window: Window,
  /** Reading at the end mark: worn out, not nominal. */
  endDeg: Deg,
  /** No spring: the key sets it and its bolt alone holds it. Without this it is sprung and has a pointer. */
  manual: z.boolean().optional(),
});

/** Pressed back; its ratchet lifted and pressed back; screwed back by its thread; not to be set back at all. */
const PLUNGER_BACK = ['pressed', 'ratchet', 'screwed', 'never'] as const;
export type PlungerBack = (typeof PLUNGER_BACK)[number];

/**
 * A plunger that pushes the arm: it slides along `axisDeg` from the body's face `base`. It meets the arm either at a foot
 * that lies `radius` from the pivot, `offsetDeg` ahead of the carrier angle, or at a flat pad: a plane `padMm` from the
 * pivot whose normal, away from the plunger, stands `offsetDeg` ahead of the carrier angle. Extensions in mm beyond the face.
 */
const PlungerSchema = z.strictObject({
  base: PointSchema,
  axisDeg: Deg,
  foot: z.union([
    z.strictObject({ radius: PositiveMm, offsetDeg: Deg }),
    z.strictObject({ padMm: Mm, offsetDeg: Deg }),
  ]),
  window: Window,
  /** Collapsed, and as far as it goes. */
  minMm: Mm,
  maxMm: Mm,
  ratcheted: z.boolean(),
  /** How it is set back; without this a ratcheted one by its ratchet, any other by pressing. */
  back: z.enum(PLUNGER_BACK).optional(),
});
export type Plunger = z.infer<typeof PlungerSchema>;
export const backOf = (p: Pick<Plunger, 'back' | 'ratcheted'>): PlungerBack =>
  p.back ?? (p.ratcheted ? 'ratchet' : 'pressed');

/** A lever that carries a roller or a shoe and is swept from its start angle, by a spring or a plunger. */
const ArmSchema = z.strictObject({
  kind: z.literal('arm'),
  pivot: PointSchema,
  arm: PositiveMm,
  startDeg: Deg,
  turn: Sense,
  /** How far it can be swept, degrees. */
  sweepDeg: z.number().positive().max(350),
  window: Window,
  plunger: PlungerSchema.optional(),
});
export const CarrierSchema = z.discriminatedUnion('kind', [EccentricSchema, ArmSchema]);
export type Eccentric = z.infer<typeof EccentricSchema>;
export type Arm = z.infer<typeof ArmSchema>;
export type Carrier = z.infer<typeof CarrierSchema>;

/** What kind of tensioner a carrier makes. A plunger may push a shoe or a lever with a roller. */
export type CarrierKind = 'automatic_eccentric' | 'manual_eccentric' | 'plunger' | 'lever';

/** The kind of a carrier: an eccentric with or without a spring, an arm with or without a plunger. */
export function carrierKind(carrier: Carrier): CarrierKind {
  if (carrier.kind === 'eccentric') return carrier.manual ? 'manual_eccentric' : 'automatic_eccentric';
  return carrier.plunger ? 'plunger' : 'lever';
}

const RAD = Math.PI / 180;
const signOf = (sense: 'cw' | 'ccw') => (sense === 'ccw' ? 1 : -1);

/** Degrees from the start mark for a carrier angle, positive in the carrier's proper sense, in (−180°, 180°]. */
export function pointerAt(carrier: Pick<Carrier, 'startDeg' | 'turn'>, carrierDeg: number): number {
  const raw = signOf(carrier.turn) * (carrierDeg - carrier.startDeg);
  const folded = ((raw % 360) + 360) % 360;
  return folded > 180 ? folded - 360 : folded;
}

/** Carrier angle for a pointer reading, degrees. Inverse of {@link pointerAt} up to whole turns. */
export function carrierAt(carrier: Pick<Carrier, 'startDeg' | 'turn'>, pointerDeg: number): number {
  return carrier.startDeg + signOf(carrier.turn) * pointerDeg;
}

/** Centre of the carried wheel at carrier angle t, radians. */
export function carriedCentre(carrier: Pick<Carrier, 'pivot' | 'arm'>, t: number): Point {
  return { x: carrier.pivot.x + carrier.arm * Math.cos(t), y: carrier.pivot.y + carrier.arm * Math.sin(t) };
}

/** What stands on the part: degrees of the pointer, or millimetres that the plunger stands out. */
export const readingUnit = (carrier: Carrier): '°' | 'mm' =>
  carrier.kind === 'arm' && carrier.plunger ? 'mm' : '°';

/** Extension of a plunger at a carrier angle in degrees, mm: distance of foot or pad from the face along the axis. */
export function extensionAt(arm: Pick<Arm, 'pivot'>, plunger: Plunger, carrierDeg: number): number {
  const { base, foot } = plunger;
  const a = (carrierDeg + foot.offsetDeg) * RAD;
  const [ux, uy] = [Math.cos(plunger.axisDeg * RAD), Math.sin(plunger.axisDeg * RAD)];
  const [nx, ny] = [Math.cos(a), Math.sin(a)];
  const [px, py] = [arm.pivot.x - base.x, arm.pivot.y - base.y];
  if ('padMm' in foot) {
    // The tip base + x·u lies on the plane (q − pivot)·n = −pad.
    return (px * nx + py * ny - foot.padMm) / (ux * nx + uy * ny);
  }
  return (px + foot.radius * nx) * ux + (py + foot.radius * ny) * uy;
}

/** Where the plunger's tip meets the arm at a carrier angle in degrees. */
export function plungerTip(arm: Pick<Arm, 'pivot'>, plunger: Plunger, carrierDeg: number): Point {
  const x = extensionAt(arm, plunger, carrierDeg);
  const a = plunger.axisDeg * RAD;
  return { x: plunger.base.x + x * Math.cos(a), y: plunger.base.y + x * Math.sin(a) };
}

/** The reading at a carrier angle in degrees, in {@link readingUnit}. */
export function readingAt(carrier: Carrier, carrierDeg: number): number {
  return carrier.kind === 'arm' && carrier.plunger
    ? extensionAt(carrier, carrier.plunger, carrierDeg)
    : pointerAt(carrier, carrierDeg);
}

/** Carrier angles that can be reached, degrees from `from` over `sweep`, in the carrier's proper sense. */
export function carrierRange(carrier: Carrier): { fromDeg: number; sweepDeg: number; whole: boolean } {
  if (carrier.kind === 'eccentric') return { fromDeg: 0, sweepDeg: 360, whole: true };
  return { fromDeg: carrier.startDeg, sweepDeg: signOf(carrier.turn) * carrier.sweepDeg, whole: false };
}

/**
 * Carrier angle, degrees, at which the reading is `value`. For a plunger the extension is inverted over the arm's sweep by
 * bisection to 1e-10°; undefined when it lies outside what the sweep gives.
 */
export function angleAtReading(carrier: Carrier, value: number): number | undefined {
  if (!(carrier.kind === 'arm' && carrier.plunger)) return carrierAt(carrier, value);
  const { fromDeg, sweepDeg } = carrierRange(carrier);
  const off = (t: number) => readingAt(carrier, t) - value;
  let [a, b] = [fromDeg, fromDeg + sweepDeg];
  if (off(a) * off(b) > 0) return undefined;
  while (Math.abs(b - a) > 1e-10) {
    const m = (a + b) / 2;
    if (off(a) * off(m) <= 0) b = m;
    else a = m;
  }
  return (a + b) / 2;
}

/** Working window and end of travel in {@link readingUnit}. */
export function limitsOf(carrier: Carrier): {
  window: { from: number; nominal: number; to: number };
  end: number;
} {
  if (carrier.kind === 'eccentric') return { window: carrier.window, end: carrier.endDeg };
  return carrier.plunger
    ? { window: carrier.plunger.window, end: carrier.plunger.maxMm }
    : { window: carrier.window, end: carrier.sweepDeg };
}
