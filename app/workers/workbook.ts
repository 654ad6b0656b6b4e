import { zipSync } from 'fflate';
import readWorkbook from 'read-excel-file/universal';
import writeWorkbook from 'write-excel-file/universal';
import type { Cell } from '@core/intake/claims-form';
import { type Result, err, ok } from '@core/quantity/result';
import type { TableTrouble } from './claims.protocol';
import { unzip } from './unpack';

/** One sheet of a workbook, heading first. */
export type WorkbookSheet = { sheet: string; rows: Cell[][] };

/**
 * The tables of a workbook. It is unpacked within the limits of everything that is unpacked here, and handed on unpressed: what
 * reads it would start threads from texts otherwise, which the page does not allow.
 */
export async function readTablesOfWorkbook(
  name: string,
  bytes: Uint8Array,
): Promise<Result<WorkbookSheet[], TableTrouble>> {
  const unpacked = unzip(name, bytes);
  if (!unpacked.ok) return unpacked;
  const parts = Object.fromEntries(unpacked.value.map((e) => [e.name, e.bytes]));
  const plain = zipSync(parts, { level: 0 });
  try {
    const sheets = await readWorkbook(new Blob([plain]), { trim: true });
    return ok(sheets.map((s) => ({ sheet: s.sheet, rows: s.data.map((row) => row.map(cellOf)) })));
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

/** Tables as a workbook, a sheet each: its heading bold and staying in sight, texts never taken for formulas, days as days. */
export async function writeTablesAsWorkbook(
  sheets: readonly { sheet: string; rows: readonly (readonly Cell[])[] }[],
): Promise<Blob> {
  return writeWorkbook(
    sheets.map(({ sheet, rows }) => {
      const [head = [], ...body] = rows;
      return {
        sheet,
        stickyRowsCount: 1,
        columns: head.map((_, i) => ({ width: widthOf(rows, i) })),
        data: [
          head.map((h) => ({ value: String(h), fontWeight: 'bold' as const })),
          ...body.map((r) => r.map(written)),
        ],
      };
    }),
  ).toBlob();
}

function widthOf(rows: readonly (readonly Cell[])[], column: number): number {
  const signs = rows.slice(0, LOOKED_AT).map((r) => String(r[column] ?? '').length + 2);
  return Math.min(WIDEST, Math.max(NARROWEST, ...signs));
}

function written(cell: Cell) {
  if (cell === '') return null;
  if (typeof cell === 'number') return { value: cell, type: Number };
  if (/^\d{4}-\d{2}-\d{2}$/.test(cell))
    return { value: new Date(`${cell}T00:00:00Z`), type: Date, format: 'yyyy-mm-dd' };
  return { value: cell, type: String };
}
