import { computed, inject, Injectable } from '@angular/core';
import { SHIPPED } from '@core/answer/world';
import { attributeObservables } from '@core/catalogue/attribute-observables';
import { registryWith } from '@core/facts/registry';
import { CAUSES, causesFor } from '@core/cause/cause-data';
import type { ChangeProblem } from '@core/cause/changes';
import { DeskSettingsStore } from '../data/desk-settings';
import { type StoreTrouble, troubleSentence } from '../data/store-trouble';
import { problemSentence } from '../messages/knowledge';
import type { SentenceContext } from '../messages/sentence-context';

/** The causes and mechanisms in words of no one drive. */
export const WORDED = causesFor(CAUSES, undefined);

/** Why a number was not taken as it was seen. */
export const refusalWords = (e: ChangeProblem | StoreTrouble): string =>
  'index' in e ? `Not so: ${problemSentence(e)}` : troubleSentence(e);

/** Every inspection by its name, whichever case is in hand or none. */
const REGISTRY = registryWith(SHIPPED.observables, attributeObservables());

/** How the knowledge is told: of no case, and of no catalogue. */
@Injectable({ providedIn: 'root' })
export class KnowledgeSentences {
  private readonly settings = inject(DeskSettingsStore);
  readonly voice = computed<SentenceContext>(() => ({
    notation: this.settings.notation(),
    cat: undefined,
    registry: REGISTRY,
  }));
}
