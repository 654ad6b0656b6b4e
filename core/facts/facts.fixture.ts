import type { Fact } from './fact';
import { reduce, type State } from './state';

let n = 0;
/** A fact of a case for specs, seen unless said otherwise; each a moment after the one before. */
export const factOf = (key: string, value: Fact['value'], more: Partial<Fact> = {}): Fact => ({
  id: `f${++n}`,
  case: 'c',
  key,
  value,
  how: 'seen',
  by: 'T',
  at: new Date(Date.UTC(2026, 0, 1) + n).toISOString(),
  seen: n,
  ...more,
});

/** A state of such values, each seen. */
export const stateOf = (values: readonly (readonly [string, Fact['value']])[]): State =>
  reduce(values.map(([key, value]) => factOf(key, value)));
