import { formatMonth, isMonth } from '@core/quantity/dates';
import { formatQuantity } from '@core/quantity/format-quantity';
import type { FactValue } from './fact';
import { type Observable, optionsOf } from './observable';
import { whySilent } from './silence';
import { type House, houseDay, unitFor } from './read-value';

/** Names of records and wheels for showing; falls back to the key. */
export type Namer = (table: string, key: string) => string;

/** A value as a person reads it, in the house's units and date order. */
export function showValue(o: Observable, value: FactValue, house: House, name: Namer, u?: number): string {
  const t = o.type;
  const why = whySilent({ key: o.key, value });
  if (why === 'notExamined') return 'not examined';
  if (why === 'unknown' && t.kind !== 'choice') return 'unknown';
  switch (t.kind) {
    case 'number':
      return typeof value === 'number'
        ? formatQuantity(t.dimension, value, { unit: unitFor(o, house), decimals: t.decimals, u })
        : String(value);
    case 'count':
      return `${String(value)} ${t.what}`;
    case 'date':
      return isMonth(u) ? formatMonth(String(value)) : houseDay(String(value), house);
    case 'choice':
      return optionsOf(o).find((x) => x.key === value)?.wording ?? String(value);
    case 'several':
    case 'wheels': {
      const keys = Array.isArray(value) ? value.map(String) : [String(value)];
      if (keys.length === 0) return t.none;
      const label = (k: string) =>
        t.kind === 'wheels' ? name('wheel', k) : (t.options.find((x) => x.key === k)?.wording ?? k);
      return keys.map(label).join(', ');
    }
    case 'codes':
      return Array.isArray(value) && value.length ? value.join(' ') : 'none';
    case 'ref':
      return name(t.table, String(value));
    case 'seal':
      return `digest ${String(value).slice(0, 12)}…`;
    case 'series':
      return `${Array.isArray(value) ? Math.floor(value.length / 2) : 0} readings`;
    case 'reading':
      return `${Array.isArray(value) ? value.length : 0} lines`;
    case 'text':
      return o.hidden ? shortDigests(String(value)) : String(value);
  }
}

/** What the program filed itself names contents by digests: eight signs are as many as a person compares. */
const shortDigests = (text: string): string => text.replace(/\b([0-9a-f]{8})[0-9a-f]{56}\b/g, '$1…');
