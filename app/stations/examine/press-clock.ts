import { inject, Injectable, signal } from '@angular/core';
import { Clock } from '../../data/clock';

/** Presses that are under way, by case and thing: they go on while one looks elsewhere. */
@Injectable({ providedIn: 'root' })
export class PressClock {
  private readonly clock = inject(Clock);
  private readonly begun = signal<ReadonlyMap<string, number>>(new Map());

  begin(of: string): void {
    this.begun.update((m) => new Map(m).set(of, this.ms()));
  }

  end(of: string): void {
    this.begun.update((m) => new Map([...m].filter(([k]) => k !== of)));
  }

  isOn(of: string): boolean {
    return this.begun().has(of);
  }

  /** Seconds since it began. */
  seconds(of: string): number {
    const from = this.begun().get(of);
    return from === undefined ? 0 : (this.ms() - from) / 1000;
  }

  private ms(): number {
    return Date.parse(this.clock.now());
  }
}
