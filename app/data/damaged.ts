/** A record that cannot be what it says it is: set aside, so that the rest works, and kept for export. */
export type Damaged = { store: 'facts' | 'packs' | 'extracts'; id: string; why: string; record: unknown };

/** A fact of which a field is missing, or of another kind. */
export const damagedFact = (record: unknown): Damaged => ({
  store: 'facts',
  id: String((record as { id?: unknown }).id),
  why: 'a field is missing or of another kind',
  record,
});
