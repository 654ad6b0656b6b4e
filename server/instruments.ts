import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { Router } from 'express';
import { greeting, INSTRUMENTS, lineAt } from '@core/simulate/instruments';

const number = (min: number, max: number) => z.coerce.number().min(min).max(max);
/** How a stand-in behaves: all of it may be left out. */
const QuerySchema = z.object({
  seed: number(0, 2 ** 31).default(1),
  /** Seconds of the instrument that pass in one second here. */
  pace: number(0.1, 50).default(1),
  from: number(-1e6, 1e6).optional(),
  leak: number(0, 10).optional(),
  /** Seconds of the instrument after which its plug is pulled. */
  unplug: number(0, 86_400).optional(),
  /** Every so many lines one is garbage, as a bad cable makes it. */
  garbage: number(2, 10_000).optional(),
});

/** Readings are sent together when there are more than so many a second: a page paints no quicker. */
const BURSTS_PER_S = 25;

/**
 * Stand-ins for the instruments of a bench: `GET /instruments` lists them, `GET /instruments/:key` streams one as server-sent events, one line
 * of the instrument each (docs/formats.md). When its plug is pulled the connection breaks, as a cable would.
 */
export function instruments(): Router {
  const router = Router();
  router.get('/', (_req, res) => {
    res
      .set('Cache-Control', 'no-store')
      .json(INSTRUMENTS.map(({ key, wording, dimension }) => ({ key, wording, dimension })));
  });
  router.get('/:key', (req, res) => {
    const instrument = INSTRUMENTS.find((i) => i.key === req.params.key);
    const query = QuerySchema.safeParse(req.query);
    if (!instrument) return void res.status(404).type('text/plain').send('There is no such instrument.');
    if (!query.success) {
      const at = query.error.issues[0];
      return void res
        .status(400)
        .type('text/plain')
        .send(`${at?.path.join('.') ?? 'query'}: ${at?.message ?? 'cannot be read'}`);
    }
    const { seed, pace, from, leak, unplug, garbage } = query.data;
    const line = lineAt(instrument, { seed, from, leakMmPerS: leak });
    // no-transform: nothing on the way may hold lines back to press them
    res.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store, no-transform' });
    res.flushHeaders();
    res.write(`data: ${greeting(instrument)}\n\n`);
    const perSecond = instrument.rateHz * pace;
    const each = 1000 / Math.min(perSecond, BURSTS_PER_S);
    let sent = 0;
    const began = performance.now();
    const timer = setInterval(() => {
      const due = Math.floor(((performance.now() - began) / 1000) * perSecond);
      let text = '';
      for (; sent <= due; sent++) {
        if (unplug !== undefined && sent / instrument.rateHz >= unplug) {
          clearInterval(timer);
          res.write(text);
          // what was written goes out first, then the cable is gone
          setImmediate(() => res.destroy());
          return;
        }
        const said = garbage !== undefined && sent % garbage === garbage - 1 ? '\u00bf#!7.' : line(sent);
        if (said !== undefined) text += `data: ${said}\n\n`;
      }
      res.write(text);
    }, each);
    res.on('close', () => clearInterval(timer));
  });
  return router;
}
