import { nth } from '@core/quantity/must';
import { cycleView } from '@core/trace/cycle-view';
import { speedOf } from '@core/trace/clock';
import { type Capture, CaptureReader } from '@core/trace/read-capture';
import { inUnitOfTime } from '@core/trace/time-unit';
import { readTrace } from '@core/trace/trace';
import { fromFirstTooth, readWheel } from '@core/trace/wheel';
import type { TraceAsk, TraceReply } from './trace.protocol';
import { unzip } from './unpack';

const isZip = (b: Uint8Array): boolean => b[0] === 0x50 && b[1] === 0x4b && b[2] === 3 && b[3] === 4;

/** The table in a zip of one. */
async function unzipped(name: string, blob: Blob): Promise<Uint8Array | TraceReply> {
  const zip = unzip(name, new Uint8Array(await blob.arrayBuffer()));
  if (!zip.ok) return zip;
  const table = zip.value.find((e) => /\.(csv|tsv|txt|asc|dat)$/i.test(e.name));
  return (
    table?.bytes ?? {
      ok: false,
      error: { code: 'no_table_in_zip', names: zip.value.slice(0, 5).map((e) => e.name) },
    }
  );
}

/** Reads a capture, piece by piece, and what crank and cam in it say. @param line tells the share that is read, and hears when it is to stop @param keep is given the samples */
export async function traceOf(
  { blob, name, wheel, roles: saidRoles, ...said }: Omit<TraceAsk, 'slot'>,
  line: { progress: (share: number) => void; cancelled: () => boolean },
  keep: (capture: Capture) => void = () => undefined,
): Promise<TraceReply> {
  const reader = new CaptureReader(said);
  const begins = new Uint8Array(await blob.slice(0, 4).arrayBuffer());
  if (isZip(begins)) {
    const table = await unzipped(name, blob);
    if (!(table instanceof Uint8Array)) return table;
    reader.push(table);
  } else {
    const stream = blob.stream().getReader();
    let read = 0;
    for (;;) {
      const { done, value } = await stream.read();
      if (done || line.cancelled()) break;
      if (!reader.push(value)) {
        // What cannot be read is not read to its end.
        await stream.cancel();
        break;
      }
      read += value.length;
      line.progress(read / blob.size);
    }
  }
  const table = reader.finish();
  if (!table.ok) return table;
  const named = wheel === undefined ? undefined : readWheel(wheel);
  if (named && !named.ok) return { ok: false, error: named.error };
  const { capture, trace: traced } = inUnitOfTime(table.value, (c) => readTrace(c, named?.value, saidRoles));
  keep(capture);
  if (!traced.ok) return traced;
  const { clock, roles, cams } = traced.value;
  const { channels, gaps, refused, head } = capture;
  return {
    ok: true,
    value: {
      name,
      wheel: clock.wheel.notation,
      teeth: fromFirstTooth(clock.wheel),
      period: clock.period,
      crankKind: clock.kind,
      lost: clock.lost,
      double: clock.double,
      turns: clock.turns,
      channels: channels.map((c) => c.name),
      roles,
      cams: cams.map((c) => ({
        name: c.name,
        ...(c.pattern ? { pattern: c.pattern } : {}),
        ...(c.error ? { error: c.error.code } : {}),
      })),
      samples: nth(channels, 0).samples.length,
      startS: capture.startS,
      stepS: capture.stepS,
      speed: speedOf(clock),
      gaps,
      refused,
      head,
      view: cycleView(capture, traced.value),
    },
  };
}
