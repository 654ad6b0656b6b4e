import { must, nth } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import type { Layout } from './layout';
import type { CamPhase } from './phase';

export type Stage = {
  layout: Layout;
  /** Index of the stage that drives it and the wheel there; none for the one at the crank. */
  on?: { stage: number; wheel: number };
  /** Turns of its driving wheel for one turn of the crank. */
  ratio: number;
};
export type StageError =
  | { code: 'stage_unknown'; layout: string; wants: string }
  | { code: 'stage_wheel_unknown'; layout: string; wheel: string }
  | { code: 'stage_apart'; layout: string; byMm: number }
  | { code: 'stage_loop'; layout: string };

/** Drives sit on one shaft: centres further apart than this are a mistake. */
const SAME_SHAFT_MM = 0.5;

/** A drive of one or more stages: the layout named, then all that follow it, however far. */
export function stagesOf(layouts: readonly Layout[], id: string): Result<Stage[], StageError> {
  const root = layouts.find((l) => l.id === id);
  if (!root) return err({ code: 'stage_unknown', layout: id, wants: id });
  const stages: Stage[] = [{ layout: root, ratio: 1 }];
  for (let s = 0; s < stages.length; s++) {
    const parent = nth(stages, s);
    for (const layout of layouts.filter((l) => l.follows?.layout === parent.layout.id)) {
      if (stages.some((x) => x.layout.id === layout.id))
        return err({ code: 'stage_loop', layout: layout.id });
      const wheel = parent.layout.wheels.findIndex((w) => w.id === must(layout.follows).wheel);
      const shaft = parent.layout.wheels[wheel];
      if (!shaft)
        return err({ code: 'stage_wheel_unknown', layout: layout.id, wheel: must(layout.follows).wheel });
      const driver = nth(layout.wheels, 0);
      const byMm = Math.hypot(driver.x - shaft.x, driver.y - shaft.y);
      if (byMm > SAME_SHAFT_MM) return err({ code: 'stage_apart', layout: layout.id, byMm });
      const teeth = nth(parent.layout.wheels, 0).teeth ?? 1;
      stages.push({
        layout,
        on: { stage: s, wheel },
        ratio: wheel === 0 ? parent.ratio : (parent.ratio * teeth) / (shaft.teeth ?? teeth),
      });
    }
  }
  return ok(stages);
}

/**
 * Crank degrees by which each wheel of each stage stands off when every stage's offsets add up: a wheel's own offset, and
 * what its driving shaft brings along. Cam retard of a two-stage chain is added stage by stage.
 */
export function crankOffsets(
  stages: readonly Stage[],
  phases: readonly (readonly Pick<CamPhase, 'wheel' | 'driverDeg'>[])[],
): { stage: number; wheel: number; crankDeg: number }[] {
  const out: { stage: number; wheel: number; crankDeg: number }[] = [];
  stages.forEach((s, i) => {
    const brought = s.on
      ? (out.find((o) => o.stage === must(s.on).stage && o.wheel === must(s.on).wheel)?.crankDeg ?? 0)
      : 0;
    for (const p of phases[i] ?? [])
      out.push({ stage: i, wheel: p.wheel, crankDeg: brought + p.driverDeg / s.ratio });
  });
  return out;
}
