import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { SwUpdate } from '@angular/service-worker';
import { filter, fromEvent, merge, switchMap, timer } from 'rxjs';
import { Drafts } from '../data/drafts';
import { FactRepository } from '../data/fact-repository';
import { RecordWork } from '../data/record-work';

/** How often the server is asked for a newer program, and how long nobody has looked before one is taken by itself, ms. */
const ASKED_MS = 30 * 60_000;
const UNWATCHED_MS = 5 * 60_000;

/**
 * A newer program: told when it lies here whole, taken when asked for, or by itself once nobody looks and nothing is half-done.
 * The window in hand goes on with the one that it began with.
 */
@Injectable({ providedIn: 'root' })
export class ProgramUpdate {
  private readonly updates = inject(SwUpdate);
  private readonly drafts = inject(Drafts);
  private readonly work = inject(RecordWork);
  private readonly repository = inject(FactRepository);
  /** A newer one lies here whole. */
  readonly waiting = signal(false);
  /** What lies here of the program is damaged: it has to be fetched again. */
  readonly broken = signal(false);

  constructor() {
    if (!this.updates.isEnabled) return;
    const end = takeUntilDestroyed(inject(DestroyRef));
    this.updates.versionUpdates
      .pipe(
        filter((e) => e.type === 'VERSION_READY'),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.waiting.set(true));
    this.updates.unrecoverable.pipe(takeUntilDestroyed()).subscribe(() => this.broken.set(true));
    merge(timer(ASKED_MS, ASKED_MS), fromEvent(window, 'online'))
      .pipe(
        switchMap(() => this.updates.checkForUpdate().catch(() => false)),
        end,
      )
      .subscribe();
    fromEvent(document, 'visibilitychange')
      .pipe(
        switchMap(() => (document.hidden ? timer(UNWATCHED_MS) : [])),
        filter(() => document.hidden && this.waiting() && this.isIdle()),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.take());
  }

  /** Goes on with the newer one, when everything filed by now is on the disk; half-typed text comes back by itself. */
  async take(): Promise<void> {
    await this.repository.written();
    await this.drafts.write();
    document.location.reload();
  }

  private isIdle(): boolean {
    return Object.keys(this.drafts.all()).length === 0 && this.work.going().size === 0;
  }
}
