import { DestroyRef, inject, Injectable } from '@angular/core';
import { resultOf, WorkerClient } from '../threads/worker-client';
import type { StretchAsk, TraceAsk, TraceJobs } from '../workers/trace.protocol';

/** The thread that reads captures. */
@Injectable({ providedIn: 'root' })
export class Traces {
  private readonly client = new WorkerClient<TraceJobs>(
    () => new Worker(new URL('../workers/trace.worker', import.meta.url), { type: 'module' }),
  );

  constructor() {
    inject(DestroyRef).onDestroy(() => this.client.dispose());
  }

  /** Reads a capture, telling how much of it is read. */
  readonly read = (ask: TraceAsk) => this.client.job('read', ask);

  /** A stretch of what was last read for a slot, channel by channel. */
  readonly stretch = (ask: StretchAsk) => resultOf(this.client.job('stretch', ask));
}
