import { nth, num } from '@core/quantity/must';
import { type ClockError, type AngleClock, crankClock } from './clock';
import { type EdgeError, type Edges, findEdges } from './edges';
import { camPattern, type CamPattern, type PatternError } from './pattern';
import type { Capture } from './read-capture';
import { readWheel, type ToothWheel, USUAL_WHEELS } from './wheel';

/** Which channel is which: by their order in the file. */
export type Roles = { crank: number; cams: number[] };
export type Trace = {
  roles: Roles;
  clock: AngleClock;
  /** Signal of the crank sensor. */
  crankKind: Edges['kind'];
  /** Of each cam, by the channel's name; why it has none. */
  cams: { name: string; pattern?: CamPattern; error?: PatternError | EdgeError }[];
};
export type TraceError =
  | { code: 'one_channel'; channels: number }
  | { code: 'channel'; name: string; error: EdgeError }
  | { code: 'crank'; name: string; error: ClockError }
  /** The channel that was said to be the crank has no wheel, and another one has. */
  | { code: 'swapped'; name: string; crank: string };
export type TraceReading = { ok: true; value: Trace } | { ok: false; error: TraceError };

const WHEELS: readonly ToothWheel[] = USUAL_WHEELS.flatMap((w) => {
  const read = readWheel(w);
  return read.ok ? [read.value] : [];
});

/**
 * Reads crank and cam of a capture. The crank is the channel with most edges, the others are cams, unless it is said; its wheel is the usual one that fits, unless it is said. What is said of channels that this capture has not is passed over.
 */
export function readTrace(capture: Capture, wheel?: ToothWheel, said?: Roles): TraceReading {
  const { channels, stepS } = capture;
  if (channels.length < 2 || said?.cams.length === 0)
    return { ok: false, error: { code: 'one_channel', channels: channels.length } };
  const edges = channels.map((c) => findEdges(c.samples));
  const count = (k: number) => {
    const e = nth(edges, k);
    return e.ok ? e.value.falling.length : 0;
  };
  const order = channels.map((_, k) => k).sort((a, b) => count(b) - count(a));
  const there = said && Math.max(said.crank, ...said.cams) < channels.length;
  const roles = (there ? said : undefined) ?? {
    crank: num(order, 0),
    cams: order.slice(1).sort((a, b) => a - b),
  };
  const crank = nth(edges, roles.crank);
  const name = nth(channels, roles.crank).name;
  if (!crank.ok) return { ok: false, error: { code: 'channel', name, error: crank.error } };
  const clock = crankClock(crank.value, stepS, wheel ? [wheel] : WHEELS);
  if (!clock.ok) {
    const other = order.find((k) => {
      const e = nth(edges, k);
      return k !== roles.crank && e.ok && crankClock(e.value, stepS, wheel ? [wheel] : WHEELS).ok;
    });
    return {
      ok: false,
      error:
        other === undefined
          ? { code: 'crank', name, error: clock.error }
          : { code: 'swapped', name, crank: nth(channels, other).name },
    };
  }
  const seconds = (samples: Float64Array) => samples.map((s) => s * stepS);
  const cams = roles.cams.map((k): Trace['cams'][number] => {
    const e = nth(edges, k);
    if (!e.ok) return { name: nth(channels, k).name, error: e.error };
    const read = camPattern(clock.value, seconds(e.value.rising), seconds(e.value.falling));
    return read.ok
      ? { name: nth(channels, k).name, pattern: read.value }
      : { name: nth(channels, k).name, error: read.error };
  });
  return { ok: true, value: { roles, clock: clock.value, crankKind: crank.value.kind, cams } };
}

/** Degrees of a tooth of the crank's wheel, by which angles are ambiguous when it has no gap. */
export const pitchOf = ({ clock }: Trace): number | undefined =>
  clock.even ? 360 / clock.wheel.teeth.length : undefined;
