import { textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';

/** The workshop of a caller: what stands behind the last comma, else all. */
export const workshopOf = (who: string): string => (who.split(',').at(-1) ?? '').trim().toLowerCase();

/** The workshop that a fault of this case is laid to: the caller's, unless somebody else fitted it; "" for none. */
export function fitterOf(state: State): string {
  const by = textOf(state, 'kit.fitted_by');
  return by === undefined || by === 'caller' ? workshopOf(textOf(state, 'call.who') ?? '') : '';
}
