import { nth, num } from '@core/quantity/must';
import { own } from '@core/quantity/own';
import type { IssueReason, TableName } from './pack-issue';
import { asText, Bad, COLUMNS, EMPTY } from './table-columns';

export type TableReader = {
  /** Reads the next record; the header is the first. @param line line on which it starts */
  push: (cells: readonly string[], line: number) => void;
  readonly rows: Record<string, unknown>[];
  /** Line of each row, for later checks. */
  readonly lines: number[];
  /** First cells of records that were not taken, so that what refers to them is not reported as well. */
  readonly refused: Set<string>;
  readonly issues: { row: number; column: string; reason: IssueReason }[];
};

/** Headings of a file, in small letters, by what the column is called here; '' leaves it out. */
export type NamedColumns = Readonly<Record<string, string>>;
/** What tables and columns are called in the files of a house. */
export type NamedAs = {
  /** By the name of a file without its ending, or of a sheet, in small letters; '' leaves it out. */
  tables: Readonly<Record<string, TableName | ''>>;
  columns: Readonly<Partial<Record<TableName, NamedColumns>>>;
};
/** A heading without what stands around it. */
const headingText = (cell: string): string =>
  cell
    .trim()
    .replace(/^\ufeff/, '')
    .toLowerCase();
/** "Built from" and "Terms, km" are the columns that the screen calls so. */
const asColumn = (heading: string): string => heading.replace(/[\s,_]+/g, '_');

/** Reads one table record by record. A record with any bad cell is reported, cell by cell, and not taken. */
export function tableReader(table: TableName, named: NamedColumns = {}): TableReader {
  const columns = COLUMNS[table];
  let order: number[] | undefined;
  const rows: Record<string, unknown>[] = [];
  const lines: number[] = [];
  const refused = new Set<string>();
  const issues: TableReader['issues'] = [];

  const header = (cells: readonly string[], line: number) => {
    const names = cells.map((c) => {
      const heading = headingText(c);
      return own(named, heading) ?? asColumn(heading);
    });
    names.forEach((n, i) => {
      const said = headingText(cells[i] ?? '');
      if (n !== '' && !columns.some((c) => c.name === n))
        issues.push({ row: line, column: said, reason: { code: 'unknown_column', column: said } });
    });
    order = columns.map((c) => names.indexOf(c.name));
    for (const [i, c] of columns.entries()) {
      if (order[i] === -1 && !c.optional)
        issues.push({ row: line, column: c.name, reason: { code: 'missing_column', column: c.name } });
    }
  };

  const push = (cells: readonly string[], line: number) => {
    if (order === undefined) {
      header(cells, line);
      return;
    }
    const row: Record<string, unknown> = {};
    let good = true;
    for (let i = 0; i < columns.length; i++) {
      const c = nth(columns, i);
      const cell = num(order, i) < 0 ? '' : bare(cells[num(order, i)]);
      if (cell === '') {
        if (c.optional) {
          const make = EMPTY[c.field];
          if (make) row[c.field] = make();
        } else {
          issues.push({ row: line, column: c.name, reason: { code: 'empty' } });
          good = false;
        }
        continue;
      }
      if (c.read === asText && !c.field.includes('.')) {
        row[c.field] = cell;
        continue;
      }
      const value = c.read(cell);
      if (value instanceof Bad) {
        issues.push({ row: line, column: c.name, reason: value.reason });
        good = false;
      } else put(row, c.field, value);
    }
    if (good) {
      rows.push(row);
      lines.push(line);
    } else refused.add((cells[num(order, 0)] ?? '').trim());
  };
  return { push, rows, lines, refused, issues };
}

/** A cell without blanks around it; most have none, and looking is cheaper than trimming. */
function bare(cell: string | undefined): string {
  if (cell === undefined || cell === '') return '';
  // An apostrophe before what a spreadsheet would take for a formula was put there when it was written.
  if (cell.charCodeAt(0) === 39 && /^'[=+\-@\t\r]/.test(cell)) return cell.slice(1).trim();
  return cell.charCodeAt(0) <= 32 || cell.charCodeAt(cell.length - 1) <= 32 ? cell.trim() : cell;
}

function put(row: Record<string, unknown>, field: string, value: unknown): void {
  const dot = field.indexOf('.');
  if (dot < 0) row[field] = value;
  else {
    const outer = field.slice(0, dot);
    const inner = (row[outer] ??= {}) as Record<string, unknown>;
    inner[field.slice(dot + 1)] = value;
  }
}

/** A table as records of cells, header first: what {@link tableReader} reads back to the same rows. */
export function tableCells(table: TableName, rows: readonly object[]): (string | number)[][] {
  const columns = COLUMNS[table];
  return [
    columns.map((c) => c.name),
    ...rows.map((row) =>
      columns.map((c) => {
        const value = c.field
          .split('.')
          .reduce<unknown>((v, k) => (v as Record<string, unknown> | undefined)?.[k], row);
        if (value === undefined) return '';
        return c.write ? c.write(value as never) : (value as string);
      }),
    ),
  ];
}
