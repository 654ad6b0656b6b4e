import Papa from 'papaparse';
import { headingAt, type Rows } from '@core/intake/claims-form';
import type { Registry } from '@core/facts/observable';
import { nth } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import type { TableTrouble } from './claims.protocol';
import { LIMITS } from './unpack';
import { readTablesOfWorkbook } from './workbook';

/** Signs of a text that are parted at a time: what is read of them may be forgotten before the next come. */
const PIECE = 1 << 18;

/**
 * Reads a table of text or a workbook and hands its rows on, piece by piece; their number. Of several sheets the one whose
 * heading says most is taken.
 */
export async function readTable(
  name: string,
  blob: Blob,
  registry: Registry,
  take: (rows: Rows) => void,
): Promise<Result<number, TableTrouble>> {
  if (blob.size > LIMITS.fileBytes)
    return err({ code: 'file_too_large', name, bytes: blob.size, most: LIMITS.fileBytes });
  const bytes = new Uint8Array(await blob.arrayBuffer());
  let count = 0;
  const most = LIMITS.rowsOfTable;
  const taken = (rows: Rows) => {
    count += rows.length;
    if (count <= most) take(rows);
  };
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) readRows(textOf(bytes), taken);
  else {
    const sheets = await readTablesOfWorkbook(name, bytes);
    if (!sheets.ok) return sheets;
    taken(
      fullest(
        sheets.value.map((s) => s.rows),
        registry,
      ),
    );
  }
  if (count > most) return err({ code: 'too_many_rows', name, rows: count, most });
  return ok(count);
}

function fullest(sheets: readonly Rows[], registry: Registry): Rows {
  const says = (rows: Rows) => (rows[headingAt(rows, registry)] ?? []).filter((c) => c !== '').length;
  return sheets.reduce<Rows>((a, b) => (says(b) > says(a) ? b : a), []);
}

/** Rows of a text, piece by piece; what parts the cells is found out. Empty lines stay, so that each row keeps its number. */
export function readRows(text: string, take: (rows: string[][]) => void): void {
  Papa.parse<string[]>(text, {
    delimiter: partingOf(text),
    chunkSize: PIECE,
    worker: false,
    chunk: ({ data }: Papa.ParseResult<string[]>) => {
      for (const row of data) bareCells(row);
      take(data);
    },
    complete: () => undefined,
  });
}

/** Signs that part cells, and lines that tell which. */
const PARTING = [';', '\t', '|', ','];
const TOLD_BY = 60;
/**
 * What parts the cells: the sign that stands the same number of times in most of the first lines. A title above the heading
 * and decimal commas must not mislead.
 */
export function partingOf(text: string): string {
  const lines = text
    .slice(0, PIECE)
    .replace(/"(?:[^"]|"")*"/g, '')
    .split(/\r?\n/, TOLD_BY)
    .filter((l) => l.trim() !== '');
  let best = { sign: ',', lines: 0, times: 0 };
  for (const sign of PARTING) {
    const counts = new Map<number, number>();
    for (const l of lines) {
      const n = l.split(sign).length - 1;
      if (n > 0) counts.set(n, (counts.get(n) ?? 0) + 1);
    }
    for (const [times, of] of counts)
      if (of > best.lines || (of === best.lines && times > best.times)) best = { sign, lines: of, times };
  }
  return best.sign;
}

/** Most cells have nothing around them, and looking is cheaper than trimming. */
function bareCells(row: string[]): void {
  for (let i = 0; i < row.length; i++) {
    const cell = nth(row, i);
    const first = cell.charCodeAt(0);
    const last = cell.charCodeAt(cell.length - 1);
    if (first <= 32 || last <= 32 || first === 0xa0 || last === 0xa0) row[i] = cell.trim();
    // An apostrophe before what a spreadsheet would take for a formula was put there when it was written.
    else if (first === 39 && /^'[=+\-@\t\r]/.test(cell)) row[i] = cell.slice(1);
  }
}

/** Texts of systems that are older than the encoding that everybody writes today. */
function textOf(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
