import type { Fact } from '@core/facts/fact';
import { meaningOf } from '@core/facts/meaning';
import { placeWords } from '@core/facts/place';
import { nameOfId } from '@core/facts/thing';
import { type Namer, showValue } from '@core/facts/show-value';
import type { Voice } from './voice';
import { HOW_WORDS } from './reading';
import { plainText } from '@core/facts/value';

/** What a fact is of: observable, thing, place. "Mark offset, right upper"; "Damage at a tooth, tooth 41". */
export function nameWords(fact: Pick<Fact, 'key' | 'about' | 'place'>, voice: Voice): string {
  const { key, about } = meaningOf(fact);
  const thing = about === undefined ? '' : (voice.thing?.(about) ?? nameOfId(about));
  return [voice.registry.get(key)?.wording ?? key, thing, fact.place ? placeWords(fact.place) : '']
    .filter(Boolean)
    .join(', ');
}

/** "Pointer, as found: −100 ± 3° (measured)". */
export function factWords(fact: Fact, voice: Voice, name: Namer): string {
  return `${nameWords(fact, voice)}: ${valueWords(fact, voice, name)} (${HOW_WORDS[fact.how]})`;
}

/** The value alone, in the house's units. */
export function valueWords(fact: Fact, voice: Voice, name: Namer): string {
  const o = voice.registry.get(meaningOf(fact).key);
  return o ? showValue(o, fact.value, voice.house, name, fact.u) : plainText(fact.value);
}
