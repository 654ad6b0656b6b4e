import { type Result, err, ok } from '@core/quantity/result';
import { carrierAt, limitsOf, pointerAt } from './carrier';
import type { Layout } from './layout';
import { atCarrier } from './move';
import { storedAngle } from './path';
import { markPhases, type Phase, seating } from './phase';
import { crossings, sample } from './roots';
import { solveDrive, solveFixed } from './solve-drive';
import { drivenWheels } from './strands';
import type { SettingsError } from './tensioner';

/** One idler turned so that the first cam behind it comes back to where it stood on the unchanged drive. */
export type CompensationStep = {
  idler: number;
  cam: number;
  fromReading: number;
  toReading: number;
  /** What the cam keeps, wheel degrees and teeth, advanced positive. Zero when the idler reaches far enough. */
  residualTeeth: number;
  residualDeg: number;
  inRange: boolean;
};
export type Compensation = { steps: CompensationStep[]; layout: Layout; after: Phase[] };
export type CompensationError = SettingsError | { code: 'no_idlers' };

const STEPS = 60;

/** Eccentric idlers in the order in which the belt is laid on from the crank along the tight side, with their cams. */
export function compensatingIdlers(layout: Layout): { idler: number; cam: number }[] {
  const driven = new Set(drivenWheels(layout));
  const out: { idler: number; cam: number }[] = [];
  for (let i = layout.wheels.length - 1; i > 0; i--) {
    const w = layout.wheels[i]!;
    if (w.role === 'tensioner') break;
    if (w.role !== 'idler' || w.carrier?.kind !== 'eccentric') continue;
    for (let j = i - 1; j > 0; j--) {
      if (layout.wheels[j]!.role === 'tensioner') break;
      if (!driven.has(j)) continue;
      out.push({ idler: i, cam: j });
      break;
    }
  }
  return out;
}

/**
 * Settings of eccentric idlers that bring cams back to their place, one after the other in the order in which a fitter can
 * do it: an idler moves every cam behind it, so the one next to the crank comes first. Where an idler does not reach, it
 * is left at the end of its range that serves best, and the residual is given.
 * @param original the drive before heads or block were changed; `changed` the same with banks moved
 */
export function compensate(original: Layout, changed: Layout): Result<Compensation, CompensationError> {
  const pairs = compensatingIdlers(changed);
  if (pairs.length === 0) return err({ code: 'no_idlers' });
  const before = solveDrive(original);
  if (!before.ok) return before;
  const was = markPhases(original, before.value);
  const seats = seating(was);
  const target = new Map(was.map((p) => [p.wheel, p.teeth]));
  let layout = changed;
  const steps: CompensationStep[] = [];
  for (const { idler, cam } of pairs) {
    const wheel = layout.wheels[idler]!;
    const carrier = wheel.carrier!;
    const { window } = limitsOf(carrier);
    const off = (reading: number): number => {
      const moved = atCarrier(layout, idler, carrierAt(carrier, reading));
      const solved = solveFixed(moved);
      if (!solved.ok) return NaN;
      const phase = markPhases(moved, solved.value, 0, seats).find((p) => p.wheel === cam);
      return phase === undefined ? NaN : phase.teeth - (target.get(cam) ?? 0);
    };
    const fromReading = pointerAt(carrier, (storedAngle(wheel, carrier.pivot) * 180) / Math.PI);
    const at = sample(off, window.from, window.to - window.from, STEPS).filter((s) => !Number.isNaN(s.v));
    const exact = crossings(off, 0, at, []).sort(
      (a, b) => Math.abs(a - fromReading) - Math.abs(b - fromReading),
    )[0];
    const best = at.reduce<{ t: number; v: number } | undefined>(
      (b, s) => (b === undefined || Math.abs(s.v) < Math.abs(b.v) ? s : b),
      undefined,
    );
    if (!best) {
      const solved = solveFixed(layout);
      return solved.ok ? err({ code: 'no_idlers' }) : solved;
    }
    const toReading = exact ?? best.t;
    const residualTeeth = exact === undefined ? best.v : 0;
    steps.push({
      idler,
      cam,
      fromReading,
      toReading,
      residualTeeth,
      residualDeg: (residualTeeth * 360) / layout.wheels[cam]!.teeth!,
      inRange: exact !== undefined,
    });
    layout = atCarrier(layout, idler, carrierAt(carrier, toReading));
  }
  const solved = solveDrive(layout);
  if (!solved.ok) return solved;
  return ok({ steps, layout, after: markPhases(layout, solved.value, 0, seats) });
}
