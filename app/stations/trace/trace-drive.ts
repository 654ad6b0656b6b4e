import { computed, inject, Injectable, signal } from '@angular/core';
import { wheelsCounted } from '@core/answer/trace-answer';
import { agreed } from '@core/quantity/agreed';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { type DriveTeeth, driveTeeth, knownGood, reluctorOf } from '@core/trace/drive-teeth';
import type { CamPattern } from '@core/trace/pattern';
import { traceVerdict } from '@core/trace/verdict';
import { CaseDesk } from '../../data/case-desk';
import { camName } from '../../messages/trace';
import type { TraceRead } from '../../workers/trace.protocol';

/** Cams of one side of a comparison. */
export type Side = Pick<TraceRead, 'wheel' | 'teeth' | 'period' | 'crankKind'> & {
  /** By the place among the drive's cams. */
  cams: { at: number; pattern: CamPattern }[];
};

/** What the case's drive says to a capture: its teeth, its sensors' wheels and edges, by every design that is left. */
@Injectable()
export class TraceDrive {
  private readonly desk = inject(CaseDesk);
  readonly rules = computed(() => this.desk.current()?.answers?.policy ?? SHIPPED_POLICY);
  /** What the drive has; none while no case says. */
  readonly has = computed(() => this.desk.current()?.answers?.possible.has);
  /** Teeth of the drive where no case says them. */
  readonly typed = signal({ zCrank: 20, zCam: 40 });
  /** Designs of the case that are still possible. */
  private readonly designs = computed(() => {
    const a = this.desk.current()?.answers;
    return (a?.identification?.possible ?? []).map((v, i) => ({
      name: v.name,
      layouts: (a?.possible.designs[i] ?? []).map((s) => s.layout),
    }));
  });
  /** What the case's drive says of its teeth: all designs that are left alike. */
  readonly known = computed(() => agreed(this.designs().map((d) => driveTeeth(d.layouts))));
  /** Designs that differ in their teeth, each with its own; none where they agree. */
  readonly differing = computed(() => {
    const all = this.designs().flatMap(({ name, layouts }) => {
      const teeth = driveTeeth(layouts);
      return teeth ? [{ name, teeth }] : [];
    });
    return this.known() === undefined ? all : [];
  });
  /** The crank sensor's wheel by the catalogue, where all designs have one. */
  readonly wheel = computed(() => agreed(this.designs().map((d) => reluctorOf(d.layouts))));
  readonly teeth = computed((): DriveTeeth => {
    const { zCrank, zCam } = this.typed();
    const cam = { id: '', name: camName(0), teeth: zCam, unit: 'tooth' as const };
    return this.known() ?? this.differing()[0]?.teeth ?? { zCrank, unit: 'tooth', cams: [cam] };
  });
  readonly catalogue = computed((): Side | undefined => {
    const all = this.designs().map((d) => knownGood(d.layouts, this.rules().traceDesignU));
    const good = agreed(all.map((g) => (g.ok ? g.value : undefined)));
    if (!good) return undefined;
    const cams = good.cams.map((c) => ({
      at: this.teeth().cams.findIndex((k) => k.id === c.id),
      pattern: c.pattern,
    }));
    return { ...good, cams };
  });
  /** What each design makes of an offset, where the designs that are left differ and do not say the same of it. */
  eachDesign(shift: Parameters<typeof traceVerdict>[0], slots: number | undefined, at: number) {
    const all = this.differing().flatMap(({ name, teeth }) => {
      const wheels = wheelsCounted(teeth, slots, teeth.cams[at]?.id);
      return wheels
        ? [{ design: name, wheels, said: traceVerdict(shift, wheels, this.rules().traceToleranceDeg) }]
        : [];
    });
    const alike = new Set(all.map(({ said }) => JSON.stringify([said.verdict, 'at' in said ? said.at : []])));
    return alike.size > 1 ? all : undefined;
  }
}
