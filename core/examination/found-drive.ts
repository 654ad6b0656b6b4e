import type { Layout } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';
import { AS_MADE, changedLayout, driveState, type WhatIf } from '@core/drive/what-if';
import type { CamPhase } from '@core/drive/phase';
import { numberOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { bankThing } from '@core/facts/thing';

/** What facts say was taken off the parts that the wheels of a layout sit on, mm by bank. */
export function nearerOf(state: State, layout: Pick<Layout, 'banks'>): Record<string, number> {
  return Object.fromEntries(
    (layout.banks ?? []).flatMap((b) => {
      const mm = numberOf(state, 'bank.nearer', bankThing(b.id));
      return mm === undefined || mm === 0 ? [] : [[b.id, mm]];
    }),
  );
}

/** The drive as it is known to be built: as made, but for machined heads and blocks. One and the same where nothing is known. */
function builtAs(state: State, layout: Layout): WhatIf {
  const nearerMm = nearerOf(state, layout);
  return Object.keys(nearerMm).length === 0 ? AS_MADE : { ...AS_MADE, nearerMm };
}

/** Marks that a right fitting shows on the drive as it is built: every prediction of a case is made here. */
export function predictedPhases(state: State, layout: Layout): CamPhase[] {
  const s = driveState(layout, builtAs(state, layout));
  return s.ok ? s.value.phases : [];
}

/** The stages with their banks where they are; the same list where none was machined. */
export function builtStages(state: State, stages: readonly Stage[]): readonly Stage[] {
  if (stages.every((s) => builtAs(state, s.layout) === AS_MADE)) return stages;
  return stages.map((s) => ({ ...s, layout: changedLayout(s.layout, builtAs(state, s.layout)) }));
}
