import { computed, inject, Injectable } from '@angular/core';
import { SHIPPED } from '@core/answer/world';
import { attributeObservables } from '@core/catalogue/attribute-observables';
import { registryWith } from '@core/facts/registry';
import { HouseStore } from '../data/house';
import type { Voice } from '../words/voice';

/** Every look by its name, whichever case is in hand or none. */
const REGISTRY = registryWith(SHIPPED.observables, attributeObservables());

/** How the knowledge is told: of no case, and of no catalogue. */
@Injectable({ providedIn: 'root' })
export class KnowledgeVoice {
  private readonly house = inject(HouseStore);
  readonly voice = computed<Voice>(() => ({
    house: this.house.house(),
    cat: undefined,
    registry: REGISTRY,
  }));
}
