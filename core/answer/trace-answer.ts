import { must, nth } from '@core/quantity/must';
import type { Layout } from '@core/drive/layout';
import type { NewFact } from '@core/facts/change';
import type { FileRef } from '@core/facts/fact';
import type { Registry } from '@core/facts/observable';
import { measuredOf, standing, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Policy } from '@core/policy/policy';
import { agreed } from '@core/quantity/agreed';
import { chancesOf, highest, lowest, uOfHalf } from '@core/quantity/judge';
import type { Shift } from '@core/trace/compare';
import { type DriveTeeth, driveTeeth, reluctorOf } from '@core/trace/drive-teeth';
import type { ToldOffset } from '@core/trace/told-offset';
import { traceVerdict, type TraceVerdict, type Wheels } from '@core/trace/verdict';
import { readWheel } from '@core/trace/wheel';

/** What a capture said of the cam, held against this drive; nothing is said of wheels in which the designs that are left differ. */
export type TraceAnswer = {
  facts: string[];
  wheels?: Wheels;
  said?: TraceVerdict;
  /** How likely each verdict is, by all that the offset may be. */
  chances?: Readonly<Partial<Record<SureTrace, number>>>;
};
type SureTrace = Exclude<TraceVerdict['verdict'], 'cannot_tell'>;

/** Two states of one engine: as it came, which stays evidence of what was wrong, and after the repair, which proves it. */
export const OFFSETS = { came: 'trace.offset', repaired: 'trace.offset_after' } as const;
export type StateOfEngine = keyof typeof OFFSETS;
/** The sensor's wheel is the engine's in both states; which cam was read is a matter of each. */
const WHEEL = 'trace.wheel';
const CAMS = { came: 'trace.cam', repaired: 'trace.cam_after' } as const;

/** True when an answer is an offset that may be filed: not up to whole teeth, and not of a cam that moves. */
export const isOffset = (v: TraceVerdict): boolean => v.verdict !== 'cannot_tell' || v.why === 'wide';

/** What a capture said, as facts with their file. @param note what it was held against @param cam which cam of the drive, where it has several @param of which state of the engine it shows */
export const traceFacts = (
  { deg, low, high }: Pick<Shift, 'deg' | 'low' | 'high'>,
  wheel: string,
  files: readonly FileRef[],
  note: string,
  cam?: string,
  of: StateOfEngine = 'came',
): NewFact[] => [
  { key: OFFSETS[of], value: deg, u: uOfHalf((high - low) / 2), how: 'measured', files, note },
  { key: WHEEL, value: wheel, how: 'measured' },
  ...(cam === undefined ? [] : [{ key: CAMS[of], value: cam, how: 'measured' as const }]),
];

/** An offset that was told, as facts: reported, without a file. @param text as it was told */
export const toldFacts = ({ deg, u, wheel }: ToldOffset, text: string, of: StateOfEngine): NewFact[] => [
  { key: OFFSETS[of], value: deg, u, how: 'reported', note: text },
  ...(wheel === undefined ? [] : [{ key: WHEEL, value: wheel, how: 'reported' as const }]),
];

/** The wheels that an offset is counted at: those of the crank and of the cam that is named, or of any where all have the same teeth. */
export function wheelsCounted(
  teeth: DriveTeeth | undefined,
  sensorSlots: number | undefined,
  cam: string | undefined,
): Wheels | undefined {
  const zCam =
    teeth?.cams.find((c) => c.id === cam)?.teeth ??
    (new Set(teeth?.cams.map((c) => c.teeth)).size === 1 ? nth(must(teeth).cams, 0).teeth : undefined);
  return teeth && zCam !== undefined
    ? { zCrank: teeth.zCrank, zCam, ...(sensorSlots === undefined ? {} : { sensorSlots }) }
    : undefined;
}

export function traceAnswer(
  state: State,
  registry: Registry,
  designs: readonly (readonly Layout[])[],
  policy: Policy,
  of: StateOfEngine = 'came',
): TraceAnswer | undefined {
  const read = measuredOf(state, registry, OFFSETS[of]);
  if (!read) return undefined;
  // While several designs are left, what they have alike is enough.
  const teeth = agreed(designs.map((d) => driveTeeth(d)));
  const wheel = readWheel(textOf(state, WHEEL) ?? agreed(designs.map((d) => reluctorOf(d))) ?? '');
  const named = [WHEEL, CAMS[of]].flatMap((key) => standing(state, key) ?? []);
  const facts = [...read.facts, ...named].map((f) => f.id);
  const slots = wheel.ok ? wheel.value.teeth.length : undefined;
  const counted = wheelsCounted(teeth, slots, textOf(state, CAMS[of]));
  if (!counted) return { facts };
  const shift = { deg: read.value, low: lowest(read), high: highest(read) };
  const said = traceVerdict({ ...shift, moving: false }, counted, policy.traceToleranceDeg);
  const sure = (deg: number): SureTrace | undefined => {
    const { verdict } = traceVerdict(
      { deg, low: deg, high: deg, moving: false },
      counted,
      policy.traceToleranceDeg,
    );
    return verdict === 'cannot_tell' ? undefined : verdict;
  };
  return { facts, wheels: counted, said, chances: chancesOf(read, sure) };
}
