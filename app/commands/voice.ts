import { computed, inject, Injectable } from '@angular/core';
import type { Voice } from '../messages/voice';
import { CaseDesk } from '../data/case-desk';
import { HouseStore } from '../data/house';

/** The case in hand as the sentences need it. */
@Injectable({ providedIn: 'root' })
export class VoiceService {
  private readonly desk = inject(CaseDesk);
  private readonly house = inject(HouseStore);
  readonly voice = computed<Voice>(() => ({
    house: this.house.house(),
    cat: this.desk.current()?.catalogue,
    registry: this.desk.registry(),
    thing: (id) => this.desk.thing(id),
  }));
}
