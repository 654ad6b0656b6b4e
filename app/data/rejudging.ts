import { inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { finalize, Observable, of, Subject, switchMap } from 'rxjs';
import type { Change } from '@core/cause/changes';
import type { DeskJobs } from '../workers/desk.protocol';
import { type Job, WorkerClient } from '../threads/worker-client';
import { DeskPolicy } from './desk-policy';
import type { RejudgeAnswer } from '../workers/rejudge-all';

type Rejudge = Job<DeskJobs, 'rejudge'>;

/** Judges every case again in a thread: what would be said otherwise with other numbers. */
@Injectable({ providedIn: 'root' })
export class Rejudging {
  private readonly ruled = inject(DeskPolicy);
  /** What is to be judged; undefined for nothing any more. The last one counts, those before are cancelled. */
  private readonly wanted = new Subject<Rejudge | undefined>();
  /** Cases done, while it goes on. */
  readonly done = signal<number | undefined>(undefined);
  readonly answer = signal<RejudgeAnswer | undefined>(undefined);
  readonly failed = signal('');

  constructor() {
    const events$ = this.wanted.pipe(
      switchMap((job): Rejudge | Observable<undefined> => job ?? of(undefined)),
    );
    events$.pipe(takeUntilDestroyed()).subscribe((e) => {
      if (e?.is === 'progress') return this.done.set(e.progress);
      this.done.set(undefined);
      if (e?.result.ok) this.answer.set(e.result.value);
      else if (e && !e.result.ok) this.failed.set(e.result.error.detail);
    });
  }

  judge(before: readonly Change[], after: readonly Change[]): void {
    const client = new WorkerClient<DeskJobs>(
      () => new Worker(new URL('../workers/desk.worker', import.meta.url), { type: 'module' }),
    );
    const chosen = { ...this.ruled.rules().chosen };
    const job = client.job('rejudge', { before: [...before], after: [...after], chosen });
    this.answer.set(undefined);
    this.failed.set('');
    this.done.set(0);
    this.wanted.next(job.pipe(finalize(() => client.dispose())));
  }

  cancel(): void {
    this.wanted.next(undefined);
  }

  /** Other numbers came: what was found is of earlier ones. */
  forget(): void {
    this.cancel();
    this.answer.set(undefined);
  }
}
