import { num } from '@core/quantity/must';
import { computed, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { EMPTY, map, type ObservedValueOf, Subject, switchMap } from 'rxjs';
import type { FileRef } from '@core/facts/fact';
import { allStanding } from '@core/facts/read';
import { wheelsCounted } from '@core/answer/trace-answer';
import { highest, lowest } from '@core/quantity/judge';
import { compareCams, type CompareError, type Shift } from '@core/trace/compare';
import type { SaidOfFile } from '@core/trace/read-capture';
import { toldOffset } from '@core/trace/told-offset';
import { type Together, togetherOf, traceVerdict, type TraceVerdict, type Wheels } from '@core/trace/verdict';
import { readWheel } from '@core/trace/wheel';
import { Attachments } from '../../commands/attachments';
import { Traces } from '../../commands/traces';
import { CaseDesk } from '../../data/case-desk';
import { notHereWords } from '../../messages/case-file';
import { failureWords } from '../../messages/capture';
import { camName } from '../../messages/trace';
import type { CaptureSlot, TraceRead } from '../../workers/trace.protocol';
import { rolesOf, type SaidRoles } from './said-roles';
import { type Side, TraceDrive } from './trace-drive';

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
  private readonly drive = inject(TraceDrive);
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
  readonly mine = this.slots.mine.asReadonly();
  readonly reference = this.slots.reference.asReadonly();
  readonly known = this.drive.known;
  readonly differing = this.drive.differing;
  readonly wheel = this.drive.wheel;
  readonly teeth = this.drive.teeth;
  readonly typed = this.drive.typed;
  readonly catalogue = this.drive.catalogue;
  readonly has = this.drive.has;
  readonly against = computed((): Against => {
    const chosen = this.chosen();
    if (chosen !== undefined && (chosen !== 'catalogue' || this.catalogue())) return chosen;
    return this.catalogue() ? 'catalogue' : 'good';
  });
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
      const said = traceVerdict(c.value, wheels, this.drive.rules().traceToleranceDeg);
      const byDesign = this.drive.eachDesign(c.value, mine.teeth.length, at);
      return [{ cam, name, shift: c.value, wheels, said, ...(byDesign ? { byDesign } : {}) }];
    });
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
    const measured = { value: deg, u };
    const shift = { deg, low: lowest(measured), high: highest(measured), moving: false };
    const said = wheels && traceVerdict(shift, wheels, this.drive.rules().traceToleranceDeg);
    return {
      ok: true as const,
      value: { told: told.value, wheels, said, byDesign: this.drive.eachDesign(shift, slots, 0) },
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
