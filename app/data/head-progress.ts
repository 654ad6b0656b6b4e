import { Injectable, signal } from '@angular/core';

/** How far making heads anew is, and the way to stop it. What makes them is fetched only then. */
@Injectable({ providedIn: 'root' })
export class HeadProgress {
  private stopping: () => void = () => undefined;
  private readonly cases = signal<number | undefined>(undefined);
  /** Cases done while it goes on. */
  readonly progress = this.cases.asReadonly();

  start(stop: () => void): void {
    this.stopping = stop;
    this.cases.set(0);
  }

  done(cases: number): void {
    if (this.cases() !== undefined) this.cases.set(cases);
  }

  end(): void {
    this.cases.set(undefined);
  }

  stop(): void {
    this.stopping();
  }
}
