import { Injectable, signal } from '@angular/core';

/** Work on the records that somebody may wait for: how far it is, of how many where that is known, and the way to stop it. */
export type Work = { what: string; done?: number; of?: number; stop: () => void };
/** For whoever does it. */
export type WorkLine = { done: (done: number, of?: number) => void; end: () => void };

/** All that goes on at the records, each piece by itself. What does it is fetched only then. */
@Injectable({ providedIn: 'root' })
export class RecordWork {
  private readonly all = signal<ReadonlyMap<number, Work>>(new Map());
  readonly going = this.all.asReadonly();
  private count = 0;

  start(what: string, stop: () => void): WorkLine {
    const id = ++this.count;
    this.put(id, { what, stop });
    return {
      done: (done, of) => {
        if (this.all().has(id)) this.put(id, { what, stop, done, ...(of === undefined ? {} : { of }) });
      },
      end: () => this.all.update((all) => new Map([...all].filter(([k]) => k !== id))),
    };
  }

  private put(id: number, work: Work): void {
    this.all.update((all) => new Map(all).set(id, work));
  }
}
