import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { SwUpdate } from '@angular/service-worker';
import { filter, fromEvent, merge, switchMap, timer } from 'rxjs';
import { Drafts } from '../data/drafts';
import { FactRepository } from '../data/fact-repository';
import { RecordWork } from '../data/record-work';

/** The browser's offer to install a page as a program. */
type InstallAsk = Event & { prompt(): Promise<unknown> };

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

  /** Whether all of the program lies here; undefined where the browser keeps none. */
  readonly whole = signal<boolean | undefined>(undefined);
  private readonly asked = signal<InstallAsk | undefined>(undefined);
  /** The browser would install it as a program of its own. */
  readonly installable = computed(() => this.asked() !== undefined);

  constructor() {
    merge(fromEvent(window, 'beforeinstallprompt'), fromEvent(window, 'appinstalled'))
      .pipe(takeUntilDestroyed())
      .subscribe((e) => {
        e.preventDefault();
        this.asked.set(e.type === 'beforeinstallprompt' ? (e as InstallAsk) : undefined);
      });
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

  async install(): Promise<void> {
    await this.asked()?.prompt();
    this.asked.set(undefined);
  }

  /** Looks whether all of the program lies here. */
  async look(): Promise<void> {
    if (!this.updates.isEnabled) return;
    try {
      const list = (await (await fetch('ngsw.json')).json()) as { hashTable?: Record<string, string> };
      const there = new Set<string>();
      for (const name of await caches.keys())
        for (const r of await (await caches.open(name)).keys()) there.add(new URL(r.url).pathname);
      this.whole.set(Object.keys(list.hashTable ?? {}).every((path) => there.has(path)));
    } catch {
      // without the server there is no list to look at: what runs now came from here
      this.whole.set(navigator.serviceWorker.controller !== null);
    }
  }

  private isIdle(): boolean {
    return Object.keys(this.drafts.all()).length === 0 && this.work.going().size === 0;
  }
}
