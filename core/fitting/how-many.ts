import { nth } from '@core/quantity/must';
import { type Effect, thingOf } from '@core/catalogue/effects';
import type { PlacedStep, StepSpot } from '@core/catalogue/expand-procedure';
import type { Wheel } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';

/** Cams of a drive, each shaft once: a stage that a cam drives names it again. */
export const camWheels = (stages: readonly Stage[]): Wheel[] =>
  stages.flatMap((s) => s.layout.wheels.filter((w, i) => w.role === 'cam' && !(i === 0 && s.on)));

/** How many of a thing one effect of a step is done to, as this drive has them; undefined where a step has to say. */
export function howMany(effect: Effect, spot: StepSpot, stages: readonly Stage[]): number | undefined {
  switch (thingOf(effect[1])?.count) {
    case 'rollers':
      return nth(stages, spot.stage).layout.wheels.filter(
        (w) => w.role === 'idler' && w.teeth === undefined && !w.carrier && !w.arc,
      ).length;
    case 'cams':
      return camWheels(stages).filter((w) => w.phaser !== true).length;
    case 'phasers':
      return camWheels(stages).filter((w) => w.phaser === true).length;
    case undefined:
      return undefined;
  }
}

/** Fasteners that a step tightens: as it says, else as the drive has them. */
export function fastenersOf(
  step: Pick<PlacedStep, 'torque' | 'does' | 'spot'>,
  stages: readonly Stage[],
): number | undefined {
  if (step.torque?.count !== undefined) return step.torque.count;
  const tightened = step.does?.find(([act]) => act === 'tightened');
  return tightened && howMany(tightened, step.spot, stages);
}
