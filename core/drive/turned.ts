import { nth } from '@core/quantity/must';
import type { Layout } from './layout';
import type { Circle } from './path';

export type TurnedDrive = {
  /** Degrees anticlockwise that each wheel has turned. */
  wheelDeg: number[];
  /** Pitches that the belt has run. */
  pitches: number;
};

/**
 * All wheels with the driver turned by so many degrees in its running sense. Toothed wheels turn by teeth, exactly; smooth
 * ones by the speed of the belt on their surface, without slip; shoes do not turn.
 */
export function turnedBy(layout: Layout, circles: readonly Circle[], driverDeg: number): TurnedDrive {
  const z0 = nth(layout.wheels, 0).teeth ?? 1;
  const pitches = (driverDeg / 360) * z0;
  const wheelDeg = layout.wheels.map((w, i) => {
    const c = nth(circles, i);
    if (w.arc) return 0;
    const turns =
      w.teeth === undefined ? (pitches * layout.pitchMm) / (2 * Math.PI * c.r) : pitches / w.teeth;
    return c.turn * turns * 360;
  });
  return { wheelDeg, pitches };
}
