import { Injectable } from '@angular/core';
import { type Day, dayOf } from '@core/quantity/dates';

/** The only place where the app asks what time it is. */
@Injectable({ providedIn: 'root' })
export class Clock {
  private last = 0;

  /** ISO time, strictly later than the one given before: facts filed in the same millisecond keep their order. */
  now(): string {
    this.last = Math.max(Date.now(), this.last + 1);
    return new Date(this.last).toISOString();
  }

  /** Milliseconds since 1970. */
  instant(): number {
    return Date.now();
  }

  /** Today's calendar day where the user sits. */
  today(): Day {
    return dayOf(Date.now());
  }
}
