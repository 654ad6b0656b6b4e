import { must, nth } from '@core/quantity/must';
import type { Layout } from '@core/drive/layout';
import type { NewFact } from '@core/facts/change';
import type { FileRef } from '@core/facts/fact';
import type { Registry } from '@core/facts/observable';
import { measuredOf, standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Policy } from '@core/policy/policy';
import { highest, lowest, uOfHalf } from '@core/quantity/judge';
import type { Shift } from '@core/trace/compare';
import { type DriveTeeth, driveTeeth } from '@core/trace/drive-teeth';
import { traceVerdict, type TraceVerdict, type Wheels } from '@core/trace/verdict';
import { readWheel } from '@core/trace/wheel';

/** What a capture said of the cam, held against this drive; without wheels nothing is said while the design is open. */
export type TraceAnswer = { facts: string[]; wheels?: Wheels; said?: TraceVerdict };

const [OFFSET, WHEEL, CAM] = ['trace.offset', 'trace.wheel', 'trace.cam'];

/** True when an answer is an offset that may be filed: not up to whole teeth, and not of a cam that moves. */
export const isOffset = (v: TraceVerdict): boolean => v.verdict !== 'cannot_tell' || v.why === 'wide';

/** What a capture said, as facts with their file. @param note what it was held against @param cam which cam of the drive, where it has several */
export const traceFacts = (
  { deg, low, high }: Pick<Shift, 'deg' | 'low' | 'high'>,
  wheel: string,
  files: readonly FileRef[],
  note: string,
  cam?: string,
): NewFact[] => [
  { key: OFFSET, value: deg, u: uOfHalf((high - low) / 2), how: 'measured', files, note },
  { key: WHEEL, value: wheel, how: 'measured' },
  ...(cam === undefined ? [] : [{ key: CAM, value: cam, how: 'measured' as const }]),
];

/** The wheels that an offset is counted at: those of the crank and of the cam that is named, or of any where all have the same teeth. */
export function wheelsCounted(
  teeth: DriveTeeth | undefined,
  sensorSlots: number,
  cam: string | undefined,
): Wheels | undefined {
  const zCam =
    teeth?.cams.find((c) => c.id === cam)?.teeth ??
    (new Set(teeth?.cams.map((c) => c.teeth)).size === 1 ? nth(must(teeth).cams, 0).teeth : undefined);
  return teeth && zCam !== undefined ? { zCrank: teeth.zCrank, zCam, sensorSlots } : undefined;
}

export function traceAnswer(
  state: State,
  registry: Registry,
  layouts: readonly Layout[],
  policy: Policy,
): TraceAnswer | undefined {
  const read = measuredOf(state, registry, OFFSET);
  if (!read) return undefined;
  const wheel = readWheel(textOf(state, WHEEL) ?? '');
  const named = [WHEEL, CAM].flatMap((key) => standing(state, key) ?? []);
  const facts = [...read.facts, ...named].map((f) => f.id);
  const wheels = wheel.ok
    ? wheelsCounted(driveTeeth(layouts), wheel.value.teeth.length, textOf(state, CAM))
    : undefined;
  if (!wheels) return { facts };
  const shift = { deg: read.value, low: lowest(read), high: highest(read) };
  const said = traceVerdict({ ...shift, moving: false }, wheels, policy.traceToleranceDeg);
  return { facts, wheels, said };
}
