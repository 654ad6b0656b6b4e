import { DestroyRef, inject, Injectable } from '@angular/core';
import { Door } from '../threads/door';
import type { StretchAsk, TraceAsk, TraceJobs } from '../workers/trace.protocol';

/** The thread that reads captures. */
@Injectable({ providedIn: 'root' })
export class Traces {
  private readonly door = new Door<TraceJobs>(
    () => new Worker(new URL('../workers/trace.worker', import.meta.url), { type: 'module' }),
  );

  constructor() {
    inject(DestroyRef).onDestroy(() => this.door.dispose());
  }

  read(ask: TraceAsk, progress: (share: number) => void, signal: AbortSignal) {
    return this.door.ask('read', ask, { progress, signal });
  }

  /** A stretch of what was last read for a slot, channel by channel. */
  stretch(ask: StretchAsk, signal: AbortSignal) {
    return this.door.ask('stretch', ask, { signal });
  }
}
