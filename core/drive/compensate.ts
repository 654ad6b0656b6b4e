import { must, nth } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import { carrierAt, limitsOf, pointerAt } from './carrier';
import { type Layout, nominalLength } from './layout';
import { atCarrier } from './move';
import { storedAngle } from './path';
import { markPhases, type CamPhase, seating } from './phase';
import { crossings, golden, profile } from './roots';
import { solveDrive, solveFixed } from './solve-drive';
import { drivenWheels } from './strands';
import type { SettingsError } from './tensioner';

/** One idler turned so that the first cam behind it comes back to where it stood on the unchanged drive. */
export type CompensationStep = {
  idler: number;
  cam: number;
  fromReading: number;
  /** The setting nearest to where it stands, and all of them. */
  toReading: number;
  settings: number[];
  /** What the cam keeps, wheel degrees and teeth, advanced positive. Zero when the idler reaches far enough. */
  residualTeeth: number;
  residualDeg: number;
  inRange: boolean;
};
export type Compensation = { steps: CompensationStep[]; layout: Layout; after: CamPhase[] };
export type CompensationError = SettingsError | { code: 'no_idlers' };

const STEPS = 60;

/** Eccentric idlers in the order in which the belt is laid on from the crank along the tight side, with their cams. */
export function compensatingIdlers(layout: Layout): { idler: number; cam: number }[] {
  const driven = new Set(drivenWheels(layout));
  const out: { idler: number; cam: number }[] = [];
  for (let i = layout.wheels.length - 1; i > 0; i--) {
    const w = nth(layout.wheels, i);
    if (w.role === 'tensioner') break;
    if (w.role !== 'idler' || w.carrier?.kind !== 'eccentric') continue;
    for (let j = i - 1; j > 0; j--) {
      if (nth(layout.wheels, j).role === 'tensioner') break;
      if (!driven.has(j)) continue;
      out.push({ idler: i, cam: j });
      break;
    }
  }
  return out;
}

/** The reading that leaves least, between samples as well. */
function nearestToZero(off: (reading: number) => number, points: readonly { t: number; v: number }[]) {
  let at = -1;
  points.forEach((p, i) => {
    if (at < 0 || Math.abs(p.v) < Math.abs(nth(points, at).v)) at = i;
  });
  const best = points[at];
  if (!best) return undefined;
  const [a, b] = [points[at - 1] ?? best, points[at + 1] ?? best];
  const t = golden((x) => Math.abs(off(x)), a.t, b.t, -1).t;
  const fine = { t, v: off(t) };
  return Math.abs(fine.v) < Math.abs(best.v) ? fine : best;
}

/**
 * Settings of eccentric idlers that bring cams back to their place, one after the other in the order in which a fitter can
 * do it: an idler moves every cam behind it, so the one next to the crank comes first. Where an idler does not reach, it
 * is left at the end of its range that serves best, and the residual is given.
 * @param original the drive before heads or block were changed; `changed` the same with banks moved
 * @param elongation ratio by which the belt or chain has become longer since
 */
export function compensate(
  original: Layout,
  changed: Layout,
  elongation = 0,
): Result<Compensation, CompensationError> {
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
    const wheel = nth(layout.wheels, idler);
    const carrier = must(wheel.carrier);
    const { window } = limitsOf(carrier);
    const off = (reading: number): number => {
      const moved = atCarrier(layout, idler, carrierAt(carrier, reading));
      const solved = solveFixed(moved);
      if (!solved.ok) return NaN;
      const phase = markPhases(moved, solved.value, elongation, seats).find((p) => p.wheel === cam);
      return phase === undefined ? NaN : phase.teeth - (target.get(cam) ?? 0);
    };
    const fromReading = pointerAt(carrier, (storedAngle(wheel, carrier.pivot) * 180) / Math.PI);
    const points = profile(off, window, STEPS);
    const settings = crossings(off, 0, points);
    const best = nearestToZero(off, points);
    if (!best) {
      const solved = solveFixed(layout);
      return solved.ok ? err({ code: 'no_idlers' }) : solved;
    }
    const near = [...settings].sort((a, b) => Math.abs(a - fromReading) - Math.abs(b - fromReading));
    const toReading = near[0] ?? best.t;
    const residualTeeth = near.length === 0 ? best.v : 0;
    steps.push({
      idler,
      cam,
      fromReading,
      toReading,
      settings,
      residualTeeth,
      residualDeg: (residualTeeth * 360) / must(nth(layout.wheels, cam).teeth),
      inRange: settings.length > 0,
    });
    layout = atCarrier(layout, idler, carrierAt(carrier, toReading));
  }
  const solved = solveDrive(layout, elongation * nominalLength(layout));
  if (!solved.ok) return solved;
  return ok({ steps, layout, after: markPhases(layout, solved.value, elongation, seats) });
}
