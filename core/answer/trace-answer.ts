import type { Layout } from '@core/drive/layout';
import type { Registry } from '@core/facts/observable';
import { measuredOf, standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Rules } from '@core/house/rules';
import { COVERAGE } from '@core/quantity/judge';
import { traceVerdict, type TraceVerdict, type Wheels } from '@core/trace/verdict';
import { readWheel } from '@core/trace/wheel';

/** What a capture said of the cam, held against this drive; without wheels nothing is said while the design is open. */
export type TraceAnswer = { facts: string[]; wheels?: Wheels; said?: TraceVerdict };

const [OFFSET, WHEEL] = ['trace.offset', 'trace.wheel'];

/** Teeth of the drive at crank and cam; none where it has no such wheels or cams that differ. */
export function driveWheels(layouts: readonly Layout[]): Pick<Wheels, 'zCrank' | 'zCam'> | undefined {
  const all = layouts.flatMap((l) => l.wheels);
  const zCrank = all.find((w) => w.role === 'crank')?.teeth;
  const cams = new Set(all.flatMap((w) => (w.role === 'cam' && w.teeth !== undefined ? [w.teeth] : [])));
  const [zCam] = [...cams];
  return zCrank !== undefined && zCam !== undefined && cams.size === 1 ? { zCrank, zCam } : undefined;
}

export function traceAnswer(
  state: State,
  registry: Registry,
  layouts: readonly Layout[],
  rules: Rules,
): TraceAnswer | undefined {
  const read = measuredOf(state, registry, OFFSET);
  if (!read) return undefined;
  const wheel = readWheel(textOf(state, WHEEL) ?? '');
  const named = standing(state, WHEEL);
  const facts = [...read.facts, ...(named ? [named] : [])].map((f) => f.id);
  const teeth = driveWheels(layouts);
  if (!teeth || !wheel.ok) return { facts };
  const wheels = { ...teeth, sensorSlots: wheel.value.teeth.length };
  const half = COVERAGE * read.u;
  const shift = { deg: read.value, low: read.value - half, high: read.value + half };
  const said = traceVerdict({ ...shift, moving: false }, wheels, rules.traceToleranceDeg);
  return { facts, wheels, said };
}
