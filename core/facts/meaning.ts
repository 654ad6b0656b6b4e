import { nth } from '@core/quantity/must';
import { KINDS } from './kinds';
import { type Place, placeKey } from './place';
import { bankThing, faultThing, oldThing, wheelThing } from './thing';

/** What a fact says something of: a thing (none: the first of the observable's kind) and an observable. */
export type Meaning = { about?: string | undefined; key: string };

type Rule = { form: RegExp; read: (m: RegExpExecArray) => Meaning };

/** Keys of the first edition that held an id, and what they mean today. Facts themselves are kept word for word. */
const FIRST_EDITION: readonly Rule[] = [
  { form: /^mark\.(.+)$/, read: (m) => ({ key: 'mark', about: wheelThing(nth(m, 1)) }) },
  { form: /^stack\.(.+)$/, read: (m) => ({ key: 'bank.nearer', about: bankThing(nth(m, 1)) }) },
  { form: /^old\.([^.]+)\.(.+)$/, read: (m) => ({ key: `part.${nth(m, 2)}`, about: oldThing(nth(m, 1)) }) },
  { form: /^claim\.fault\.(.+)$/, read: (m) => ({ key: 'claim.fault', about: faultThing(nth(m, 1)) }) },
];

/** Thing and observable of a fact, whichever edition wrote it. */
export function meaningOf(f: Meaning): Meaning {
  if (f.about !== undefined)
    // The first of a kind is what facts without a thing are about: naming it by its kind says the same.
    return KINDS.get(f.about)?.part && !f.key.startsWith('thing.') ? { key: f.key } : f;
  for (const { form, read } of FIRST_EDITION) {
    const m = form.exec(f.key);
    if (m) return read(m);
  }
  return f;
}

/** One text for what facts that correct each other have in common: thing, observable, place. */
export function slotKey(m: Meaning, place?: Place): string {
  return `${m.about ?? ''}|${m.key}${place ? `|${placeKey(place)}` : ''}`;
}
