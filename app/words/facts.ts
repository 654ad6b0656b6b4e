import type { Fact } from '@core/facts/fact';
import { type Namer, showValue } from '@core/facts/show-value';
import type { Voice } from './answers';
import { HOW_WORDS } from './reading';

/** "Pointer, as found: −100 ± 3° (measured)". */
export function factWords(fact: Fact, voice: Voice, name: Namer): string {
  const o = voice.registry.get(fact.key);
  const value = o ? showValue(o, fact.value, voice.house, name, fact.u) : String(fact.value);
  return `${o?.wording ?? fact.key}: ${value} (${HOW_WORDS[fact.how]})`;
}
