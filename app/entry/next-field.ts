/** Fields of the station, in the order of the work. */
const fieldsOf = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('main [data-field]')];

/** Where a field takes what is typed or pressed. */
const entryOf = (field: HTMLElement): HTMLElement | null => field.querySelector('.entry');

/**
 * Moves the focus to the next field that still lacks a value, from the one that holds `from`, across the groups of the
 * station; behind the last it begins anew. Stays where it is when nothing is lacking.
 */
export function focusNextLacking(from: HTMLElement): void {
  const fields = fieldsOf();
  const at = fields.findIndex((f) => f.contains(from) || from.contains(f));
  const order = [...fields.slice(at + 1), ...fields.slice(0, Math.max(0, at))];
  const next = order.find((f) => f.dataset['field'] === 'lacks' && entryOf(f) !== null);
  if (next) entryOf(next)?.focus();
  else fields[at + 1]?.querySelector<HTMLElement>('.entry')?.focus();
}
