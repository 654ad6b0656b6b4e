import type { NewFact } from '@core/facts/change';
import type { Lies } from './virtual-case';

/** A line as an entry. */
export const entryOf = ({ key, about, place, value, u, how }: Lies): NewFact => ({
  key,
  ...(about === undefined ? {} : { about }),
  ...(place ? { place } : {}),
  value,
  how,
  ...(u === undefined ? {} : { u }),
});
