import { nth, num } from '@core/quantity/must';
import { type AngleClock, type ClockError, crankClocks } from './clock';
import { type EdgeError, type EdgeReading, findEdges } from './edges';
import { camPattern, type CamPattern, type PatternError } from './pattern';
import type { Capture } from './read-capture';
import { readWheel, type ToothWheel, USUAL_WHEELS } from './wheel';

/** Which channel is which: by their order in the file. */
export type Roles = { crank: number; cams: number[] };
export type Trace = {
  roles: Roles;
  clock: AngleClock;
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
 * Reads crank and cam of a capture. The crank is the channel with most edges that is a wheel, the others are cams, unless it is said; its wheel is the likeliest of the usual ones, unless it is said. What is said of channels that this capture has not is passed over.
 */
export function readTrace(capture: Capture, wheel?: ToothWheel, said?: Roles): TraceReading {
  const { channels, stepS } = capture;
  if (channels.length < 2 || said?.cams.length === 0)
    return { ok: false, error: { code: 'one_channel', channels: channels.length } };
  const edges = channels.map((c) => findEdges(c.samples));
  const read = new Map<number, Clocks>();
  const clocksAt = (k: number): Clocks => {
    const e = nth(edges, k);
    const clocks = read.get(k) ?? (e.ok ? crankClocks(e.value, stepS, WHEELS, wheel) : e);
    read.set(k, clocks);
    return clocks;
  };
  const count = (k: number) => {
    const e = nth(edges, k);
    return e.ok ? e.value.falling.length : 0;
  };
  const order = channels.map((_, k) => k).sort((a, b) => count(b) - count(a));
  const there = said && Math.max(said.crank, ...said.cams) < channels.length ? said : undefined;
  const first = there?.crank ?? num(order, 0);
  const own = clocksAt(first);
  // What shows another wheel than was said is the crank all the same, unless a channel of more edges is the one that was said;
  // and a cam that happens to pass for a wheel is none where another channel is one of far more teeth.
  const shows = (r: Clocks) => !r.ok && 'better' in r.error;
  const least = own.ok ? MORE * count(first) : shows(own) ? count(first) : -1;
  const other = order.find((k) => {
    if (k === first || count(k) <= least) return false;
    const r = clocksAt(k);
    return r.ok || (own.ok && shows(r));
  });
  const name = nth(channels, first).name;
  if (there && other !== undefined)
    return { ok: false, error: { code: 'swapped', name, crank: nth(channels, other).name } };
  const at = other ?? first;
  const clocks = clocksAt(at);
  if (!clocks.ok) return { ok: false, error: failureOf(name, clocks.error) };
  const roles = there ?? { crank: at, cams: channels.flatMap((_, k) => (k === at ? [] : [k])) };
  const sure = byCams(
    clocks.value.map((clock) => ({
      clock,
      cams: roles.cams.map((k) => camOf(nth(channels, k).name, nth(edges, k), clock, stepS)),
    })),
  );
  if (!sure.ok)
    return { ok: false, error: { code: 'crank', name: nth(channels, at).name, error: sure.error } };
  const { clock, cams } = sure.value;
  return {
    ok: true,
    value: { roles, clock, cams: cams.map((c) => c.cam) },
  };
}

/** A crank has at least so many times as many edges as a cam. */
const MORE = 3;

type Clocks = ReturnType<typeof crankClocks> | Extract<EdgeReading, { ok: false }>;
/** A cam as it is read under a clock, and how steady it then is. */
type Cam = { cam: Trace['cams'][number]; steady: number };

function camOf(name: string, e: EdgeReading, clock: AngleClock, stepS: number): Cam {
  if (!e.ok) return { cam: { name, error: e.error }, steady: 0 };
  const read = camPattern(clock, e.value, stepS);
  return read.ok
    ? { cam: { name, pattern: read.value }, steady: read.steady }
    : { cam: { name, error: read.error }, steady: 0 };
}

/** A cam comes back alike in each cycle of the right wheel: so steady it has to be, and under the others it must not. */
const STEADY = 0.85;

type Candidate = { clock: AngleClock; cams: Cam[] };
/** The clock that the cams bear out, where the crank alone leaves several. */
function byCams(
  all: readonly Candidate[],
): { ok: true; value: Candidate } | { ok: false; error: ClockError } {
  const [first, second] = all;
  if (!first) return { ok: false, error: { code: 'too_few_teeth', teeth: 0 } };
  if (!second) return { ok: true, value: first };
  const steady = all.filter((c) => c.cams.some((cam) => cam.steady >= STEADY));
  if (steady.length === 1) return { ok: true, value: nth(steady, 0) };
  const [a, b] = steady.length > 1 ? [nth(steady, 0), nth(steady, 1)] : [first, second];
  return {
    ok: false,
    error: { code: 'rival_wheels', notation: a.clock.wheel.notation, rival: b.clock.wheel.notation },
  };
}

/** Why a channel gave no clock. */
const failureOf = (name: string, error: EdgeError | ClockError): TraceError =>
  error.code === 'constant' || error.code === 'no_edges'
    ? { code: 'channel', name, error }
    : { code: 'crank', name, error };
