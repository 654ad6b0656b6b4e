import { inject, Injectable } from '@angular/core';
import { type StoppedEntry, StoppedSchema, standingStops, stopOf } from '@core/patterns/stopped';
import type { Result } from '@core/quantity/result';
import { SETTING } from '../records/records';
import { Clock } from './clock';
import { DeskSettingsStore } from './desk-settings';
import { FactRepository } from './fact-repository';
import { GrownList } from './grown-list';
import type { StoreTrouble } from './store-trouble';

/** Lots that this house stopped, and released again. */
@Injectable({ providedIn: 'root' })
export class StoppedLots {
  private readonly settings = inject(DeskSettingsStore);
  private readonly clock = inject(Clock);
  private readonly list = new GrownList<StoppedEntry>(inject(FactRepository), SETTING.stopped, StoppedSchema);
  readonly entries = this.list.entries;

  /** Lots that stand stopped. @param invented those of an invented population, where it was only tried */
  standing(invented = false): StoppedEntry[] {
    return standingStops(this.list.in(invented));
  }

  /** The stop that a kit's lot is under. */
  of(kit: string | undefined, lot: string | undefined, invented = false): StoppedEntry | undefined {
    return stopOf(this.list.in(invented), kit, lot);
  }

  file(
    kit: string,
    lot: string,
    does: StoppedEntry['does'],
    reason: string,
    invented = false,
  ): Promise<Result<StoppedEntry, StoreTrouble>> {
    const entry = { kit, lot, does, at: this.clock.now(), by: this.settings.settings().by, reason };
    return this.list.add(() => entry, invented);
  }
}
