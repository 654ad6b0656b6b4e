import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { KINDS } from '@core/facts/kinds';

const InspectionSchema = z.strictObject({
  /** Observable that the inspection fills. */
  key: z.string(),
  /** Where on the thing it is: a place of its drawing. */
  zone: z.string().min(1),
  /** What has to be known first, since this inspection destroys it. */
  after: z.array(z.string()).optional(),
  /** Dimension of the catalogue's part that the reading is held against. */
  limit: z.string().optional(),
  /** It is done by the clock. */
  clock: z.literal('slow_press').optional(),
});
export type Inspection = Readonly<z.infer<typeof InspectionSchema>>;

export type Examination = {
  kind: string;
  /** What cannot be claimed when it did not come. */
  without?: string | undefined;
  inspections: readonly Inspection[];
};

/** How each kind of thing is examined, in the order of the work. */
export const EXAMINATIONS: ReadonlyMap<string, Examination> = new Map(
  [...KINDS.values()].flatMap(({ kind, without, inspections }) =>
    inspections ? [[kind, { kind, without, inspections: z.array(InspectionSchema).parse(inspections) }]] : [],
  ),
);
