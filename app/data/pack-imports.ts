import { inject, Injectable, signal } from '@angular/core';
import { WorkerClient } from '../threads/worker-client';
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

  async read(files: File[]): Promise<void> {
    this.cancel();
    this.progress.set({ step: 'opening', done: 0, total: 1 });
    const read = await this.client.ask('read', files, { progress: (p) => this.progress.set(p) });
    if (read.ok) {
      this.progress.set(undefined);
      this.preview.set(read.value);
    } else if (read.error.code === 'failed') this.fail(read.error.detail);
  }

  /** Takes the pack that was shown in; its id. */
  async take(): Promise<string | undefined> {
    const taken = await this.client.ask('take', undefined);
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
