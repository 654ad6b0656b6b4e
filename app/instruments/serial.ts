import { Observable } from 'rxjs';
import type { Instrument, InstrumentEvent } from './instrument';
import { eventOf } from './lines';

/** As much of the Web Serial API as is used here. */
export type SerialPortLike = {
  open: (options: { baudRate: number }) => Promise<void>;
  close: () => Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
};
type SerialLike = { requestPort: () => Promise<SerialPortLike> };

/** What the line protocol runs at (docs/formats.md). */
const BAUD = 9600;
/** A line without an end longer than this is dropped: nothing that measures sends it. */
const LONGEST = 1000;

/** An instrument at a serial port; none where the browser has no such ports. */
export function serialInstrument(navigator: object = globalThis.navigator): Instrument | undefined {
  const serial = (navigator as { serial?: SerialLike }).serial;
  if (!serial) return undefined;
  return {
    key: 'serial',
    wording: 'At a serial port …',
    dimension: undefined,
    open: (wanted) =>
      new Observable<InstrumentEvent>((to) => {
        const stop = new AbortController();
        void listen(serial, wanted, stop.signal, (e) => to.next(e)).then(() => to.complete());
        return () => stop.abort();
      }),
  };
}

async function listen(
  serial: SerialLike,
  wanted: Parameters<typeof eventOf>[1],
  stop: AbortSignal,
  tell: (e: InstrumentEvent) => void,
): Promise<void> {
  const port = await serial.requestPort().catch(() => undefined);
  const opened = await port?.open({ baudRate: BAUD }).then(
    () => true,
    () => false,
  );
  if (!port?.readable || !opened) return tell({ kind: 'gone', why: port ? 'not_there' : 'refused' });
  const began = performance.now();
  const reader = port.readable.getReader();
  stop.addEventListener('abort', () => void reader.cancel().catch(() => undefined));
  const decoder = new TextDecoder();
  let held = '';
  for (;;) {
    const { value, done } = await reader.read().catch(() => ({ value: undefined, done: true }));
    if (done || stop.aborted) break;
    held += decoder.decode(value, { stream: true });
    const lines = held.split(/\r\n|\r|\n/);
    held = (lines.pop() ?? '').slice(-LONGEST);
    for (const line of lines) {
      const event =
        line.trim() === '' ? undefined : eventOf(line, wanted, (performance.now() - began) / 1000);
      if (event) tell(event);
    }
  }
  reader.releaseLock();
  await port.close().catch(() => undefined);
  tell({ kind: 'gone', why: 'unplugged' });
}
