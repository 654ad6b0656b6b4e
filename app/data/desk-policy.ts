import { computed, inject, Injectable } from '@angular/core';
import { type Policy, policyWith } from '@core/policy/policy';
import type { Judging } from '@core/answer/world';
import { DeskSettingsStore } from './desk-settings';
import { OwnNumbers } from './own-numbers';

/** The policy of this desk: as shipped, but for what it answers otherwise. Fetched with what judges by them. */
@Injectable({ providedIn: 'root' })
export class DeskPolicy {
  private readonly settings = inject(DeskSettingsStore);
  private readonly ownNumbers = inject(OwnNumbers);
  readonly rules = computed<Policy>(() => policyWith(this.settings.settings().chosen));
  /** What cases are judged by here. */
  readonly judging = computed<Judging>(() => ({
    policy: this.rules(),
    knowledge: this.ownNumbers.knowledge(),
  }));

  /** Resolves when all of it is read. */
  ready(): Promise<void> {
    return this.ownNumbers.ready();
  }
}
