import { computed, inject, Injectable } from '@angular/core';
import { type Rules, rulesWith } from '@core/house/rules';
import type { Judging } from '@core/answer/world';
import { HouseStore } from './house';
import { HouseKnowledge } from './house-knowledge';

/** The house rules of this desk: as shipped, but for what it answers otherwise. Fetched with what judges by them. */
@Injectable({ providedIn: 'root' })
export class HouseRules {
  private readonly house = inject(HouseStore);
  private readonly known = inject(HouseKnowledge);
  readonly rules = computed<Rules>(() => rulesWith(this.house.settings().chosen));
  /** What cases are judged by here. */
  readonly judging = computed<Judging>(() => ({ rules: this.rules(), knowledge: this.known.knowledge() }));

  /** Resolves when all of it is read. */
  ready(): Promise<void> {
    return this.known.ready();
  }
}
