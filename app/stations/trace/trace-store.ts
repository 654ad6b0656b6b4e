import { num } from '@core/quantity/must';
import { computed, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { EMPTY, map, type ObservedValueOf, Subject, switchMap } from 'rxjs';
import type { FileRef } from '@core/facts/fact';
import { allStanding } from '@core/facts/read';
import { wheelsCounted } from '@core/answer/trace-answer';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { compareCams, type CompareError, type Shift } from '@core/trace/compare';
import { type DriveTeeth, driveTeeth, knownGood, reluctorOf } from '@core/trace/drive-teeth';
import type { CamPattern } from '@core/trace/pattern';
import type { SaidOfFile } from '@core/trace/read-capture';
import { toldOffset } from '@core/trace/told-offset';
import { type Together, togetherOf, traceVerdict, type TraceVerdict, type Wheels } from '@core/trace/verdict';
import { readWheel } from '@core/trace/wheel';
import { Attachments } from '../../commands/attachments';
import { Traces } from '../../commands/traces';
import { CaseDesk } from '../../data/case-desk';
import { notHereWords } from '../../messages/case-file';
import { camName, failureWords } from '../../messages/trace';
import type { CaptureSlot, TraceRead } from '../../workers/trace.protocol';
import { rolesOf, type SaidRoles } from './said-roles';

/** What the capture is held against: what the catalogue names for this drive, a capture of a good engine, or one of this engine before the repair. */
export type Against = 'catalogue' | 'good' | 'before';
/** A cam of both captures: how it stands, or why that cannot be said. `cam`: its place among the drive's. */
export type ComparedCam = { cam: number; name: string } & (
  | { error: CompareError; shift?: undefined }
  | {
      error?: undefined;
      shift: Shift;
      wheels: Wheels;
      said: TraceVerdict;
      /** What each design that is left makes of it, where they do not agree. */
      byDesign?: { design: string; wheels: Wheels; said: TraceVerdict }[];
    }
);
/** What is said of a capture instead of found. */
export type SaidOfCapture = SaidOfFile & { wheel?: string; roles?: SaidRoles };
export type SlotState = {
  read?: TraceRead;
  failure?: { code: string; words: string };
  file?: File;
  said: SaidOfCapture;
};
/** Cams of one side of a comparison. */
type Side = Pick<TraceRead, 'wheel' | 'teeth' | 'period' | 'crankKind'> & {
  /** By the place among the drive's cams. */
  cams: { at: number; pattern: CamPattern }[];
};

/** The wheel is to be found in the capture, whatever the drive says. */
export const FOUND = 'found';
const CAPTURE = /\.(csv|tsv|txt|asc|dat|zip)$/i;

/** A file that is to be read, with what is said of it instead of found. */
type Wish = { file: File; said: SaidOfCapture };
type ReadingEvent = ObservedValueOf<ReturnType<Traces['read']>>;

/** Two captures side by side: of the engine in question, and what it is held against. */
@Injectable()
export class TraceStore {
  private readonly traces = inject(Traces);
  private readonly desk = inject(CaseDesk);
  private readonly attachments = inject(Attachments);
  private readonly slots = {
    mine: signal<SlotState>({ said: {} }),
    reference: signal<SlotState>({ said: {} }),
  };
  /** How much of a slot's file is read, while it is; apart from the slots, so that nothing else is computed anew for it. */
  private readonly shares = {
    mine: signal<number | undefined>(undefined),
    reference: signal<number | undefined>(undefined),
  };
  /** What is to be read for each slot, or nothing any more: the last wish counts, the reading before is cancelled. */
  private readonly wanted = {
    mine: new Subject<Wish | undefined>(),
    reference: new Subject<Wish | undefined>(),
  };
  /** Teeth of the drive where no case says them. */
  readonly typed = signal({ zCrank: 20, zCam: 40 });
  private readonly chosen = signal<Against | undefined>(undefined);

  constructor() {
    for (const slot of ['mine', 'reference'] as const)
      this.wanted[slot]
        .pipe(
          switchMap((wish) => {
            if (!wish) return EMPTY;
            const { roles, ...rest } = wish.said;
            const { file } = wish;
            const { wheel: named, ...others } = rest;
            // The drive's own wheel, unless another is said or it is to be found by itself.
            const wheel = named === FOUND ? undefined : (named ?? this.wheel());
            const ask = {
              slot,
              blob: file,
              name: file.name,
              ...others,
              ...(wheel === undefined ? {} : { wheel }),
              ...(roles ? { roles: rolesOf(roles) } : {}),
            };
            return this.traces.read(ask).pipe(map((event) => [wish, event] as const));
          }),
          takeUntilDestroyed(),
        )
        .subscribe(([wish, event]) => this.hear(slot, wish, event));
  }

  readonly share = (slot: CaptureSlot): number | undefined => this.shares[slot]();
  private readonly rules = computed(() => this.desk.current()?.answers?.policy ?? SHIPPED_POLICY);
  readonly mine = this.slots.mine.asReadonly();
  readonly reference = this.slots.reference.asReadonly();
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
  readonly against = computed((): Against => {
    const chosen = this.chosen();
    if (chosen !== undefined && (chosen !== 'catalogue' || this.catalogue())) return chosen;
    return this.catalogue() ? 'catalogue' : 'good';
  });
  /** What the drive has; none while no case says. */
  readonly has = computed(() => this.desk.current()?.answers?.possible.has);
  /** Captures that lie with the case. */
  readonly kept = computed((): FileRef[] => {
    const state = this.desk.current()?.state;
    const files = state ? allStanding(state).flatMap((s) => s.facts.flatMap((f) => f.files ?? [])) : [];
    return [...new Map(files.filter((f) => CAPTURE.test(f.name)).map((f) => [f.hash, f])).values()];
  });

  /** Cam by cam: how it stands against the other side. */
  readonly compared = computed((): ComparedCam[] => {
    const mine = sideOf(this.mine());
    const other = this.against() === 'catalogue' ? this.catalogue() : sideOf(this.reference());
    return mine && other ? this.compare(mine, other) : [];
  });
  readonly together = computed((): Together | undefined => allTogether(this.compared()));
  /** Before and after a repair, each against the catalogue. */
  readonly beforeAfter = computed(() => {
    const [before, after, good] = [sideOf(this.reference()), sideOf(this.mine()), this.catalogue()];
    return this.against() === 'before' && before && after && good
      ? { before: this.compare(before, good), after: this.compare(after, good) }
      : undefined;
  });

  private compare(mine: Side, other: Side): ComparedCam[] {
    const { cams } = this.teeth();
    return mine.cams.flatMap(({ at, pattern }): ComparedCam[] => {
      const ref = other.cams.find((c) => c.at === at)?.pattern;
      if (!ref) return [];
      const [cam, name] = [at, cams[at]?.name ?? camName(at)];
      const c = compareCams({ ...mine, pattern }, { ...other, pattern: ref });
      if (!c.ok) return [{ cam, name, error: c.error }];
      const wheels = wheelsCounted(this.teeth(), mine.teeth.length, cams[at]?.id);
      if (!wheels) return [];
      const said = traceVerdict(c.value, wheels, this.rules().traceToleranceDeg);
      const byDesign = this.eachDesign(c.value, mine.teeth.length, at);
      return [{ cam, name, shift: c.value, wheels, said, ...(byDesign ? { byDesign } : {}) }];
    });
  }

  /** What each design makes of an offset, where the designs that are left differ and do not say the same of it. */
  private eachDesign(shift: Parameters<typeof traceVerdict>[0], slots: number | undefined, at: number) {
    const all = this.differing().flatMap(({ name, teeth }) => {
      const wheels = wheelsCounted(teeth, slots, teeth.cams[at]?.id);
      return wheels
        ? [{ design: name, wheels, said: traceVerdict(shift, wheels, this.rules().traceToleranceDeg) }]
        : [];
    });
    const alike = new Set(all.map(({ said }) => JSON.stringify([said.verdict, 'at' in said ? said.at : []])));
    return alike.size > 1 ? all : undefined;
  }

  /** What was told on the telephone, as it was typed. */
  readonly tellText = signal('');
  /** The offset that was told, judged like one of a capture; or what it lacks. */
  readonly told = computed(() => {
    const text = this.tellText().trim();
    if (text === '') return undefined;
    const told = toldOffset(text, this.wheel());
    if (!told.ok) return told;
    const wheel = readWheel(told.value.wheel ?? this.wheel() ?? '');
    const slots = wheel.ok ? wheel.value.teeth.length : undefined;
    const wheels = wheelsCounted(this.teeth(), slots, undefined);
    const { deg, u } = told.value;
    const shift = { deg, low: deg - 2 * u, high: deg + 2 * u, moving: false };
    const said = wheels && traceVerdict(shift, wheels, this.rules().traceToleranceDeg);
    return {
      ok: true as const,
      value: { told: told.value, wheels, said, byDesign: this.eachDesign(shift, slots, 0) },
    };
  });

  /** Place among the drive's cams of each cam of a slot's capture. */
  placesOf(slot: CaptureSlot): number[] {
    return placesOf(this.slots[slot]());
  }

  holdAgainst(against: Against): void {
    this.chosen.set(against);
  }

  /** Reads a file into a slot; what was said of the one before is forgotten. */
  open(slot: CaptureSlot, file: File): void {
    this.read(slot, file, {});
  }

  /** Reads a capture that lies with the case. */
  async openKept(slot: CaptureSlot, ref: FileRef): Promise<void> {
    const blob = await this.attachments.blobOf(ref);
    if (blob) return this.open(slot, new File([blob], ref.name, { type: ref.type }));
    this.slots[slot].set({ said: {}, failure: { code: 'not_here', words: notHereWords(ref.name) } });
  }

  /** Says something of a capture and reads it again. */
  say(slot: CaptureSlot, said: SaidOfCapture): void {
    const { file } = this.slots[slot]();
    if (file) this.read(slot, file, said);
  }

  cancel(slot: CaptureSlot): void {
    if (this.shares[slot]() === undefined) return;
    this.wanted[slot].next(undefined);
    this.shares[slot].set(undefined);
    this.slots[slot].set({ said: {} });
  }

  /** A stretch of a slot's recording, channel by channel. */
  async stretch(slot: CaptureSlot, from: number, to: number, columns: number): Promise<Float32Array[]> {
    const got = await this.traces.stretch({ slot, from, to, columns });
    return got.ok ? got.value : [];
  }

  private read(slot: CaptureSlot, file: File, said: SaidOfCapture): void {
    this.shares[slot].set(0);
    this.slots[slot].set({ file, said });
    this.wanted[slot].next({ file, said });
  }

  private hear(slot: CaptureSlot, { file, said }: Wish, event: ReadingEvent): void {
    if (event.is === 'progress') return this.shares[slot].set(event.progress);
    this.shares[slot].set(undefined);
    const { result } = event;
    if (result.ok && result.value.ok) return this.slots[slot].set({ file, said, read: result.value.value });
    const failure =
      !result.ok || result.value.ok
        ? { code: 'failed', words: `${file.name} could not be read: ${result.ok ? '' : result.error.detail}` }
        : {
            code: result.value.error.code,
            words: failureWords(
              file.name,
              result.value.error,
              said.wheel === undefined ? this.wheel() : undefined,
            ),
          };
    this.slots[slot].set({ file, said, failure });
  }
}

/** What all of several say; nothing where they differ or one says nothing. */
function agreed<T>(all: readonly (T | undefined)[]): T | undefined {
  return new Set(all.map((x) => JSON.stringify(x))).size === 1 ? all[0] : undefined;
}

/** Place among the drive's cams of each cam of a capture: as it was said, or in the order of the channels. */
function placesOf({ read, said }: Pick<SlotState, 'read' | 'said'>): number[] {
  const at = said.roles?.cams.map((c) => c.cam).sort((a, b) => a - b);
  return (read?.cams ?? []).map((_, i) => at?.[i] ?? i);
}

/** The cams of a capture by their place among the drive's. */
function sideOf({ read, said }: SlotState): Side | undefined {
  if (!read) return undefined;
  const at = placesOf({ read, said });
  const cams = read.cams.flatMap((c, i) => (c.pattern ? [{ at: num(at, i), pattern: c.pattern }] : []));
  return { ...read, cams };
}

function allTogether(cams: readonly ComparedCam[]): Together | undefined {
  const verdicts = cams.flatMap((c) => (c.shift ? [c.said] : []));
  return verdicts.length === cams.length ? togetherOf(verdicts) : undefined;
}
