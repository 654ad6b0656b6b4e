import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { STATIONS } from '@core/facts/stations';
import data from './tours.json';

const StepSchema = z.strictObject({
  /** Where in the case it is done. */
  at: z.enum([...STATIONS, 'drive', 'trace']),
  /** The part of the screen that it is about, by its name; none for all of it. */
  shows: z.string().min(1).optional(),
  says: z.string().min(1),
  /** What the person does: files a fact whose key begins so, or goes there. Without one it is only looked at. */
  until: z
    .union([z.strictObject({ files: z.string() }), z.strictObject({ goes: z.string().min(1) })])
    .optional(),
});
const TourSchema = z.strictObject({
  key: z.string().min(1),
  name: z.string().min(1),
  /** The case of the demo that it is made on: nobody's own case is ever taken for it. */
  case: z.string().startsWith('demo-'),
  steps: z.array(StepSchema).min(1),
});
export type Tour = z.infer<typeof TourSchema>;
export type TourStep = Tour['steps'][number];

export const TOURS: readonly Tour[] = z.array(TourSchema).parse(data);

/** True once what a step asks for was done. @param filed keys of facts filed since the step began @param path of the page */
export function isDone(step: TourStep, filed: readonly string[], path: string): boolean {
  if (!step.until) return false;
  if ('files' in step.until) {
    const { files } = step.until;
    return filed.some((key) => key.startsWith(files));
  }
  return path.split('?')[0]?.endsWith(`/${step.until.goes}`) === true;
}
