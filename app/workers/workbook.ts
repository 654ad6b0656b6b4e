import { zipSync } from 'fflate';
import readWorkbook from 'read-excel-file/universal';
import writeWorkbook from 'write-excel-file/universal';
import type { Cell } from '@core/intake/claims-form';
import { type Result, err, ok } from '@core/quantity/result';
import type { TableTrouble } from './claims.protocol';
import { unzip } from './unpack';

/**
 * The tables of a workbook. It is unpacked within the limits of everything that is unpacked here, and handed on unpressed: what
 * reads it would start threads from texts otherwise, which the page does not allow.
 */
export async function readTablesOfWorkbook(
  name: string,
  bytes: Uint8Array,
): Promise<Result<Cell[][][], TableTrouble>> {
  const unpacked = unzip(name, bytes);
  if (!unpacked.ok) return unpacked;
  const parts = Object.fromEntries(unpacked.value.map((e) => [e.name, e.bytes]));
  const plain = zipSync(parts, { level: 0 });
  try {
    const sheets = await readWorkbook(new Blob([plain]), { trim: true });
    return ok(sheets.map((s) => s.data.map((row) => row.map(cellOf))));
  } catch (e) {
    return err({ code: 'broken_workbook', name, detail: e instanceof Error ? e.message : String(e) });
  }
}

function cellOf(value: unknown): Cell {
  if (value instanceof Date) {
    // A workbook keeps a day without a zone; it comes as the midnight of Greenwich.
    return Number.isNaN(value.getTime()) ? '' : value.toISOString().slice(0, 10);
  }
  if (typeof value === 'number') return Number.isFinite(value) ? value : '';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return typeof value === 'string' ? value.trim() : '';
}

/** Widths of columns, signs: of the heading and the first rows, within these. */
const [NARROWEST, WIDEST, LOOKED_AT] = [8, 48, 200];

/** A table as a workbook with one sheet: its heading bold and staying in sight, texts never taken for formulas, days as days. */
export async function writeTableAsWorkbook(sheet: string, rows: readonly (readonly Cell[])[]): Promise<Blob> {
  const [head = [], ...body] = rows;
  const columns = head.map((h, i) => ({
    width: Math.min(
      WIDEST,
      rows
        .slice(0, LOOKED_AT)
        .reduce(
          (w, r) => Math.max(w, String(r[i] ?? '').length + 2),
          Math.max(NARROWEST, String(h).length + 2),
        ),
    ),
  }));
  return writeWorkbook(
    [
      head.map((h) => ({ value: String(h), fontWeight: 'bold' as const })),
      ...body.map((r) => r.map(written)),
    ],
    { sheet, columns, stickyRowsCount: 1 },
  ).toBlob();
}

function written(cell: Cell) {
  if (cell === '') return null;
  if (typeof cell === 'number') return { value: cell, type: Number };
  if (/^\d{4}-\d{2}-\d{2}$/.test(cell))
    return { value: new Date(`${cell}T00:00:00Z`), type: Date, format: 'yyyy-mm-dd' };
  return { value: cell, type: String };
}
