import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { canonical } from '@core/facts/canonical';
import { err, ok, type Result } from '@core/quantity/result';
import type { Pack } from './pack';
import type { IssueReason, TableName } from './pack-issue';
import { COLUMNS } from './table-columns';
import { tableReader } from './tables';

/** How a row of each table is known again in the next version. */
const KEYS = {
  engines: (r: { code: string }) => r.code,
  features: (r: { id: string }) => r.id,
  variants: (r: { id: string }) => r.id,
  layouts: (r: { id: string }) => r.id,
  parts: (r: { number: string }) => r.number,
  kits: (r: { number: string }) => r.number,
  applications: (r: { kit: string; variant: string }) => `${r.kit}|${r.variant}`,
  jobs: (r: { variant: string; item: string }) => `${r.variant}|${r.item}`,
  intervals: (r: { engine: string; vehicle: string }) => `${r.engine}|${r.vehicle}`,
  cross: (r: { number: string }) => r.number,
  procedures: (r: { id: string }) => r.id,
} satisfies { [T in keyof Pack]?: (row: never) => string };
export type RowTable = keyof typeof KEYS;
const ROW_TABLES = Object.keys(KEYS) as RowTable[];

/** What a row is known by in its table. */
export const rowKey = (table: RowTable, row: object): string => KEYS[table](row as never);

/** One row put in, in the place of the one that had this key, or taken out. */
export const RowChangeSchema = z.strictObject({
  table: z.enum(ROW_TABLES as [RowTable, ...RowTable[]]),
  key: z.string(),
  /** None: the row goes. */
  row: z.custom<object>((r) => typeof r === 'object' && r !== null).optional(),
});
export type RowChange = z.infer<typeof RowChangeSchema>;

/** A catalogue with rows put in, changed and taken out; changed ones keep their place, new ones come last. */
export function withChanges(base: Pack, changes: readonly RowChange[]): Pack {
  const out: Record<string, unknown> = { ...base };
  for (const table of ROW_TABLES) {
    const own = changes.filter((c) => c.table === table);
    if (own.length === 0) continue;
    const last = new Map(own.map((c) => [c.key, c.row]));
    const kept = base[table].flatMap((row): object[] => {
      const key = rowKey(table, row);
      if (!last.has(key)) return [row];
      const next = last.get(key);
      last.delete(key);
      return next === undefined ? [] : [next];
    });
    out[table] = [...kept, ...[...last.values()].filter((r) => r !== undefined)];
  }
  return out as Pack;
}

/** One more change; the last one to a row counts, and one that leads back to what stands in the base is none. */
export function addChange(base: Pack, changes: readonly RowChange[], change: RowChange): RowChange[] {
  const rest = changes.filter((c) => c.table !== change.table || c.key !== change.key);
  const before = base[change.table].find((r) => rowKey(change.table, r) === change.key);
  const same =
    before === undefined
      ? change.row === undefined
      : change.row !== undefined && canonical(before) === canonical(change.row);
  return same ? rest : [...rest, change];
}

/** Why a cell of a row cannot stand; `column` is its name in the file. */
export type CellFault = { column: string; reason: IssueReason };

/** A row of an open table from the texts of its cells, in the order of its columns, read as a file would be; or every cell that cannot stand. */
export function rowFromCells(table: TableName, cells: readonly string[]): Result<object, CellFault[]> {
  const reader = tableReader(table);
  reader.push(
    COLUMNS[table].map((c) => c.name),
    1,
  );
  reader.push(cells, 2);
  const row = reader.rows[0];
  return row ? ok(row) : err(reader.issues.map(({ column, reason }) => ({ column, reason })));
}

/** What became of one row from one catalogue to the next. */
export type RowDifference = {
  table: RowTable;
  key: string;
  is: 'added' | 'changed' | 'removed';
  /** Fields that differ, as text; of a new or lost row none. */
  fields: { field: string; before: string; after: string }[];
};
export type TableDiff = { table: string; rows: number; added: number; changed: number; removed: number };

/** What a new catalogue brings against an old one, table by table; without an old one all rows are new. */
export function diffPacks(before: Pack | undefined, after: Pack): TableDiff[] {
  return ROW_TABLES.map((table) => {
    const counts = { added: 0, changed: 0, removed: 0 };
    for (const d of rowsThatDiffer(before, after, table)) counts[d.is]++;
    return { table, rows: after[table].length, ...counts };
  });
}

/** The rows that differ, field by field, table by table; so many at most. */
export function rowDifferences(before: Pack | undefined, after: Pack, most: number): RowDifference[] {
  const out: RowDifference[] = [];
  for (const table of ROW_TABLES)
    for (const d of rowsThatDiffer(before, after, table)) {
      if (out.length >= most) return out;
      out.push({ table, key: d.key, is: d.is, fields: d.is === 'changed' ? fieldsOf(d.old, d.row) : [] });
    }
  return out;
}

type Differs =
  | { is: 'changed'; key: string; old: object; row: object }
  | { is: 'added' | 'removed'; key: string };

function* rowsThatDiffer(before: Pack | undefined, after: Pack, table: RowTable): Generator<Differs> {
  const then = new Map((before?.[table] ?? []).map((r): [string, object] => [rowKey(table, r), r]));
  for (const row of after[table]) {
    const key = rowKey(table, row);
    const old = then.get(key);
    if (old === undefined) yield { is: 'added', key };
    else if (canonical(old) !== canonical(row)) yield { is: 'changed', key, old, row };
    then.delete(key);
  }
  for (const key of then.keys()) yield { is: 'removed', key };
}

const asWritten = (v: unknown): string =>
  v === undefined ? '' : typeof v === 'string' || typeof v === 'number' ? String(v) : canonical(v);

function fieldsOf(before: object, after: object): RowDifference['fields'] {
  const [a, b] = [before as Record<string, unknown>, after as Record<string, unknown>];
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((field) => {
    const [x, y] = [asWritten(a[field]), asWritten(b[field])];
    return x === y ? [] : [{ field, before: x, after: y }];
  });
}
