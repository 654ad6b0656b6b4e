import { DestroyRef, inject, Injectable } from '@angular/core';
import { WorkerClient } from '../threads/worker-client';
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

  read(ask: TraceAsk, progress: (share: number) => void, signal: AbortSignal) {
    return this.client.ask('read', ask, { progress, signal });
  }

  /** A stretch of what was last read for a slot, channel by channel. */
  stretch(ask: StretchAsk, signal: AbortSignal) {
    return this.client.ask('stretch', ask, { signal });
  }
}
