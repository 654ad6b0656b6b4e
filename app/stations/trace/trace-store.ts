import { computed, inject, Injectable, signal } from '@angular/core';
import { driveWheels } from '@core/answer/trace-answer';
import { RULES } from '@core/house/rules';
import { compareCams, type CompareError, type Shift } from '@core/trace/compare';
import { traceVerdict, type TraceVerdict, type Wheels } from '@core/trace/verdict';
import { Traces } from '../../acts/traces';
import { CaseDesk } from '../../data/case-desk';
import { failureWords } from '../../words/trace';
import type { TraceRead } from '../../workers/trace.protocol';

export type Slot = 'mine' | 'reference';
/** A cam of both captures: how it stands, or why that cannot be said. */
export type ComparedCam = { cam: string } & (
  | { error: CompareError; shift?: undefined }
  | { error?: undefined; shift: Shift; wheels: Wheels; said: TraceVerdict }
);
export type SlotState = { read?: TraceRead; failure?: string; share?: number; file?: File };

/** Two captures side by side: of the engine in question, and of one that is known to be good or of another time. */
@Injectable()
export class TraceStore {
  private readonly traces = inject(Traces);
  private readonly desk = inject(CaseDesk);
  private readonly slots = {
    mine: signal<SlotState>({}),
    reference: signal<SlotState>({}),
  };
  private readonly stops: Partial<Record<Slot, AbortController>> = {};
  /** Wheel that is said, instead of found; sample interval that is said, seconds. */
  readonly wheel = signal<string | undefined>(undefined);
  readonly stepS = signal<number | undefined>(undefined);
  /** Teeth of the drive where no case says them. */
  readonly typed = signal({ zCrank: 20, zCam: 40 });

  readonly mine = this.slots.mine.asReadonly();
  readonly reference = this.slots.reference.asReadonly();
  readonly drive = computed(() => this.desk.current()?.answers?.drive);
  readonly known = computed(() => driveWheels(this.drive()?.stages.map((s) => s.layout) ?? []));
  readonly tooth = computed(() =>
    this.drive()?.stages.some(
      (s) => s.layout.kind === 'chain' && s.layout.wheels.some((w) => w.role === 'cam'),
    )
      ? ('link' as const)
      : ('tooth' as const),
  );
  /** What the drive has; none while no case says. */
  readonly has = computed(() => this.desk.current()?.answers?.possible.has);
  private readonly tolerance = computed(
    () => (this.desk.current()?.answers?.rules ?? RULES).traceToleranceDeg,
  );

  /** Cam by cam: how it stands against the other capture. */
  readonly compared = computed((): ComparedCam[] => {
    const [a, b] = [this.mine().read, this.reference().read];
    if (!a || !b) return [];
    return a.cams.flatMap((cam, i): ComparedCam[] => {
      const other = b.cams[i]?.pattern;
      if (!cam.pattern || !other) return [];
      const c = compareCams({ ...a, pattern: cam.pattern }, { ...b, pattern: other });
      if (!c.ok) return [{ cam: cam.name, error: c.error }];
      const wheels = { ...(this.known() ?? this.typed()), sensorSlots: a.slots };
      return [
        { cam: cam.name, shift: c.value, wheels, said: traceVerdict(c.value, wheels, this.tolerance()) },
      ];
    });
  });

  async open(slot: Slot, file: File): Promise<void> {
    this.stops[slot]?.abort();
    const stop = (this.stops[slot] = new AbortController());
    const state = this.slots[slot];
    state.set({ share: 0, file });
    const [wheel, stepS] = [this.wheel(), this.stepS()];
    const read = await this.traces.read(
      {
        blob: file,
        name: file.name,
        ...(wheel === undefined ? {} : { wheel }),
        ...(stepS === undefined ? {} : { stepS }),
      },
      (share) => {
        if (this.stops[slot] === stop) state.update((s) => (s.share === undefined ? s : { ...s, share }));
      },
      stop.signal,
    );
    if (this.stops[slot] !== stop) return;
    if (!read.ok)
      state.set(
        read.error.code === 'cancelled'
          ? {}
          : { file, failure: `${file.name} could not be read: ${read.error.detail}` },
      );
    else if (read.value.ok) state.set({ file, read: read.value.value });
    else state.set({ file, failure: failureWords(file.name, read.value.error) });
  }

  cancel(slot: Slot): void {
    this.stops[slot]?.abort();
  }

  /** Reads both again, since the wheel or the interval was said. */
  again(): void {
    for (const slot of ['mine', 'reference'] as const) {
      const { file } = this.slots[slot]();
      if (file) void this.open(slot, file);
    }
  }
}
