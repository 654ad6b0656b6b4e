import { readSold, type SoldTable } from '@core/patterns/read-sold';
import { type Result, err, ok } from '@core/quantity/result';
import type { TableTrouble } from './claims.protocol';
import type { PatternJobs } from './patterns.protocol';
import { readTable } from './read-table';

/** Reads a table of what was sold, from text or a workbook: its rows with what is wrong with each. */
export async function readSoldTable({
  name,
  blob,
  today,
  order,
  form,
}: PatternJobs['readSold']['input']): Promise<Result<SoldTable, TableTrouble>> {
  const rows: (readonly (string | number)[])[] = [];
  // Columns of claims are not looked for: of several sheets the first that has a heading is taken.
  const table = await readTable(name, blob, new Map(), (some) => {
    for (const r of some) rows.push(r);
  });
  if (!table.ok) return table;
  while (rows.length > 0 && rows[0]?.every((c) => String(c).trim() === '')) rows.shift();
  return rows.length === 0 ? err({ code: 'no_rows', name }) : ok(readSold(rows, today, order, form));
}
