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
  if (whySilent({ key: o.key, value }) === 'notExamined') return 'not examined';
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
      return String(value);
  }
}
