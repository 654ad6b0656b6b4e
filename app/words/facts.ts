import type { Fact } from '@core/facts/fact';
import { type Namer, showValue } from '@core/facts/show-value';
import type { Voice } from './answers';
import { HOW_WORDS } from './reading';

/** "Pointer, as found: −100 ± 3° (measured)". */
export function factWords(fact: Fact, voice: Voice, name: Namer): string {
  return `${voice.registry.get(fact.key)?.wording ?? fact.key}: ${valueWords(fact, voice, name)} (${HOW_WORDS[fact.how]})`;
}

/** The value alone, in the house's units. */
export function valueWords(fact: Fact, voice: Voice, name: Namer): string {
  const o = voice.registry.get(fact.key);
  return o ? showValue(o, fact.value, voice.house, name, fact.u) : String(fact.value);
}
