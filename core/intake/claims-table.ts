import type { NewFact } from '@core/facts/change';
import { type Observable, optionsOf, type Registry } from '@core/facts/observable';
import { readValue, type ReadContext, type ReadError, type ReadValue } from '@core/facts/read-value';
import { nth } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import { toBase } from '@core/quantity/units';
import { type Cell, CLAIM_NUMBER, columnName, CURRENCY, type ReadsAs, type Rows } from './claims-form';
import { type ClaimsForm } from './kept-form';

export type CellError =
  | ReadError
  /** One sign with three digits behind it: thousands, or a fraction. */
  | { code: 'either_sign'; typed: string }
  /** Not written with the decimal sign of its table. */
  | { code: 'wrong_sign'; typed: string; sign: '.' | ',' }
  | { code: 'other_currency'; typed: string; own: string };
/** A cell that could not be read: what stands in it goes into the note of its case. */
export type CellProblem = { column: number; why: CellError };
/** Why a row is no claim to be opened. */
export type Stopped = { code: 'no_claim' } | { code: 'twice'; first: number };
export type ClaimRow = {
  /** Number of the row in its table, the first being 1. */
  no: number;
  claim: string;
  problems?: CellProblem[];
  stopped?: Stopped;
};

/** The money that this program counts in. */
const OWN_CURRENCY = 'AC';
/** Columns of which a row is told in a few words, and signs of them. */
const TELLING = ['call.who', 'kit.number', 'engine.code', 'vehicle.name', 'complaint'];
/** Texts of a column that are kept read: most of them stand there many times. */
const MOST_KEPT = 20_000;

type Read = Result<ReadValue, CellError>;
type ColumnReader = {
  column: number;
  observable: Observable;
  read: (cell: Cell) => Read;
  /** True where it is plain at a look that the cell can be read. */
  plain: (cell: Cell) => boolean;
};

/** `gaps`: some of its cells could not be read; `stopped`: it is no claim, or stands above; `here`: a case has its claim. */
export type RowState = 'ready' | 'gaps' | 'stopped' | 'here';
/** @param here case that has the claim of the row */
export function rowState(row: ClaimRow, here: string | undefined): RowState {
  if (here !== undefined) return 'here';
  if (row.stopped) return 'stopped';
  return row.problems ? 'gaps' : 'ready';
}

export type ClaimsReader = {
  /** Takes the next rows of the table. */
  push: (rows: Rows) => void;
  readonly rows: ClaimRow[];
  /** What each row says in a few words, a line a row: as one text a piece, since a text a row would be kept with all that it was cut from. */
  readonly says: string[];
  /** Of each column, the cells that were read, and those that could not be. */
  readonly columns: { read: number; refused: number }[];
};

/**
 * Reads a table of claims as it comes, piece by piece. A cell that cannot be read is told and left; a row without a claim, or
 * whose claim stands above, is stopped. Rows up to the heading are passed over.
 * @param at place of the heading among all rows
 */
export function claimsReader(
  at: number,
  form: ClaimsForm,
  registry: Registry,
  ctx: ReadContext,
): ClaimsReader {
  const readers = readersOf(form, registry, ctx);
  const numbered = form.columns.indexOf(CLAIM_NUMBER);
  const currency = form.columns.indexOf(CURRENCY);
  const told = TELLING.map((key) => form.columns.indexOf(key)).filter((i) => i >= 0);
  const seen = new Map<string, number>();
  const rows: ClaimRow[] = [];
  const says: string[] = [];
  let words: string[] = [];
  const columns = form.columns.map(() => ({ read: 0, refused: 0 }));
  let no = 0;

  const begin = (cells: readonly Cell[]): ClaimRow => {
    const claim = textOf(cells[numbered]);
    const row: ClaimRow = { no, claim };
    const name = claim.toUpperCase();
    const first = seen.get(name);
    if (claim === '') row.stopped = { code: 'no_claim' };
    else if (first !== undefined) row.stopped = { code: 'twice', first };
    else seen.set(name, no);
    say(cells, told, words);
    return row;
  };
  // Column by column: cells of one sort after the other are read far quicker than row by row.
  const push = (more: Rows) => {
    const cells: (readonly Cell[])[] = [];
    const begun: ClaimRow[] = [];
    for (const row of more) {
      if (++no <= at + 1 || row.every((c) => c === '')) continue;
      cells.push(row);
      begun.push(begin(row));
    }
    for (const r of readers) readColumn(r, cells, begun, currency, nth(columns, r.column));
    for (const row of begun) rows.push(row);
    if (words.length > 0) says.push(words.join(''));
    words = [];
  };
  return { push, rows, says, columns };
}

function readColumn(
  { column, observable, plain, read }: ColumnReader,
  cells: Rows,
  rows: readonly ClaimRow[],
  currency: number,
  count: { read: number; refused: number },
): void {
  const money = currency >= 0 && isMoney(observable);
  for (let i = 0; i < cells.length; i++) {
    const row = nth(cells, i);
    const cell = row[column];
    if (cell === undefined || cell === '') continue;
    const foreign = money && isForeign(textOf(row[currency]));
    const why = foreign ? foreignTo(row[currency]) : plain(cell) ? undefined : faultOf(read(cell));
    if (why) {
      (nth(rows, i).problems ??= []).push({ column, why });
      count.refused++;
    } else count.read++;
  }
}

/**
 * The facts of one row. What stands in columns that mean nothing here, and in cells that could not be read, is kept in the
 * note of the claim's number, so that nothing of the row is lost.
 * @param from name of the table
 */
export function factsOfRow(
  cells: readonly Cell[],
  no: number,
  from: string,
  head: readonly string[],
  form: ClaimsForm,
  registry: Registry,
  ctx: ReadContext,
): NewFact[] {
  const out: NewFact[] = [{ key: 'case.kind', value: 'claim', how: 'decided' }];
  const left: string[] = [];
  const readers = new Map(readersOf(form, registry, ctx).map((r) => [r.column, r]));
  const currency = form.columns.indexOf(CURRENCY);
  const foreign = currency >= 0 && isForeign(textOf(cells[currency]));
  for (const [column, cell] of cells.entries()) {
    if (cell === '') continue;
    const r = readers.get(column);
    const read = r && !(foreign && isMoney(r.observable)) ? r.read(cell) : undefined;
    if (r && read?.ok) {
      const { value, u } = read.value;
      out.push({ key: r.observable.key, value, how: r.observable.how, ...(u === undefined ? {} : { u }) });
    } else if (column !== currency || foreign) left.push(`${columnName(head, column)}: ${textOf(cell)}`);
  }
  const note = noteOf([`Row ${no} of ${from}.`, ...left]);
  return out.map((f) => (f.key === CLAIM_NUMBER ? { ...f, note } : f));
}
const MOST_NOTE = 4500;
/** A note that says so where not all of it has room. */
function noteOf(lines: readonly string[]): string {
  const all = lines.join('\n');
  if (all.length <= MOST_NOTE) return all;
  return `${all.slice(0, MOST_NOTE)}…\n${all.length - MOST_NOTE} more signs of this row have no room here; they stand in the table.`;
}

/** Cells come without blanks around them. */
const textOf = (cell: Cell | undefined): string =>
  typeof cell === 'string' ? cell : cell === undefined ? '' : String(cell);
const faultOf = (read: Read): CellError | undefined => (read.ok ? undefined : read.error);
const isMoney = (o: Observable): boolean => o.type.kind === 'number' && o.type.dimension === 'money';
const isForeign = (said: string): boolean => said !== '' && said.toUpperCase() !== OWN_CURRENCY;
const foreignTo = (cell: Cell | undefined): CellError => ({
  code: 'other_currency',
  typed: textOf(cell),
  own: OWN_CURRENCY,
});

function say(cells: readonly Cell[], told: readonly number[], into: string[]): void {
  let first = true;
  for (const i of told) {
    const text = textOf(cells[i]);
    if (text === '') continue;
    into.push(first ? '' : ' · ', text.includes('\n') ? text.replace(/\s*\n\s*/g, ' ') : text);
    first = false;
  }
  into.push('\n');
}

function readersOf(form: ClaimsForm, registry: Registry, ctx: ReadContext): ColumnReader[] {
  const own: ReadContext = {
    ...ctx,
    notation: { ...ctx.notation, dateOrder: form.dateOrder, units: { distance: form.distance } },
  };
  return form.columns.flatMap((key, column) => {
    const observable = registry.get(key);
    if (!observable) return [];
    const read = readerOf(observable, form, own);
    return [{ column, observable, read, plain: plainOf(observable, form, read) }];
  });
}

/** Tells what part of some cells can be read as an observable, in whatever order their days stand. */
export const readsAs =
  (registry: Registry, ctx: ReadContext): ReadsAs =>
  (key, cells) => {
    const o = registry.get(key);
    if (!o || cells.length === 0) return 1;
    const orders = o.type.kind === 'date' ? (['dmy', 'mdy', 'ymd'] as const) : (['dmy'] as const);
    const shares = orders.map((dateOrder) => {
      const form: ClaimsForm = { columns: [], dateOrder, decimal: '', distance: 'km' };
      const own = { ...ctx, notation: { ...ctx.notation, dateOrder, units: {} } };
      const read = readerOf(o, form, own);
      const good = (c: Cell) => {
        const r = read(c);
        return r.ok || r.error.code === 'either_sign';
      };
      return cells.filter(good).length / cells.length;
    });
    return Math.max(...shares);
  };

/** Signs of a text that surely fit on its line. */
const SHORT = 120;

/** What most cells of a column are, seen without reading them. */
function plainOf(o: Observable, form: ClaimsForm, read: ColumnReader['read']): ColumnReader['plain'] {
  const t = o.type;
  if (t.kind === 'text') return (cell) => typeof cell === 'string' && cell.length <= SHORT;
  if (t.kind === 'number') {
    const scale = toBase(t.dimension, 1, unitOf(t, form));
    const sign = t.dimension === 'distance' ? '' : form.decimal;
    return (cell) => {
      const value = scale * (typeof cell === 'number' ? cell : bareFigure(cell, sign, unitOf(t, form)));
      return value >= t.min && value <= t.max;
    };
  }
  // Days, choices and numbers of a catalogue stand there many times: each text is read once.
  const known = new Map<Cell, boolean>();
  return (cell) => {
    const before = known.get(cell);
    if (before !== undefined) return before;
    const good = read(cell).ok;
    if (known.size < MOST_KEPT) known.set(cell, good);
    return good;
  };
}

const [ZERO, NINE] = [48, 57];
/** Digits with at most one decimal sign, and the unit behind them or none; anything else is no number here. */
function bareFigure(text: string, decimal: ClaimsForm['decimal'], unit: string): number {
  let [value, scale, i] = [0, 0, 0];
  for (; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c >= ZERO && c <= NINE) {
      value = 10 * value + c - ZERO;
      scale *= 10;
    } else if (scale === 0 && i > 0 && text[i] === decimal) scale = 1;
    else break;
  }
  if (i === 0 || i > MOST_DIGITS || (i < text.length && text.slice(i).trim() !== unit)) return NaN;
  return scale === 0 ? value : value / scale;
}
const MOST_DIGITS = 14;

const unitOf = (t: { dimension: string; unit: string }, form: ClaimsForm): string =>
  t.dimension === 'distance' ? form.distance : t.unit;

/** Reads the cells of one column. */
function readerOf(o: Observable, form: ClaimsForm, ctx: ReadContext): ColumnReader['read'] {
  const read = (text: string): Read => readValue(o, text, ctx);
  const t = o.type;
  return (cell) => {
    if (t.kind === 'number')
      return typeof cell === 'number'
        ? inOwnUnit(o, cell, form, read)
        : figure(cell, form.decimal, t.dimension === 'distance', read);
    const text = textOf(cell);
    if (t.kind === 'choice') return read(yesOrNo(o, text));
    return read(t.kind === 'date' ? withoutTime(text) : text);
  };
}

/** A number of a workbook: it has no sign that could be misread. */
function inOwnUnit(o: Observable, n: number, form: ClaimsForm, read: (text: string) => Read): Read {
  if (o.type.kind !== 'number') return read(String(n));
  const { dimension, min, max, u } = o.type;
  const value = toBase(dimension, n, unitOf(o.type, form));
  // What is out of range is refused in the words of what was typed; in its own unit every figure is one that can be read.
  if (!(value >= min && value <= max)) return read(n.toFixed(4).replace(/\.?0+$/, ''));
  return ok(u === undefined ? { value } : { value, u });
}

const FIGURE = /^([-+−]?)([\d.,\s\u00a0\u202f’']*\d)(.*)$/s;
const GROUPED: Record<'.' | ',', RegExp> = {
  '.': /^\d{1,3}(?:,\d{3})+(?:\.\d+)?$|^\d+(?:\.\d+)?$|^\.\d+$/,
  ',': /^\d{1,3}(?:\.\d{3})+(?:,\d+)?$|^\d+(?:,\d+)?$|^,\d+$/,
};
/** A figure of a text, its decimal sign being known for the table; where it is not, one that could be two figures is refused. */
function figure(
  text: string,
  decimal: ClaimsForm['decimal'],
  whole: boolean,
  read: (text: string) => Read,
): Read {
  const typed = text.trim();
  const m = FIGURE.exec(typed);
  if (!m) return read(typed);
  const [, sign = '', digits = '', rest = ''] = m;
  const bare = digits.replace(/[\s\u00a0\u202f’']/g, '');
  if (decimal === '') {
    const either = !whole && /^[1-9]\d{0,2}[.,]\d{3}$/.test(bare);
    return either ? err({ code: 'either_sign', typed }) : read(typed);
  }
  if (!GROUPED[decimal].test(bare)) return err({ code: 'wrong_sign', typed, sign: decimal });
  const plain = decimal === '.' ? bare.replaceAll(',', '') : bare.replaceAll('.', '').replace(',', '.');
  return read(`${sign}${plain}${rest}`);
}

/** A day with a time behind it, as workbooks and systems write it. */
const withoutTime = (text: string): string => text.replace(/[T ]\d{1,2}:\d{2}(?::\d{2}(?:\.\d+)?)?Z?$/, '');

const YES = /^(?:y|yes|true|1|x|ja|oui)$/i;
const NO = /^(?:n|no|false|0|nein|non)$/i;
/** Columns with yes and no in them, for what is answered by one of two. */
function yesOrNo(o: Observable, text: string): string {
  const word = YES.test(text) ? 'yes' : NO.test(text) ? 'no' : text;
  return optionsOf(o).some((x) => x.key === word) ? word : text;
}
