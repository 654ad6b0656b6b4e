import { Injectable } from '@angular/core';

/** Work that nobody waits for, one piece whenever the page has nothing else to do. */
@Injectable({ providedIn: 'root' })
export class Turns {
  /** Does something with each, in order; the function returned leaves the rest undone. */
  each<T>(all: readonly T[], work: (one: T) => void): () => void {
    let at = 0;
    let asked = 0;
    const next = (): void => {
      const one = all[at++];
      if (one === undefined) return;
      asked = requestIdleCallback(() => {
        work(one);
        next();
      });
    };
    next();
    return () => {
      cancelIdleCallback(asked);
    };
  }
}
