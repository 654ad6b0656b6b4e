import Papa from 'papaparse';
import type { Pack } from '@core/catalogue/pack';
import { type PackIssue, type TableName, TABLES } from '@core/catalogue/pack-issue';
import {
  packFromTables,
  type PackHead,
  type PackReading,
  readPackHead,
  readPackJson,
} from '@core/catalogue/read-pack';
import { type NamedAs, type NamedColumns, type TableReader, tableReader } from '@core/catalogue/tables';
import { own } from '@core/quantity/own';
import type { ImportProgress } from './pack-import.protocol';
import { LIMITS, type NamedText } from './unpack';
import type { WorkbookSheet } from './workbook';

const EVERY = 5000;

/** Parses CSV text into a reader, record by record, with true line numbers also where cells hold line breaks. */
export function readTableText(
  table: TableName,
  text: string,
  tick: (done: number) => void = () => undefined,
  most = LIMITS.rowsOfTable,
  named: NamedColumns = {},
): TableReader {
  const reader = tableReader(table, named);
  let line = 1;
  let count = 0;
  // Without a quote in the file no cell can hold a line break.
  const quoted = text.includes('"');
  Papa.parse<string[]>(text, {
    skipEmptyLines: false,
    step: ({ data, meta }, parser) => {
      if (count > most) {
        reader.issues.push({ row: line, column: '', reason: { code: 'too_many_rows', most } });
        parser.abort();
        return;
      }
      if (data.length > 1 || (data[0] ?? '').trim() !== '') reader.push(data, line);
      line++;
      if (quoted) for (const cell of data) if (cell.includes('\n')) line += cell.split('\n').length - 1;
      if (++count % EVERY === 0) tick(meta.cursor);
    },
  });
  return reader;
}

/** The same of a sheet of a workbook, where each line is a row. */
function readSheet(table: TableName, rows: WorkbookSheet['rows'], named: NamedColumns): TableReader {
  const reader = tableReader(table, named);
  const most = LIMITS.rowsOfTable;
  for (const [i, row] of rows.entries()) {
    if (i > most) {
      reader.issues.push({ row: i + 1, column: '', reason: { code: 'too_many_rows', most } });
      break;
    }
    const cells = row.map(String);
    if (cells.some((c) => c.trim() !== '')) reader.push(cells, i + 1);
  }
  return reader;
}

/** What came in to make a catalogue of, and what its tables and columns are called in it. */
export type PackFiles = { texts: readonly NamedText[]; sheets?: readonly WorkbookSheet[] };
const AS_HERE: NamedAs = { tables: {}, columns: {} };

/** A reading with the tables that are called nothing that is known here. */
export type FilesReading = PackReading & { unread: string[] };

/** A pack from files: one JSON pack, or tables of text or of workbooks with an optional pack.json. */
export function readPackFiles(
  { texts, sheets = [] }: PackFiles,
  base: Pack | undefined,
  progress: (p: ImportProgress) => void,
  as: NamedAs = AS_HERE,
): FilesReading {
  const total = texts.reduce((s, t) => s + t.text.length, 0);
  const issues: PackIssue[] = [];
  const unread: string[] = [];
  const readers: Partial<Record<TableName, TableReader>> = {};
  let head: PackHead | undefined;
  let done = 0;
  const tableOf = (name: string): TableName | '' | undefined =>
    own(as.tables, name) ?? TABLES.find((t) => t === name);
  const refuse = (name: string, shown: string) => {
    unread.push(name);
    const detail = `${shown} is no table of a catalogue. Tables are ${TABLES.join(', ')}.`;
    issues.push({ table: 'pack', row: 1, column: shown, reason: { code: 'bad_shape', detail } });
  };
  for (const { name, text } of texts) {
    const stem = name.toLowerCase().replace(/\.(csv|json|txt|tsv)$/, '');
    const table = tableOf(stem);
    const json = name.toLowerCase().endsWith('.json');
    if (stem === 'pack') {
      const read = readPackHead(text);
      head = read.head;
      issues.push(...read.issues);
    } else if (json) return { ...readPackJson(text), unread: [] };
    else if (table === undefined) refuse(stem, name);
    else if (table !== '')
      readers[table] = readTableText(
        table,
        text,
        (at) => progress({ step: name, done: done + at, total }),
        LIMITS.rowsOfTable,
        as.columns[table],
      );
    done += text.length;
    progress({ step: name, done, total });
  }
  for (const { sheet, rows } of sheets) {
    const name = sheet.trim().toLowerCase();
    const table = tableOf(name);
    if (table === undefined) refuse(name, sheet);
    else if (table !== '') readers[table] = readSheet(table, rows, as.columns[table] ?? {});
  }
  if (issues.length) return { issues, unread };
  progress({ step: 'checking', done: total, total });
  return { ...packFromTables(head, readers, base), unread };
}
