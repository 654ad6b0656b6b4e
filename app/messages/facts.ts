import type { Fact } from '@core/facts/fact';
import { meaningOf } from '@core/facts/meaning';
import { placeWords } from '@core/facts/place';
import { nameOfId } from '@core/facts/thing';
import { type Namer, showValue } from '@core/facts/show-value';
import type { SentenceContext } from './sentence-context';
import { PROVENANCE_WORDS } from './reading';
import { plainText } from '@core/facts/value';

/** What a fact is of: observable, thing, place. "Mark offset, right upper"; "Damage at a tooth, tooth 41". */
export function nameWords(fact: Pick<Fact, 'key' | 'about' | 'place'>, context: SentenceContext): string {
  const { key, about } = meaningOf(fact);
  const thing = about === undefined ? '' : (context.thing?.(about) ?? nameOfId(about));
  return [context.registry.get(key)?.wording ?? key, thing, fact.place ? placeWords(fact.place) : '']
    .filter(Boolean)
    .join(', ');
}

/** "Pointer, as found: −100 ± 3° (measured)". */
export function factWords(fact: Fact, context: SentenceContext, name: Namer): string {
  return `${nameWords(fact, context)}: ${valueWords(fact, context, name)} (${PROVENANCE_WORDS[fact.how]})`;
}

/** The value alone, in the house's units. */
export function valueWords(fact: Fact, context: SentenceContext, name: Namer): string {
  const o = context.registry.get(meaningOf(fact).key);
  return o ? showValue(o, fact.value, context.notation, name, fact.u) : plainText(fact.value);
}
