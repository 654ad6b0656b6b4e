import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import { kindsOfDrive } from '@core/practice/drives';
import { resultOf, WorkerClient } from '../threads/worker-client';
import type { PracticeJobs, ScorePair } from '../workers/practice.protocol';
import { DeskPolicy } from './desk-policy';
import { OwnNumbers } from './own-numbers';
import { Packs } from './packs';

/** Virtual returns that a desk is scored on. */
export const SCORED_RETURNS = 2000;

/** How well what is known finds causes of returns that nobody sent, judged in a thread: by what ships, and by the house's own numbers. */
@Injectable({ providedIn: 'root' })
export class DeskScore {
  private readonly packs = inject(Packs);
  private readonly ownNumbers = inject(OwnNumbers);
  private readonly policy = inject(DeskPolicy);
  private readonly stop$ = new Subject<void>();
  private client = this.thread();
  /** Share that is done, while it goes on. */
  readonly done = signal<number | undefined>(undefined);
  readonly failed = signal('');
  readonly shipped = signal<ScorePair | undefined>(undefined);
  readonly own = signal<ScorePair | undefined>(undefined);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.client.dispose());
  }

  /** Judges all of them; twice where the house sees something otherwise. */
  async judge(): Promise<void> {
    const catalogue = this.packs.newest();
    if (!catalogue || this.done() !== undefined) return;
    this.forget();
    this.done.set(0);
    const asked = this.client;
    const common = {
      pack: this.packs.newestId() ?? '',
      kinds: kindsOfDrive(catalogue),
      returns: SCORED_RETURNS,
      policy: this.policy.rules(),
    };
    const changes = this.ownNumbers.changes();
    const runs = [
      { into: this.shipped, changes: [] },
      ...(changes.length > 0 ? [{ into: this.own, changes }] : []),
    ];
    for (const [i, { into, changes }] of runs.entries()) {
      const answer = await resultOf(asked.job('score', { ...common, changes }), {
        tell: (share) => this.done.set((i + share) / runs.length),
        stop$: this.stop$,
      });
      if (asked !== this.client) return;
      if (answer.ok) into.set(answer.value);
      else {
        if (answer.error.code !== 'cancelled') this.failed.set(answer.error.detail);
        break;
      }
    }
    this.done.set(undefined);
  }

  /** Ends the thread in the middle: it hears nothing while it computes. */
  halt(): void {
    this.stop$.next();
    this.client.dispose();
    this.client = this.thread();
    this.done.set(undefined);
  }

  /** What was found is of earlier numbers. */
  forget(): void {
    this.shipped.set(undefined);
    this.own.set(undefined);
    this.failed.set('');
  }

  private thread(): WorkerClient<PracticeJobs> {
    return new WorkerClient<PracticeJobs>(
      () => new Worker(new URL('../workers/practice.worker', import.meta.url), { type: 'module' }),
    );
  }
}
