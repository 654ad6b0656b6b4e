import { inject, Injectable, DestroyRef } from '@angular/core';
import { WorkerClient } from '../threads/worker-client';
import type { PhotoJobs } from '../workers/photo.protocol';

/** The thread that decodes pictures and lays them flat. */
@Injectable({ providedIn: 'root' })
export class Pictures {
  private readonly client = new WorkerClient<PhotoJobs>(
    () => new Worker(new URL('../workers/photo.worker', import.meta.url), { type: 'module' }),
  );
  readonly look = (blob: Blob) => this.client.ask('look', blob);
  readonly flatten = (ask: PhotoJobs['flatten']['input'], signal?: AbortSignal) =>
    this.client.ask('flatten', ask, signal ? { signal } : {});

  constructor() {
    inject(DestroyRef).onDestroy(() => this.client.dispose());
  }
}
