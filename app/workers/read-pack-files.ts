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
import { type TableReader, tableReader } from '@core/catalogue/tables';
import type { ImportProgress } from './pack-import.protocol';
import { LIMITS, type NamedText } from './unpack';

const EVERY = 5000;

/** Parses CSV text into a reader, record by record, with true line numbers also where cells hold line breaks. */
export function readTableText(
  table: TableName,
  text: string,
  tick: (done: number) => void = () => undefined,
  most = LIMITS.rowsOfTable,
): TableReader {
  const reader = tableReader(table);
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

/** A pack from files: one JSON pack, or CSV tables with an optional pack.json. */
export function readPackFiles(
  texts: readonly NamedText[],
  base: Pack | undefined,
  progress: (p: ImportProgress) => void,
): PackReading {
  const total = texts.reduce((s, t) => s + t.text.length, 0);
  const issues: PackIssue[] = [];
  const readers: Partial<Record<TableName, TableReader>> = {};
  let head: PackHead | undefined;
  let done = 0;
  for (const { name, text } of texts) {
    const stem = name.toLowerCase().replace(/\.(csv|json)$/, '');
    const table = TABLES.find((t) => t === stem);
    if (name.toLowerCase().endsWith('.csv') && table) {
      readers[table] = readTableText(table, text, (at) => progress({ step: name, done: done + at, total }));
    } else if (stem === 'pack') {
      const read = readPackHead(text);
      head = read.head;
      issues.push(...read.issues);
    } else if (name.toLowerCase().endsWith('.json')) {
      return readPackJson(text);
    } else {
      issues.push({
        table: 'pack',
        row: 1,
        column: name,
        reason: {
          code: 'bad_shape',
          detail: `${name} is no table of a catalogue. Tables are ${TABLES.join(', ')}.`,
        },
      });
    }
    done += text.length;
    progress({ step: name, done, total });
  }
  if (issues.length) return { issues };
  progress({ step: 'checking', done: total, total });
  return packFromTables(head, readers, base);
}
