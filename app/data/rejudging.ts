import { inject, Injectable, signal } from '@angular/core';
import type { Change } from '@core/cause/changes';
import type { DeskJobs } from '../workers/desk.protocol';
import { WorkerClient } from '../threads/worker-client';
import { DeskPolicy } from './desk-policy';
import type { RejudgeAnswer } from '../workers/rejudge-all';

/** Judges every case again in a thread: what would be said otherwise with other numbers. */
@Injectable({ providedIn: 'root' })
export class Rejudging {
  private readonly ruled = inject(DeskPolicy);
  private stop: AbortController | undefined;
  /** Cases done, while it goes on. */
  readonly done = signal<number | undefined>(undefined);
  readonly answer = signal<RejudgeAnswer | undefined>(undefined);
  readonly failed = signal('');

  async judge(before: readonly Change[], after: readonly Change[]): Promise<void> {
    this.cancel();
    const stop = new AbortController();
    this.stop = stop;
    this.answer.set(undefined);
    this.failed.set('');
    this.done.set(0);
    const client = new WorkerClient<DeskJobs>(
      () => new Worker(new URL('../workers/desk.worker', import.meta.url), { type: 'module' }),
    );
    const chosen = { ...this.ruled.rules().chosen };
    const got = await client.ask(
      'rejudge',
      { before: [...before], after: [...after], chosen },
      { signal: stop.signal, progress: (n) => this.stop === stop && this.done.set(n) },
    );
    client.dispose();
    if (this.stop !== stop) return;
    this.done.set(undefined);
    if (got.ok) this.answer.set(got.value);
    else if (got.error.code !== 'cancelled') this.failed.set(got.error.detail);
  }

  cancel(): void {
    this.stop?.abort();
    this.stop = undefined;
    this.done.set(undefined);
  }

  /** Other numbers came: what was found is of earlier ones. */
  forget(): void {
    this.cancel();
    this.answer.set(undefined);
  }
}
