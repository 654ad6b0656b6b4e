import { computed, inject, Injectable, signal } from '@angular/core';
import { markKey } from '@core/catalogue/drive-observables';
import { isMarked } from '@core/drive/judge-marks';
import { stagesFor } from '@core/catalogue/find-records';
import { type Layout, tensionerIndex } from '@core/drive/layout';
import { type Stage, stagesOf } from '@core/drive/stages';
import { AS_MADE, type DriveState, driveState, type WhatIf } from '@core/drive/what-if';
import { CaseDesk } from '../data/case-desk';

export type Held = { name: string; layout: Layout; what: WhatIf };

/** Steps that can be taken back. */
const PAST = 50;
/** How well a mark is read by eye, teeth. */
const TRIED_U = 0.05;

/** What the user is trying on the drive bench: a drive, a stage of it, a state, and a turn of the crank. */
@Injectable()
export class BenchStore {
  private readonly desk = inject(CaseDesk);
  /** Layout brought in or drawn up here instead of one of the catalogue's. */
  readonly own = signal<Layout | undefined>(undefined);
  readonly chosen = signal<string | undefined>(undefined);
  readonly stageAt = signal(0);
  readonly what = signal<WhatIf>(AS_MADE);
  readonly past = signal<readonly WhatIf[]>([]);
  private knob = '';
  readonly driverDeg = signal(0);
  readonly held = signal<Held | undefined>(undefined);
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
  private readonly catalogue = computed(() => {
    const id = this.desk.newestPack();
    return this.desk.current()?.catalogue ?? [...this.desk.catalogues().values()].find((c) => c.pack === id);
  });
  /** Drives of the catalogue by engine and design. */
  readonly drives = computed(() =>
    (this.catalogue()?.pack.variants ?? [])
      .filter((v) => v.layout !== undefined)
      .slice(0, 500)
      .map((v) => ({ id: v.layout!, name: `${v.engine} · ${v.name}` })),
  );
  readonly drive = computed(() => this.chosen() ?? this.caseLayout() ?? this.drives()[0]?.id);
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
    const held = this.held();
    if (held) {
      const s = driveState(held.layout, held.what);
      return s.ok ? s.value : undefined;
    }
    const made = this.made();
    return made?.ok ? made.value : undefined;
  });
  /** Observed mark offsets of this stage: the case's facts, or what is tried here. */
  readonly seen = computed<ReadonlyMap<string, { teeth: number; u: number; fact?: string }>>(() => {
    const layout = this.layout();
    const out = new Map<string, { teeth: number; u: number; fact?: string }>();
    for (const w of layout?.wheels.filter(isMarked) ?? []) {
      const fact = this.inCase() ? this.desk.current()?.state.standing.get(markKey(w.id)) : undefined;
      const tried = this.tried()[w.id];
      if (fact && typeof fact.value === 'number')
        out.set(w.id, { teeth: fact.value, u: fact.u ?? 0, fact: fact.id });
      else if (!this.inCase() && tried !== undefined) out.set(w.id, { teeth: tried, u: TRIED_U });
    }
    return out;
  });
  readonly changed = computed(() => this.what() !== AS_MADE);

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
    if (knob !== this.knob || before === AS_MADE) this.past.update((p) => [...p, before].slice(-PAST));
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
    this.what.set(AS_MADE);
    this.past.set([]);
    this.knob = '';
    this.driverDeg.set(0);
    this.held.set(undefined);
    this.tried.set({});
  }

  /** Keeps the present state to compare the next one with. */
  hold(): void {
    const layout = this.layout();
    if (layout) this.held.set({ name: 'state kept', layout, what: this.what() });
  }
}
