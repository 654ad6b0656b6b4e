import { signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { finalize, Observable, of, Subject, switchMap } from 'rxjs';
import { type Job, WorkerClient } from '../threads/worker-client';
import type { DeskJobs } from '../workers/desk.protocol';

/** The thread that works on all cases at once: whoever asks it puts it away again. */
export const deskThread = (): WorkerClient<DeskJobs> =>
  new WorkerClient<DeskJobs>(
    () => new Worker(new URL('../workers/desk.worker', import.meta.url), { type: 'module' }),
  );

/** Jobs over all cases whose progress is how many are done. */
type Counted = { [K in keyof DeskJobs]: DeskJobs[K]['progress'] extends number ? K : never }[keyof DeskJobs];

/**
 * A job over all cases in a thread of its own: how far it is, what came of it, or why nothing. The last one that was asked for
 * counts, those before are cancelled. Made in an injection context.
 */
export class DeskJob<K extends Counted> {
  private readonly wanted = new Subject<Job<DeskJobs, K> | undefined>();
  /** How many are done, while it goes on. */
  readonly done = signal<number | undefined>(undefined);
  readonly answer = signal<DeskJobs[K]['output'] | undefined>(undefined);
  readonly failed = signal('');

  constructor(private readonly name: K) {
    const events$ = this.wanted.pipe(
      switchMap((job): Job<DeskJobs, K> | Observable<undefined> => job ?? of(undefined)),
    );
    events$.pipe(takeUntilDestroyed()).subscribe((e) => {
      if (e?.is === 'progress') return this.done.set(e.progress);
      this.done.set(undefined);
      if (e?.result.ok) this.answer.set(e.result.value);
      else if (e && !e.result.ok) this.failed.set(e.result.error.detail);
    });
  }

  start(input: DeskJobs[K]['input']): void {
    const client = deskThread();
    const job = client.job(this.name, input);
    this.answer.set(undefined);
    this.failed.set('');
    this.done.set(0);
    this.wanted.next(job.pipe(finalize(() => client.dispose())));
  }

  cancel(): void {
    this.wanted.next(undefined);
  }

  /** What was asked for holds no more: what was found is of earlier. */
  forget(): void {
    this.cancel();
    this.answer.set(undefined);
  }
}
