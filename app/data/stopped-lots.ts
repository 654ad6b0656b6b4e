import { computed, inject, Injectable, signal } from '@angular/core';
import { type StoppedEntry, StoppedSchema, standingStops, stopOf } from '@core/patterns/stopped';
import { type Result, err } from '@core/quantity/result';
import { SETTING } from '../records/records';
import { Clock } from './clock';
import { DeskSettingsStore } from './desk-settings';
import { FactRepository } from './fact-repository';
import type { StoreTrouble } from './store-trouble';

/** Lots that this house stopped, and released again: a list that only grows. */
@Injectable({ providedIn: 'root' })
export class StoppedLots {
  private readonly repository = inject(FactRepository);
  private readonly settings = inject(DeskSettingsStore);
  private readonly clock = inject(Clock);
  private readonly list = signal<readonly StoppedEntry[]>([]);
  readonly entries = this.list.asReadonly();
  readonly standing = computed(() => standingStops(this.list()));

  constructor() {
    this.read().catch(() => undefined);
    // another window stopped or released one
    this.repository.news$.subscribe((news) => {
      if (news.setting === SETTING.stopped) this.read().catch(() => undefined);
    });
  }

  /** The stop that a kit's lot is under. */
  of(kit: string | undefined, lot: string | undefined): StoppedEntry | undefined {
    return stopOf(this.list(), kit, lot);
  }

  async file(
    kit: string,
    lot: string,
    does: StoppedEntry['does'],
    reason: string,
  ): Promise<Result<true, StoreTrouble>> {
    // what cannot be read is not written over
    if (!(await this.read())) return err({ code: 'unfit', detail: 'what was stopped before cannot be read' });
    const entry = { kit, lot, does, at: this.clock.now(), by: this.settings.settings().by, reason };
    const all = [...this.list(), entry];
    const kept = await this.repository.keepSetting(SETTING.stopped, all);
    if (kept.ok) this.list.set(all);
    return kept;
  }

  private async read(): Promise<boolean> {
    const kept = StoppedSchema.safeParse((await this.repository.setting(SETTING.stopped)) ?? []);
    if (kept.success) this.list.set(kept.data);
    return kept.success;
  }
}
