import { nth } from '@core/quantity/must';
import { speedOf } from './clock';
import type { Capture } from './read-capture';
import type { TraceReading } from './trace';

/** Turns a minute that an engine has, from a tired starter to its limit. */
const TURNS = { least: 50, most: 9000 };
/** Units that a column of time has, by the seconds of one. */
const UNITS = [
  { unit: 's', seconds: 1 },
  { unit: 'ms', seconds: 1e-3 },
  { unit: 'µs', seconds: 1e-6 },
] as const;

/**
 * A capture whose column of time names no unit, in the only one in which an engine can turn so fast; it is read once more then.
 * @param read reads crank and cams of a capture
 */
export function inUnitOfTime(
  capture: Capture,
  read: (of: Capture) => TraceReading,
): { capture: Capture; trace: TraceReading } {
  const trace = read(capture);
  if (!capture.head.unitOpen || !trace.ok) return { capture, trace };
  const speeds = speedOf(trace.value.clock).map((s) => s.rpm);
  if (speeds.length === 0) return { capture, trace };
  const rpm = nth(
    [...speeds].sort((a, b) => a - b),
    speeds.length >> 1,
  );
  const { unit, seconds } =
    UNITS.find((u) => rpm / u.seconds >= TURNS.least && rpm / u.seconds <= TURNS.most) ?? UNITS[0];
  if (seconds === 1) return { capture, trace };
  const scaled: Capture = {
    ...capture,
    startS: capture.startS * seconds,
    stepS: capture.stepS * seconds,
    gaps: capture.gaps.map((g) => ({ ...g, seconds: g.seconds * seconds })),
    head: { ...capture.head, timeUnit: unit },
  };
  return { capture: scaled, trace: read(scaled) };
}
