import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { consistent, type Left } from '@core/facts/consistent';
import { type Fact, FactSchema } from '@core/facts/fact';
import { type Result, err, ok } from '@core/quantity/result';
import { readShape, type ShapeError } from './read-shape';

const DESK_FORMAT = 'hollow-sprocket-desk';

/** Every fact of a desk, and text that was typed and not filed: what is taken out when the records cannot be trusted. */
const DeskFileSchema = z.strictObject({
  format: z.literal(DESK_FORMAT),
  formatVersion: z.literal(1),
  exportedAt: z.iso.datetime(),
  drafts: z.record(z.string(), z.string()),
  facts: z.array(FactSchema),
});
export type DeskFileError = ShapeError | { code: 'fact_twice'; id: string; case: string };
/** The facts of each case, and those that cannot stand with the others of theirs. */
export type ReadDesk = {
  cases: ReadonlyMap<string, readonly Fact[]>;
  left: Left[];
  /** Half-typed text, by case and field. */
  drafts: Readonly<Record<string, string>>;
};

/** Does a text say, where files of this program say it, that it is a desk file? */
export const saysDesk = (text: string): boolean => text.slice(0, 400).includes(`"${DESK_FORMAT}"`);

/** Begin and end of such a file, so that its facts can be written in pieces. */
export function deskFileFrame(exportedAt: string, drafts: Record<string, string>): [string, string] {
  const head = JSON.stringify({ format: DESK_FORMAT, formatVersion: 1, exportedAt, drafts });
  return [`${head.slice(0, -1)},"facts":[`, ']}\n'];
}

/** Reads a desk file: the facts of each case. It is a rescue: what cannot stand with the rest is left, and told. */
export function readDeskFile(text: string): Result<ReadDesk, DeskFileError> {
  const shaped = readShape(text, DESK_FORMAT, 1, DeskFileSchema);
  if (!shaped.ok) return shaped;
  const all = new Map<string, Fact[]>();
  const ids = new Set<string>();
  for (const f of shaped.value.facts) {
    if (ids.has(f.id)) return err({ code: 'fact_twice', id: f.id, case: f.case });
    ids.add(f.id);
    const own = all.get(f.case);
    if (own) own.push(f);
    else all.set(f.case, [f]);
  }
  const cases = new Map<string, readonly Fact[]>();
  const left: Left[] = [];
  for (const [id, facts] of all) {
    const own = consistent(facts);
    cases.set(id, own.stand);
    left.push(...own.left);
  }
  return ok({ cases, left, drafts: shaped.value.drafts });
}
