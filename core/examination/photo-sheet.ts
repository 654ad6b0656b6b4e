import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { LayoutSchema } from '@core/drive/layout';

const Spot = z.strictObject({ x: z.number(), y: z.number() });
const wheelShape = LayoutSchema.shape.wheels.element.shape;

/** A wheel as it is picked on a photograph of the drive, in the order in which the belt meets it. */
const PickedWheelSchema = z.strictObject({
  id: z.string().min(1).max(40),
  name: z.string().max(60),
  role: wheelShape.role,
  side: wheelShape.side,
  /** Toothed wheels: counted. A smooth one has its radius from its rim. */
  teeth: z.number().int().positive().max(1000).optional(),
  /** One spot is the centre of a toothed wheel; three or more lie on the rim. */
  spots: z.array(Spot).max(60),
  /** It has a surface only where the spots lie. */
  shoe: z.boolean().optional(),
  /** It sits on an eccentric and was photographed at its nominal mark. */
  eccentric: z
    .strictObject({
      pivot: Spot.optional(),
      turn: z.enum(['cw', 'ccw']),
      from: z.number(),
      nominal: z.number(),
      to: z.number(),
      end: z.number(),
      manual: z.boolean().optional(),
    })
    .optional(),
});
export type PickedWheel = z.infer<typeof PickedWheelSchema>;

/** A drive as it is drawn up from a photograph: what was counted and read off, and what was picked. Lengths mm, spots pixels. */
export const DrivePhotoSchema = z.strictObject({
  kind: z.enum(['belt', 'chain']),
  runs: z.enum(['cw', 'ccw']),
  pitchMm: z.number().positive().max(100).optional(),
  count: z.number().int().positive().max(5000).optional(),
  backMm: z.number().nonnegative().max(100),
  toothMm: z.number().nonnegative().max(100),
  scale: z.enum(['ruler', 'rectangle']),
  /** Length between a ruler's marks, or width and height of the rectangle; their standard uncertainty. */
  sides: z.array(z.number().positive()).max(2),
  sideU: z.number().positive(),
  marks: z.array(Spot).max(4),
  wheels: z.array(PickedWheelSchema).max(60),
  /** Measured between the centres of two wheels, mm with their standard uncertainty: what a picture alone knows least. */
  distances: z
    .array(
      z.strictObject({ a: z.string(), b: z.string(), mm: z.number().positive(), u: z.number().positive() }),
    )
    .max(60),
});
export type DrivePhoto = z.infer<typeof DrivePhotoSchema>;

/** What does not agree with all the rest, by more than so many standard uncertainties. */
export type PhotoDoubt =
  | { is: 'spot'; wheel: number; /** Where enough were picked to tell. */ spot?: number; mm: number }
  | { is: 'distance'; at: number; mm: number };
