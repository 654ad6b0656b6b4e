import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { PositiveMm } from './bounds';
import data from './data/usual.json';

const Thickness = z.strictObject({ backMm: PositiveMm, toothMm: PositiveMm });
const UsualSchema = z.strictObject({
  /** From the pitch line to the back and to the tips of the teeth, until somebody measures them. */
  thickness: z.strictObject({ belt: Thickness, chain: Thickness }),
  /** Throw of a new eccentric, and its marks in degrees from the start mark. */
  throwMm: PositiveMm,
  marks: z.strictObject({ from: z.number(), nominal: z.number(), to: z.number(), end: z.number() }),
});

/** What a drive that is drawn up begins with; every figure of it is there to be replaced. */
export const USUAL = UsualSchema.parse(data);
