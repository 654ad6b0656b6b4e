import { must } from '@core/quantity/must';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { type JsonFault, parseJson } from '@core/quantity/parse-json';
import { checkPack, countFromOne, type Refused, type RowOf } from './check-pack';
import { checkPlans } from './check-plans';
import { checkProcedures } from './check-procedures';
import { checkWording } from './check-wording';
import { type Pack, PackSchema } from './pack';
import { type AnyTable, type PackIssue, type TableName, TABLES } from './pack-issue';
import type { TableReader } from './tables';
import { nextVersion } from './version';

/** What a pack says of itself, with the nested tables that do not travel as CSV. */
export const PackHeadSchema = PackSchema.pick({
  format: true,
  formatVersion: true,
  name: true,
  version: true,
  issued: true,
  source: true,
  layouts: true,
  procedures: true,
});
export type PackHead = z.infer<typeof PackHeadSchema>;
export type PackReading = { pack?: Pack; issues: PackIssue[] };

/** A pack from one JSON text: syntax, shape, then what {@link checkPack} sees. All bad places are reported. */
export function readPackJson(text: string): PackReading {
  const parsed = parseJson(text);
  if (!parsed.ok) return { issues: [notJson(parsed.error)] };
  const read = PackSchema.safeParse(parsed.value);
  if (!read.success) return { issues: read.error.issues.map(shapeIssue) };
  const issues = [
    ...checkPack(read.data),
    ...checkWording(read.data, countFromOne),
    ...checkProcedures(read.data, countFromOne),
    ...checkPlans(read.data, countFromOne),
  ];
  return issues.length ? { issues } : { pack: read.data, issues };
}

/** The head of a CSV pack, from its pack.json. */
export function readPackHead(text: string): { head?: PackHead; issues: PackIssue[] } {
  const parsed = parseJson(text);
  if (!parsed.ok) return { issues: [notJson(parsed.error)] };
  const read = PackHeadSchema.safeParse(parsed.value);
  return read.success ? { head: read.data, issues: [] } : { issues: read.error.issues.map(shapeIssue) };
}

const notJson = ({ line, column, detail }: JsonFault): PackIssue => ({
  table: 'pack',
  row: line,
  column: `column ${column}`,
  reason: { code: 'bad_shape', detail },
});

function tableIssue(issue: z.core.$ZodIssue, rowOf: RowOf): PackIssue {
  const shape = shapeIssue(issue);
  return shape.table === 'pack' ? shape : { ...shape, row: rowOf(shape.table, shape.row - 1) };
}

/** Of a value that could have been one of several shapes: what is wrong with the one that it comes nearest to. */
function nearest(issue: z.core.$ZodIssue): z.core.$ZodIssue {
  if (issue.code !== 'invalid_union' || issue.errors.length === 0) return issue;
  const [branch] = [...issue.errors].sort((a, b) => a.length - b.length);
  const first = branch?.[0];
  return first ? nearest({ ...first, path: [...issue.path, ...first.path] }) : issue;
}

function shapeIssue(found: z.core.$ZodIssue): PackIssue {
  const issue = nearest(found);
  const [table, index, ...rest] = issue.path;
  const known = typeof table === 'string' && table !== '' && typeof index === 'number';
  return {
    table: known ? (table as AnyTable) : 'pack',
    row: known ? index + 1 : 1,
    column: (known ? rest : issue.path).map(String).join('.'),
    reason: { code: 'bad_shape', detail: issue.message },
  };
}

/**
 * A pack from CSV tables. Tables that were not given are taken from `base`, so that one corrected table can be brought in
 * by itself; without a head the base's is kept with the next version.
 */
export function packFromTables(
  head: PackHead | undefined,
  readers: Partial<Record<TableName, TableReader>>,
  base: Pack | undefined,
): PackReading {
  const issues: PackIssue[] = [];
  for (const table of TABLES) {
    for (const i of readers[table]?.issues ?? []) issues.push({ table, ...i });
  }
  if (!head && !base) {
    issues.push({
      table: 'pack',
      row: 1,
      column: '',
      reason: {
        code: 'bad_shape',
        detail: 'There is no pack.json, and no catalogue here that these tables could belong to.',
      },
    });
    return { issues };
  }
  const top = head ?? { ...must(base), version: nextVersion(must(base).version) };
  const rows = (t: TableName) => readers[t]?.rows ?? base?.[t] ?? [];
  const pack = {
    format: top.format,
    formatVersion: top.formatVersion,
    name: top.name,
    version: top.version,
    issued: top.issued,
    source: top.source,
    layouts: top.layouts,
    procedures: top.procedures,
    ...Object.fromEntries(TABLES.map((t) => [t, rows(t)])),
  } as Pack;
  const rowOf: RowOf = (table, index) => readers[table as TableName]?.lines[index] ?? index + 1;
  const refused: Refused = (table, key) => readers[table as TableName]?.refused.has(key) ?? false;
  // Rows of JSON and of tables alike are held to the one schema before they are looked at together.
  const read = PackSchema.safeParse(pack);
  if (!read.success) issues.push(...read.error.issues.map((i) => tableIssue(i, rowOf)));
  else
    issues.push(
      ...checkPack(pack, rowOf, refused),
      ...checkWording(pack, rowOf),
      ...checkProcedures(pack, rowOf),
      ...checkPlans(pack, rowOf),
    );
  return issues.length ? { issues } : { pack, issues };
}
