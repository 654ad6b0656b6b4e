import { DOCUMENT, inject, Injectable } from '@angular/core';

/**
 * Whether a finger or a button is down. What moves the page while it is would take the target of the press away from under it: a box that is left by
 * a press files when the press comes up, before it counts as a click.
 */
@Injectable({ providedIn: 'root' })
export class HeldPointer {
  private held = false;
  private waiting: (() => void)[] = [];

  constructor() {
    const view = inject(DOCUMENT).defaultView;
    const early = { capture: true, passive: true };
    view?.addEventListener('pointerdown', () => (this.held = true), early);
    // a press that ends elsewhere, in a drag or outside the window, ends as well
    for (const end of ['pointerup', 'pointercancel', 'dragend', 'blur'])
      view?.addEventListener(
        end,
        (e) => (e.type === 'blur' && e.target !== view ? undefined : this.up()),
        early,
      );
  }

  /** Does it now, or as soon as nothing is down any more. */
  afterRelease(job: () => void): void {
    if (this.held) this.waiting.push(job);
    else job();
  }

  private up(): void {
    this.held = false;
    const jobs = this.waiting;
    this.waiting = [];
    for (const job of jobs) job();
  }
}
