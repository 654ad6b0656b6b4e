import type * as z from 'zod';
import type { MergeError } from '@core/facts/change';
import type { FactsError, Left } from '@core/facts/consistent';
import { formatNumber } from '@core/quantity/format-quantity';
import { type Fact, LONGEST_NOTE, LONGEST_TEXT } from '@core/facts/fact';

/** A record that cannot be what it says it is: set aside, so that the rest works, and kept for export. */
export type Damaged = { store: 'facts' | 'packs' | 'extracts'; id: string; why: string; record: unknown };

/** Why a fact cannot stand with the others of its case, in words. */
const WHY: Record<FactsError['code'], string> = {
  fact_twice: 'its id is there twice',
  circle: 'it corrects or strikes itself by way of others',
  two_kinds: 'its thing is declared as another kind already',
  too_many: 'its case holds more facts than are read',
  no_kind: 'nothing says what the thing is that it is about',
  practice: 'it is of a return for practice, which is no case',
};
export const inconsistentFact = ({ fact, why }: Left): Damaged => ({
  store: 'facts',
  id: fact.id,
  why: WHY[why.code],
  record: fact,
});

/** Why the schema of facts refuses what would be filed, and what fits instead. */
export function whyUnfit(f: Fact, e: z.ZodError): string {
  const signs = (n: number) => formatNumber(n, 0);
  if (typeof f.value === 'string' && f.value.length > LONGEST_TEXT)
    return `the text has ${signs(f.value.length)} characters, and one entry holds ${signs(LONGEST_TEXT)}; shorten it, or attach it as a file`;
  if (f.note !== undefined && f.note.length > LONGEST_NOTE)
    return `the note has ${signs(f.note.length)} characters, and one holds ${signs(LONGEST_NOTE)}; shorten it`;
  const [first] = e.issues;
  return `it does not fit at ${(first?.path ?? []).map(String).join(' › ')}: ${first?.message ?? ''}`;
}

/** Why what came in cannot join what is here. */
export function mergeWords(e: MergeError | FactsError): string {
  if (e.code === 'same_id_other_content') return `fact ${e.id} is here with other content`;
  if (e.code === 'too_many')
    return `together they are ${e.facts} facts of one case, and at most ${e.most} are kept`;
  return `with what is here, ${'id' in e ? `fact ${e.id}` : e.thing}: ${WHY[e.code]}`;
}

/** A fact of which a field is missing, or of another kind. */
export const damagedFact = (record: unknown): Damaged => ({
  store: 'facts',
  id: String((record as { id?: unknown }).id),
  why: 'a field is missing or of another kind',
  record,
});
