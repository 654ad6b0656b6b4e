import { Injectable, signal } from '@angular/core';

/** Work on many cases: what is done, how far it is, of how many where that is known. */
export type Work = { what: string; done?: number; of?: number };

/** Work on the records that somebody may wait for, and the way to stop it. What does it is fetched only then. */
@Injectable({ providedIn: 'root' })
export class HeadProgress {
  private stopping: () => void = () => undefined;
  private readonly now = signal<Work | undefined>(undefined);
  readonly work = this.now.asReadonly();

  start(stop: () => void, what: string): void {
    this.stopping = stop;
    this.now.set({ what });
  }

  done(done: number, of?: number): void {
    this.now.update((w) => w && { ...w, done, ...(of === undefined ? {} : { of }) });
  }

  end(): void {
    this.now.set(undefined);
  }

  stop(): void {
    this.stopping();
  }
}
