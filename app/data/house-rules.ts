import { computed, inject, Injectable } from '@angular/core';
import { type Rules, rulesWith } from '@core/house/rules';
import { HouseStore } from './house';

/** The house rules of this desk: as shipped, but for what it answers otherwise. Fetched with what judges by them. */
@Injectable({ providedIn: 'root' })
export class HouseRules {
  private readonly house = inject(HouseStore);
  readonly rules = computed<Rules>(() => rulesWith(this.house.settings().chosen));
}
