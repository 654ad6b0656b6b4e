import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { Router } from 'express';
import { BOX_DIALECTS, BOX_FAULTS } from '@core/simulate/capture-box';
import { CaptureThreads } from './capture-threads';

const QuerySchema = z.object({
  fault: z.enum(BOX_FAULTS).default('good'),
  dialect: z.enum(BOX_DIALECTS).default('point'),
  seed: z.coerce
    .number()
    .int()
    .min(0)
    .max(2 ** 31)
    .default(1),
  /** Teeth of the drive's crank wheel, so that a tooth is one of this drive. */
  z: z.coerce.number().int().min(10).max(120).default(20),
  /** Cams with a sensor; the crank sensor's wheel around a turn, one where there is a tooth and nought where not. */
  cams: z.coerce.number().int().min(1).max(8).default(1),
  teeth: z
    .string()
    .regex(/^[01]{6,360}$/)
    .optional(),
});

/** A stand-in for a capture box: `GET /captures/:engine` is an export of crank and cam of an engine, with a fault and in a dialect that are asked for. */
export function captures(threads = new CaptureThreads()): Router {
  const router = Router();
  router.get('/:engine', async (req, res) => {
    const query = QuerySchema.safeParse(req.query);
    if (!query.success || !/^[\w-]{1,40}$/.test(req.params.engine)) {
      const at = query.error?.issues[0];
      return void res
        .status(400)
        .type('text/plain')
        .send(at ? `${at.path.join('.')}: ${at.message}` : 'There is no such engine.');
    }
    const { z: zCrank, teeth, ...ask } = query.data;
    const { engine } = req.params;
    const wheel = teeth === undefined ? {} : { teeth: [...teeth].map((t) => t === '1') };
    const made = await threads.make({ engine, ...ask, zCrank, ...wheel });
    if (made === undefined)
      return void res
        .status(503)
        .set('Retry-After', '2')
        .type('text/plain')
        .send('The capture box is busy. Try again in a moment.');
    res
      .set('Cache-Control', 'no-store')
      .attachment(`capture-${engine}-${ask.fault}.csv`)
      .type('text/csv')
      .send(made);
  });
  return router;
}
