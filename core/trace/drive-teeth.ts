import { err, ok, type Result } from '@core/quantity/result';
import type { Layout } from '@core/drive/layout';
import type { CamPattern } from './pattern';
import { fromFirstTooth, periodDeg, readWheel, type ToothWheel, type WheelError } from './wheel';

/** What a loop is counted in. */
export type LoopUnit = 'tooth' | 'link';
/** A cam of a drive: its wheel's teeth and what the loop on it is counted in. */
type DriveCam = { id: string; name: string; teeth: number; unit: LoopUnit };
export type DriveTeeth = { zCrank: number; unit: LoopUnit; cams: DriveCam[] };

const unitOf = (l: Layout): LoopUnit => (l.kind === 'chain' ? 'link' : 'tooth');
/** Wheels of the cams, each cam once: a further stage's driving wheel sits on a cam that was named already. */
const camWheels = (layouts: readonly Layout[]) =>
  layouts.flatMap((l) =>
    l.wheels.flatMap((w, i) => (w.role === 'cam' && !(l.follows && i === 0) ? [{ w, l }] : [])),
  );

/** Teeth of the drive at the crank and at each cam; none where it does not say them. */
export function driveTeeth(layouts: readonly Layout[]): DriveTeeth | undefined {
  const first = layouts.find((l) => l.wheels.some((w) => w.role === 'crank' && w.teeth !== undefined));
  const zCrank = first?.wheels.find((w) => w.role === 'crank')?.teeth;
  const cams = camWheels(layouts).flatMap(({ w, l }) =>
    w.teeth === undefined ? [] : [{ id: w.id, name: w.name, teeth: w.teeth, unit: unitOf(l) }],
  );
  return first && zCrank !== undefined && cams.length > 0 ? { zCrank, unit: unitOf(first), cams } : undefined;
}

/** What the sensors of a drive show when it is set right, as its design says. */
export type KnownGood = {
  wheel: string;
  teeth: readonly boolean[];
  /** Degrees after which the wheel looks the same. */
  period: number;
  crankKind: 'square' | 'swing';
  cams: { id: string; pattern: CamPattern }[];
};

/** The crank sensor's wheel that a drive names. */
export const reluctorOf = (layouts: readonly Layout[]): string | undefined =>
  layouts.flatMap((l) => l.wheels).find((w) => w.reluctor)?.reluctor?.notation;

/** The edges that the catalogue gives for a drive; none where it gives none. @param u of an edge, standard, crank degrees */
export function knownGood(layouts: readonly Layout[], u: number): Result<KnownGood | undefined, WheelError> {
  const reluctor = layouts.flatMap((l) => l.wheels).find((w) => w.reluctor)?.reluctor;
  if (!reluctor) return ok(undefined);
  const read = readWheel(reluctor.notation);
  if (!read.ok) return err(read.error);
  const wheel: ToothWheel = read.value;
  const cams = camWheels(layouts).flatMap(({ w }) =>
    w.signal
      ? [
          {
            id: w.id,
            pattern: {
              kind: 'square' as const,
              edges: w.signal.map((e) => ({ ...e, sd: u, cycles: 1 })),
              freedom: 0,
              cycles: [],
              moving: false,
            },
          },
        ]
      : [],
  );
  return ok(
    cams.length === 0
      ? undefined
      : {
          wheel: wheel.notation,
          teeth: fromFirstTooth(wheel),
          period: periodDeg(wheel),
          crankKind: reluctor.kind,
          cams,
        },
  );
}
