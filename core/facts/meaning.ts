import { nth } from '@core/quantity/must';
import { KINDS } from './kinds';
import { type Place, placeKey } from './place';
import { bankThing, faultThing, oldThing, wheelThing } from './thing';

/** What a fact says something of: a thing (none: the first of the observable's kind) and an observable. */
export type Meaning = { about?: string | undefined; key: string };

type Rule = { form: RegExp; read: (m: RegExpExecArray) => Meaning };

/** Keys of before, and what they mean today: those of the first edition that held an id, and names of what has another. Facts themselves are kept word for word. */
const FORMER: readonly Rule[] = [
  { form: /^mark\.(.+)$/, read: (m) => ({ key: 'mark', about: wheelThing(nth(m, 1)) }) },
  { form: /^stack\.(.+)$/, read: (m) => ({ key: 'bank.nearer', about: bankThing(nth(m, 1)) }) },
  { form: /^old\.([^.]+)\.(.+)$/, read: (m) => ({ key: `part.${nth(m, 2)}`, about: oldThing(nth(m, 1)) }) },
  // Teeth of a belt were counted under two names, at the design and on the bench.
  { form: /^belt\.tooth_count$/, read: () => ({ key: 'belt.teeth_count' }) },
  { form: /^claim\.fault\.(.+)$/, read: (m) => ({ key: 'claim.fault', about: faultThing(nth(m, 1)) }) },
];

/** Thing and observable of a fact, whichever edition wrote it. */
export function meaningOf(f: Meaning): Meaning {
  const own = former({ key: f.key });
  if (f.about === undefined) return own;
  const key = own.about === undefined ? own.key : f.key;
  // The first of a kind is what facts without a thing are about: naming it by its kind says the same.
  return KINDS.get(f.about)?.part && !key.startsWith('thing.') ? { key } : { ...f, key };
}

function former(f: Meaning): Meaning {
  for (const { form, read } of FORMER) {
    const m = form.exec(f.key);
    if (m) return read(m);
  }
  return f;
}

/** One text for what facts that correct each other have in common: thing, observable, place. */
export function slotKey(m: Meaning, place?: Place): string {
  return `${m.about ?? ''}|${m.key}${place ? `|${placeKey(place)}` : ''}`;
}
