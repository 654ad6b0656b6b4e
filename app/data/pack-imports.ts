import { inject, Injectable, signal } from '@angular/core';
import { proxy, type Remote, wrap } from 'comlink';
import type { ImportPreview, ImportProgress, PackImport } from '../workers/pack-import.protocol';
import { FactRepository } from './fact-repository';

/** Brings a catalogue in: read in a thread of its own, shown, then taken as a whole or left. */
@Injectable({ providedIn: 'root' })
export class PackImports {
  private readonly repository = inject(FactRepository);
  private worker: Worker | undefined;
  private remote: Remote<PackImport> | undefined;
  readonly progress = signal<ImportProgress | undefined>(undefined);
  readonly preview = signal<ImportPreview | undefined>(undefined);
  readonly failure = signal<string | undefined>(undefined);

  async read(files: File[]): Promise<void> {
    this.cancel();
    this.progress.set({ step: 'opening', done: 0, total: 1 });
    const worker = new Worker(new URL('../workers/pack-import.worker', import.meta.url), { type: 'module' });
    this.worker = worker;
    worker.onerror = (e) => this.fail(worker, e.message);
    this.remote = wrap<PackImport>(worker);
    try {
      const preview = await this.remote.read(
        files,
        proxy((p: ImportProgress) => {
          if (this.worker === worker) this.progress.set(p);
        }),
      );
      if (this.worker === worker) this.preview.set(preview);
    } catch (e) {
      this.fail(worker, e instanceof Error ? e.message : String(e));
    } finally {
      if (this.worker === worker) this.progress.set(undefined);
    }
  }

  /** Takes the pack that was shown in. */
  async take(): Promise<string | undefined> {
    const worker = this.worker;
    if (!this.remote || !worker) return undefined;
    try {
      const id = await this.remote.take();
      await this.repository.packWritten(id);
      this.cancel();
      return id;
    } catch (e) {
      this.fail(worker, e instanceof Error ? e.message : String(e));
      return undefined;
    }
  }

  /** Ends the thread. Nothing has been written until a pack is taken. */
  cancel(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.remote = undefined;
    this.progress.set(undefined);
    this.preview.set(undefined);
    this.failure.set(undefined);
  }

  private fail(worker: Worker, message: string): void {
    if (this.worker !== worker) return;
    this.cancel();
    this.failure.set(`The catalogue could not be read: ${message}. Nothing was changed.`);
  }
}
