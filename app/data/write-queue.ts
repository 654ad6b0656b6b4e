import { signal } from '@angular/core';
import { type Result, err, ok } from '@core/quantity/result';
import { type StoreTrouble, troubleOf } from './store-trouble';

/** One write after the other. A connection that was cut off is opened again once; what then fails is told. */
export class WriteQueue {
  private last: Promise<unknown> = Promise.resolve();
  private closed = false;
  /** Why the last thing was not written; gone when something is written again, or when it was read. */
  readonly trouble = signal<StoreTrouble | undefined>(undefined);

  /** @param reconnect forgets a connection that turned out to be dead */
  constructor(private readonly reconnect: () => void) {}

  /** @param quiet it neither tells trouble nor takes back what was told */
  put<T>(job: () => Promise<T>, quiet = false): Promise<Result<T, StoreTrouble>> {
    const run = async (): Promise<Result<T, StoreTrouble>> => {
      if (this.closed) return err({ code: 'closed', detail: 'this window is done' });
      try {
        return ok(await job());
      } catch (first) {
        if (troubleOf(first).code !== 'closed') return err(troubleOf(first));
        this.reconnect();
        try {
          return ok(await job());
        } catch (second) {
          return err(troubleOf(second));
        }
      }
    };
    const next = this.last.then(run, run).then((result) => {
      if (!quiet) this.trouble.set(result.ok ? undefined : result.error);
      return result;
    });
    this.last = next;
    return next;
  }

  /** Resolves when everything that was to be written by now is on the disk, or was refused. */
  async written(): Promise<void> {
    await this.last;
  }

  /** Writes nothing more: its window is done. */
  close(): void {
    this.closed = true;
  }
}
