import { inject, Injectable, DestroyRef } from '@angular/core';
import { Door } from '../threads/door';
import type { PhotoJobs } from '../workers/photo.protocol';

/** The thread that decodes pictures and lays them flat. */
@Injectable({ providedIn: 'root' })
export class Pictures {
  private readonly door = new Door<PhotoJobs>(
    () => new Worker(new URL('../workers/photo.worker', import.meta.url), { type: 'module' }),
  );
  readonly look = (blob: Blob) => this.door.ask('look', blob);
  readonly flatten = (ask: PhotoJobs['flatten']['input'], signal?: AbortSignal) =>
    this.door.ask('flatten', ask, signal ? { signal } : {});

  constructor() {
    inject(DestroyRef).onDestroy(() => this.door.dispose());
  }
}
