import type { Fact } from '@core/facts/fact';
import { reduce, type State } from '@core/facts/state';

/** A state of such values, each seen. */
export const registerFacts = (values: readonly (readonly [string, Fact['value']])[]): State =>
  reduce(
    values.map(([key, value], i) => ({
      id: `m${i}`,
      case: 'c',
      key,
      value,
      how: 'seen' as const,
      by: 'T',
      at: '2026-11-01T08:00:00.000Z',
      seen: i + 1,
    })),
  );
