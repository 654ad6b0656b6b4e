import { inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { EMPTY, Subject, switchMap } from 'rxjs';
import { resultOf, WorkerClient } from '../threads/worker-client';
import type { ImportPreview, ImportProgress, PackJobs } from '../workers/pack-import.protocol';
import { FactRepository } from './fact-repository';

/** Brings a catalogue in: read in a thread of its own, shown, then taken as a whole or left. */
@Injectable({ providedIn: 'root' })
export class PackImports {
  private readonly repository = inject(FactRepository);
  private readonly client = new WorkerClient<PackJobs>(
    () => new Worker(new URL('../workers/pack-import.worker', import.meta.url), { type: 'module' }),
  );
  readonly progress = signal<ImportProgress | undefined>(undefined);
  readonly preview = signal<ImportPreview | undefined>(undefined);
  readonly failure = signal<string | undefined>(undefined);

  /** Files to be read; undefined for none any more. The last ones count. */
  private readonly chosen = new Subject<File[] | undefined>();

  constructor() {
    const read$ = this.chosen.pipe(switchMap((files) => (files ? this.client.job('read', files) : EMPTY)));
    read$.pipe(takeUntilDestroyed()).subscribe((e) => {
      if (e.is === 'progress') return this.progress.set(e.progress);
      if (e.result.ok) {
        this.progress.set(undefined);
        this.preview.set(e.result.value);
      } else if (e.result.error.code === 'failed') this.fail(e.result.error.detail);
    });
  }

  read(files: File[]): void {
    this.cancel();
    this.progress.set({ step: 'opening', done: 0, total: 1 });
    this.chosen.next(files);
  }

  /** Takes the pack that was shown in; its id. */
  async take(): Promise<string | undefined> {
    const taken = await resultOf(this.client.job('take', undefined));
    if (!taken.ok) {
      this.fail(taken.error.detail);
      return undefined;
    }
    this.repository.tell({ grown: [], summaries: [], packs: [taken.value], extracts: [] });
    this.cancel();
    return taken.value;
  }

  /** Ends the thread. Nothing has been written until a pack is taken. */
  cancel(): void {
    this.chosen.next(undefined);
    this.client.dispose();
    this.progress.set(undefined);
    this.preview.set(undefined);
    this.failure.set(undefined);
  }

  private fail(message: string): void {
    this.cancel();
    this.failure.set(`The catalogue could not be read: ${message}. Nothing was changed.`);
  }
}
