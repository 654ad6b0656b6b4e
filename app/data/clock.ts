import { Injectable } from '@angular/core';
import type { Day } from '@core/quantity/dates';

/** The only place where the app asks what time it is. */
@Injectable({ providedIn: 'root' })
export class Clock {
  private last = 0;

  /** ISO time, strictly later than the one given before: facts filed in the same millisecond keep their order. */
  now(): string {
    this.last = Math.max(Date.now(), this.last + 1);
    return new Date(this.last).toISOString();
  }

  /** Today's calendar day where the user sits. */
  today(): Day {
    const t = new Date(Date.now());
    const two = (n: number) => String(n).padStart(2, '0');
    return `${t.getFullYear()}-${two(t.getMonth() + 1)}-${two(t.getDate())}`;
  }
}
