import { inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { finalize, Observable, of, Subject, switchMap } from 'rxjs';
import type { TaughtWord } from '@core/intake/taught-words';
import { type Job, WorkerClient } from '../threads/worker-client';
import type { DeskJobs } from '../workers/desk.protocol';
import type { WordsAnswer } from '../workers/words-all';
import { Clock } from './clock';
import { DeskPolicy } from './desk-policy';
import { DeskSettingsStore } from './desk-settings';

type Trial = Job<DeskJobs, 'words'>;

/** Tries words of the house against all kept messages, in a thread: which would read otherwise, and what nothing takes. */
@Injectable({ providedIn: 'root' })
export class WordTrial {
  private readonly settings = inject(DeskSettingsStore);
  private readonly policy = inject(DeskPolicy);
  private readonly clock = inject(Clock);
  /** The last one counts, those before are cancelled. */
  private readonly wanted = new Subject<Trial | undefined>();
  /** Messages done, while it goes on. */
  readonly done = signal<number | undefined>(undefined);
  readonly answer = signal<WordsAnswer | undefined>(undefined);
  readonly failed = signal('');

  constructor() {
    const events$ = this.wanted.pipe(switchMap((job): Trial | Observable<undefined> => job ?? of(undefined)));
    events$.pipe(takeUntilDestroyed()).subscribe((e) => {
      if (e?.is === 'progress') return this.done.set(e.progress);
      this.done.set(undefined);
      if (e?.result.ok) this.answer.set(e.result.value);
      else if (e && !e.result.ok) this.failed.set(e.result.error.detail);
    });
  }

  /** Reads all messages with the words of today and with these. */
  try(after: readonly TaughtWord[]): void {
    const client = new WorkerClient<DeskJobs>(
      () => new Worker(new URL('../workers/desk.worker', import.meta.url), { type: 'module' }),
    );
    const { notation, settings } = this.settings;
    const job = client.job('words', {
      before: [...settings().taught],
      after: [...after],
      notation: notation(),
      today: this.clock.today(),
      chosen: { ...this.policy.rules().chosen },
    });
    this.answer.set(undefined);
    this.failed.set('');
    this.done.set(0);
    this.wanted.next(job.pipe(finalize(() => client.dispose())));
  }

  cancel(): void {
    this.wanted.next(undefined);
  }

  /** Other words came: what was found is of earlier ones. */
  forget(): void {
    this.cancel();
    this.answer.set(undefined);
  }
}
