import { Observable } from 'rxjs';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { DIMENSIONS } from '@core/quantity/units';
import type { Instrument, InstrumentEvent } from './instrument';
import { eventOf } from './lines';

const ListSchema = z.array(z.object({ key: z.string(), wording: z.string(), dimension: z.enum(DIMENSIONS) }));

/** The stand-ins that this server has; none where it has none. @param behaviour query that every one of them gets */
export async function simulatedInstruments(behaviour = ''): Promise<Instrument[]> {
  const answer = await fetch('/instruments').catch(() => undefined);
  const list = answer?.ok ? ListSchema.safeParse(await answer.json().catch(() => undefined)) : undefined;
  return (list?.success ? list.data : []).map(({ key, wording, dimension }) => ({
    key: `simulated-${key}`,
    wording: `${wording} (simulated)`,
    dimension,
    open: (wanted) => stream(`/instruments/${key}${behaviour}`, wanted),
  }));
}

/** One stream of server-sent events. A break ends it: a plug that was pulled is not put back by itself. */
const stream = (url: string, wanted: Parameters<typeof eventOf>[1]) =>
  new Observable<InstrumentEvent>((to) => {
    const source = new EventSource(url);
    const began = performance.now();
    let heard = false;
    source.onmessage = (e: MessageEvent<string>) => {
      heard = true;
      const event = eventOf(e.data, wanted, (performance.now() - began) / 1000);
      if (event) to.next(event);
    };
    source.onerror = () => {
      source.close();
      to.next({ kind: 'gone', why: heard ? 'unplugged' : 'not_there' });
      to.complete();
    };
    return () => source.close();
  });
