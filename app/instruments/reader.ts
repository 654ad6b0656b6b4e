import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { Subscription } from 'rxjs';
import type { LeakPoint } from '@core/examination/leak-down';
import { meanOf } from '@core/facts/repeats';
import type { Dimension } from '@core/quantity/units';
import type { Instrument, InstrumentEvent } from './instrument';

/** A value taken is the mean of so many readings, or of as many as came. */
const AVERAGED = 10;
/** So many readings are kept of a stream; older ones go. */
const MOST = 60_000;
/** Milliseconds between two changes of what is shown: quicker than anybody reads. */
const SHOWN_MS = 100;

/** Listens to one instrument at a time and keeps what it said, also when it goes away. */
@Injectable()
export class Reader {
  private stream: Subscription | undefined;
  private points: LeakPoint[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly count = signal(0);
  readonly listening = signal(false);
  readonly gone = signal<Extract<InstrumentEvent, { kind: 'gone' }>['why'] | undefined>(undefined);
  readonly garbage = signal(0);
  /** Readings of another dimension than the one wanted. */
  readonly foreign = signal(0);
  readonly resolution = signal<number | undefined>(undefined);

  /** What came so far, seconds and base unit; a new list now and then, not with each reading. */
  readonly series = computed<readonly LeakPoint[]>(() => {
    this.count();
    return [...this.points];
  });
  /** What went wrong with it so far, for words. */
  readonly heard = computed(() => ({
    gone: this.gone(),
    kept: this.series().length,
    garbage: this.garbage(),
    foreign: this.foreign(),
  }));
  readonly last = computed(() => this.series().at(-1));
  /** What is taken when a value is taken now: mean of the latest readings, with the display's step (JCGM 100, F.2.2.1: step/√12). */
  readonly value = computed(() => {
    const latest = this.series().slice(-AVERAGED);
    if (latest.length === 0) return undefined;
    const m = meanOf(
      latest.map((p) => p.x),
      (this.resolution() ?? 0) / Math.sqrt(12),
    );
    return { value: m.value, u: m.u > 0 ? m.u : undefined, n: m.n };
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  start(instrument: Instrument, wanted: Dimension): void {
    this.stop();
    this.points = [];
    for (const s of [this.garbage, this.foreign]) s.set(0);
    this.gone.set(undefined);
    this.resolution.set(undefined);
    this.listening.set(true);
    this.count.update((n) => n + 1);
    this.stream = instrument.open(wanted).subscribe({
      next: (e) => this.hear(e, wanted),
      complete: () => this.listening.set(false),
    });
  }

  /** Ends listening; what came stays. */
  stop(): void {
    this.stream?.unsubscribe();
    this.stream = undefined;
    this.listening.set(false);
    this.show();
  }

  forget(): void {
    this.points = [];
    this.gone.set(undefined);
    this.show();
  }

  private hear(e: InstrumentEvent, wanted: Dimension): void {
    switch (e.kind) {
      case 'reading':
        if (e.dimension !== wanted) return this.foreign.update((n) => n + 1);
        this.points.push({ t: e.t, x: e.value });
        if (this.points.length > MOST) this.points.splice(0, this.points.length - MOST);
        this.timer ??= setTimeout(() => this.show(), SHOWN_MS);
        return;
      case 'resolution':
        if (e.dimension === wanted) this.resolution.set(e.value);
        return;
      case 'garbage':
        return this.garbage.update((n) => n + 1);
      case 'gone':
        this.gone.set(e.why);
        this.listening.set(false);
        this.show();
    }
  }

  private show(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.count.update((n) => n + 1);
  }
}
