import { must } from '@core/quantity/must';
import { own } from '@core/quantity/own';
import { computed, inject, Injectable, linkedSignal, signal } from '@angular/core';
import { elongationOf } from '@core/examination/extension';
import { nearerOf } from '@core/examination/found-drive';
import { MARK } from '@core/examination/marks';
import { wheelThing } from '@core/facts/thing';
import { isMarked } from '@core/drive/judge-marks';
import { stagesFor } from '@core/catalogue/find-records';
import { type Layout, tensionerIndex } from '@core/drive/layout';
import { type Stage, stagesOf } from '@core/drive/stages';
import { AS_MADE, type DriveState, driveState, type WhatIf } from '@core/drive/what-if';
import { canonical } from '@core/facts/canonical';
import { measuredOf } from '@core/facts/read';
import type { Registry } from '@core/facts/observable';
import type { State } from '@core/facts/state';
import { CaseDesk } from '../data/case-desk';
import { Packs } from '../data/packs';

export type Kept = { name: string; layout: Layout; what: WhatIf };

/** Steps that can be taken back. */
const PAST = 50;
/** How well a mark is read by eye, teeth. */
const TRIED_U = 0.05;

/** What the user is trying on the drive bench: a drive, a stage of it, a state, and a turn of the crank. */
@Injectable()
export class DriveStore {
  private readonly desk = inject(CaseDesk);
  private readonly packs = inject(Packs);
  /** Layout brought in or drawn up here instead of one of the catalogue's. */
  readonly own = signal<Layout | undefined>(undefined);
  readonly chosen = signal<string | undefined>(undefined);
  readonly stageAt = signal(0);
  /** What the case's own facts say of the drive: in force until something else is tried. */
  readonly asFound = computed<WhatIf>(
    () => {
      const [state, layout] = [this.inCase() ? this.desk.current()?.state : undefined, this.layout()];
      return state && layout ? foundState(state, this.desk.registry(), layout) : AS_MADE;
    },
    { equal: (a, b) => canonical(a) === canonical(b) },
  );
  /** True when the case's facts say more than how the drive was made. */
  readonly found = computed(() => this.asFound() !== AS_MADE);
  readonly what = linkedSignal<WhatIf>(() => this.asFound());
  readonly past = signal<readonly WhatIf[]>([]);
  private knob = '';
  readonly driverDeg = signal(0);
  readonly kept = signal<Kept | undefined>(undefined);
  readonly view = signal<'over' | 'beside'>('over');
  /** Mark offsets tried without a case, teeth by wheel. */
  readonly tried = signal<Readonly<Record<string, number>>>({});
  /** Wheel whose figures are called out. */
  readonly lit = signal<string | undefined>(undefined);

  /** The case's own drive, when one design is left. */
  readonly caseLayout = computed(() => this.desk.current()?.answers?.variant?.layout);
  readonly inCase = computed(() => {
    const own = this.caseLayout();
    return (
      own !== undefined && (this.chosen() === undefined || this.chosen() === own) && this.own() === undefined
    );
  });
  private readonly catalogue = computed(() => this.desk.current()?.catalogue ?? this.packs.newest());
  /** Drives to choose from, by engine and design: those still possible in a case whose engine is known, else all. */
  readonly drives = computed(() => {
    const possible = this.desk.current()?.answers?.identification?.possible;
    return (possible?.length ? possible : (this.catalogue()?.pack.variants ?? []))
      .filter((v) => v.layout !== undefined)
      .slice(0, 500)
      .map((v) => ({ id: must(v.layout), name: `${v.engine} · ${v.name}` }));
  });
  /** A case whose design is open has no drive yet: it must be chosen, and none is taken for it. */
  readonly open = computed(() => {
    const a = this.desk.current()?.answers;
    return (
      a !== undefined && a.variant === undefined && this.chosen() === undefined && this.own() === undefined
    );
  });
  readonly drive = computed(
    () => this.chosen() ?? this.caseLayout() ?? (this.desk.current() ? undefined : this.drives()[0]?.id),
  );
  readonly stages = computed<readonly Stage[]>(() => {
    const own = this.own();
    if (own) {
      const alone = stagesOf([{ ...own, follows: undefined }], own.id);
      return alone.ok ? alone.value : [];
    }
    const [cat, id] = [this.catalogue(), this.drive()];
    return cat && id !== undefined ? stagesFor(cat, id) : [];
  });
  readonly layout = computed<Layout | undefined>(
    () => (this.stages()[this.stageAt()] ?? this.stages()[0])?.layout,
  );
  /** Turns of this stage's driving wheel for one of the crank. */
  readonly ratio = computed(() => (this.stages()[this.stageAt()] ?? this.stages()[0])?.ratio ?? 1);
  readonly made = computed(() => {
    const layout = this.layout();
    return layout ? driveState(layout, AS_MADE) : undefined;
  });
  readonly present = computed(() => {
    const layout = this.layout();
    return layout ? driveState(layout, this.what()) : undefined;
  });
  /** The state in hand, or the last one that could exist, so that the picture stays while a value is wrong. */
  readonly state = computed<DriveState | undefined>(() => {
    const now = this.present();
    if (now?.ok) return now.value;
    const made = this.made();
    return made?.ok ? made.value : undefined;
  });
  /** Wheels that the fault of the present state names; the tensioner where a length is the fault. */
  readonly faulty = computed<ReadonlySet<string>>(() => {
    const [now, layout] = [this.present(), this.layout()];
    if (!layout || !now || now.ok) return new Set();
    const at = now.error.code === 'no_geometry' ? now.error.why.wheels : [tensionerIndex(layout)];
    return new Set(at.flatMap((i) => layout.wheels[i]?.id ?? []));
  });
  readonly compared = computed<DriveState | undefined>(() => {
    const kept = this.kept();
    if (kept) {
      const s = driveState(kept.layout, kept.what);
      return s.ok ? s.value : undefined;
    }
    const made = this.made();
    return made?.ok ? made.value : undefined;
  });
  /** Observed mark offsets of this stage: the case's facts, or what is tried here. */
  readonly seen = computed<ReadonlyMap<string, { teeth: number; u: number; fact?: string }>>(() => {
    const layout = this.layout();
    const out = new Map<string, { teeth: number; u: number; fact?: string }>();
    const state = this.inCase() ? this.desk.current()?.state : undefined;
    for (const w of layout?.wheels.filter(isMarked) ?? []) {
      const seen = state && measuredOf(state, this.desk.registry(), MARK, wheelThing(w.id));
      const tried = own(this.tried(), w.id);
      if (seen) out.set(w.id, { teeth: seen.value, u: seen.u, fact: seen.fact.id });
      else if (!this.inCase() && tried !== undefined) out.set(w.id, { teeth: tried, u: TRIED_U });
    }
    return out;
  });
  readonly changed = computed(() => this.what() !== this.asFound());

  pick(id: string): void {
    this.own.set(undefined);
    this.chosen.set(id);
    this.stageAt.set(0);
    this.reset();
  }

  pickStage(i: number): void {
    this.stageAt.set(i);
    this.reset();
  }

  take(layout: Layout): void {
    this.own.set(layout);
    this.stageAt.set(0);
    this.reset();
  }

  /** Tries something else. Turning one knob on and on is one step to take back. */
  set(part: Partial<WhatIf>): void {
    const knob = Object.keys(part).join();
    const before = this.what();
    if (knob !== this.knob || before === this.asFound()) this.past.update((p) => [...p, before].slice(-PAST));
    this.knob = knob;
    this.what.set({ ...before, ...part });
  }

  /** Takes the last knob's turning back. */
  undo(): void {
    const before = this.past().at(-1);
    if (!before) return;
    this.past.update((p) => p.slice(0, -1));
    this.knob = '';
    this.what.set(before);
  }

  reset(): void {
    this.what.set(this.asFound());
    this.past.set([]);
    this.knob = '';
    this.driverDeg.set(0);
    this.kept.set(undefined);
    this.tried.set({});
  }

  /** Keeps the present state to compare the next one with. */
  keep(): void {
    const layout = this.layout();
    if (layout) this.kept.set({ name: 'state kept', layout, what: this.what() });
  }
}

/** The drive as a case found it: the measured elongation of its chain, and what was taken off its banks. */
function foundState(state: State, registry: Registry, layout: Layout): WhatIf {
  const e = layout.kind === 'chain' ? elongationOf(state, registry, layout.pitchMm) : undefined;
  const nearerMm = nearerOf(state, layout);
  if (!e && Object.keys(nearerMm).length === 0) return AS_MADE;
  return { ...AS_MADE, elongation: Math.max(0, e?.value ?? 0), nearerMm };
}
