import type { Layout } from '@core/drive/layout';
import type { NewFact } from '@core/facts/change';
import type { FileRef } from '@core/facts/fact';
import type { Registry } from '@core/facts/observable';
import { measuredOf, standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Rules } from '@core/house/rules';
import { COVERAGE } from '@core/quantity/judge';
import type { Shift } from '@core/trace/compare';
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

/** True when an answer is an offset that may be filed: not up to whole teeth, and not of a cam that moves. */
export const isOffset = (v: TraceVerdict): boolean => v.verdict !== 'cannot_tell' || v.why === 'wide';

/** What a capture said, as facts with their file. @param note what it was held against */
export const traceFacts = (
  { deg, low, high }: Pick<Shift, 'deg' | 'low' | 'high'>,
  wheel: string,
  files: readonly FileRef[],
  note: string,
): NewFact[] => [
  { key: OFFSET, value: deg, u: (high - low) / 2 / COVERAGE, how: 'measured', files, note },
  { key: WHEEL, value: wheel, how: 'measured' },
];

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
