import { inject, Injectable, DestroyRef } from '@angular/core';
import { resultOf, WorkerClient } from '../threads/worker-client';
import type { PhotoJobs } from '../workers/photo.protocol';

/** The thread that decodes pictures and lays them flat. */
@Injectable({ providedIn: 'root' })
export class Pictures {
  private readonly client = new WorkerClient<PhotoJobs>(
    () => new Worker(new URL('../workers/photo.worker', import.meta.url), { type: 'module' }),
  );
  readonly look = (blob: Blob) => resultOf(this.client.job('look', blob));
  readonly flatten = (ask: PhotoJobs['flatten']['input']) => resultOf(this.client.job('flatten', ask));

  constructor() {
    inject(DestroyRef).onDestroy(() => this.client.dispose());
  }
}
