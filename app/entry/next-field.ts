/** Fields of the station, in the order of the work; what is shown apart from its list has its row there. */
const fieldsOf = (): HTMLElement[] =>
  [...document.querySelectorAll<HTMLElement>('main [data-field]')].filter((f) => !f.closest('[data-apart]'));

/** Goes into a field; a row of a list brings its own field up by being pressed. */
function enter(entry: HTMLElement | null | undefined): void {
  if (entry instanceof HTMLButtonElement) entry.click();
  else entry?.focus();
}

/** Where a field takes what is typed or pressed. */
const entryOf = (field: HTMLElement): HTMLElement | null => field.querySelector('.entry');

/**
 * Moves the focus to the next field that still lacks a value, from the one that holds `from`, across the groups of the
 * station; behind the last it begins anew. Stays where it is when nothing is lacking.
 */
export function focusNextLacking(from: HTMLElement): void {
  const fields = fieldsOf();
  const row = from.closest<HTMLElement>('[data-apart]')?.dataset['apart'];
  const at = fields.findIndex((f) =>
    row === undefined ? f.contains(from) || from.contains(f) : f.dataset['row'] === row,
  );
  const order = [...fields.slice(at + 1), ...fields.slice(0, Math.max(0, at))];
  const next = order.find((f) => f.dataset['field'] === 'lacks' && entryOf(f) !== null);
  enter(next ? entryOf(next) : fields[at + 1]?.querySelector<HTMLElement>('.entry'));
}
