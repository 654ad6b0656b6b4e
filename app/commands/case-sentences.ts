import { computed, inject, Injectable } from '@angular/core';
import type { SentenceContext } from '../messages/sentence-context';
import { CaseDesk } from '../data/case-desk';
import { DeskSettingsStore } from '../data/desk-settings';

/** The case in hand as the sentences need it. */
@Injectable({ providedIn: 'root' })
export class CaseSentences {
  private readonly desk = inject(CaseDesk);
  private readonly settings = inject(DeskSettingsStore);
  readonly voice = computed<SentenceContext>(() => ({
    notation: this.settings.notation(),
    cat: this.desk.current()?.catalogue,
    registry: this.desk.registry(),
    labelStep: this.settings.settings().labelStep,
    thing: (id) => this.desk.thing(id),
  }));
}
