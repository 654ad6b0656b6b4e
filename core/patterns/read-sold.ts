import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { type DateOrder, parseDay } from '@core/quantity/dates';
import { readNumber } from '@core/quantity/parse-quantity';
import headings from './data/headings.json';
import { lotKey, type Return, type SoldRow } from './population';

/** What a column of a table of sales can be. */
export const SOLD_COLUMNS = ['kit', 'lot', 'month', 'market', 'sold', 'made'] as const;
export type SoldColumn = (typeof SOLD_COLUMNS)[number];
/** Which column of a table each is; `market` and `made` may be missing. */
export type SoldForm = Partial<Record<SoldColumn, number>>;
export const SoldFormSchema: z.ZodType<SoldForm> = z.partialRecord(
  z.enum(SOLD_COLUMNS),
  z.number().int().min(0).max(500),
);
const NEEDED: readonly SoldColumn[] = ['kit', 'lot', 'month', 'sold'];
const NAMES = z.record(z.enum(SOLD_COLUMNS), z.array(z.string())).parse(headings);

export type SoldFault =
  | { row: number; code: 'empty'; column: SoldColumn }
  | { row: number; code: 'bad_month' | 'bad_day' | 'bad_count'; column: SoldColumn; text: string }
  | { row: number; code: 'negative'; text: string }
  | { row: number; code: 'before_made'; month: string; made: string }
  | { row: number; code: 'later'; month: string }
  | { row: number; code: 'twice'; first: number };
export type SoldTable = {
  head: string[];
  form: SoldForm;
  /** Columns that are needed and were not found. */
  lacking: SoldColumn[];
  rows: SoldRow[];
  faults: SoldFault[];
};
type Cell = string | number;
const text = (c: Cell | undefined): string => (c === undefined ? '' : String(c).trim());

/** Which column each is, by its heading; a form that was kept for these headings goes before. */
export function guessSold(head: readonly string[], kept?: SoldForm): SoldForm {
  if (kept && Object.values(kept).every((i) => i < head.length)) return kept;
  const plain = head.map((h) =>
    h
      .toLowerCase()
      .replace(/[^a-z]+/g, ' ')
      .trim(),
  );
  const form: SoldForm = {};
  for (const column of SOLD_COLUMNS) {
    const taken = new Set(Object.values(form));
    const at = [
      (h: string) => NAMES[column].includes(h),
      (h: string) => NAMES[column].some((n) => ` ${h} `.includes(` ${n} `)),
    ]
      .map((fits) => plain.findIndex((h, i) => !taken.has(i) && fits(h)))
      .find((i) => i >= 0);
    if (at !== undefined) form[column] = at;
  }
  return form;
}

/**
 * Reads a table of sales, the heading in its first row. Every row that cannot be taken is named with its reason; none is taken in
 * part. Row numbers are those of the table, its heading being row 1.
 * @param today nothing was sold later
 * @param order in which days are written where it cannot be seen
 */
export function readSold(
  table: readonly (readonly Cell[])[],
  today: string,
  order: DateOrder,
  kept?: SoldForm,
): SoldTable {
  const head = (table[0] ?? []).map(text);
  const form = guessSold(head, kept);
  const lacking = NEEDED.filter((c) => form[c] === undefined);
  const out: SoldTable = { head, form, lacking, rows: [], faults: [] };
  if (lacking.length > 0) return out;
  const first = new Map<string, number>();
  table.slice(1).forEach((cells, i) => {
    if (cells.every((c) => text(c) === '')) return;
    const row = i + 2;
    const read = readRow(cells, form, row, today, order);
    if ('code' in read) {
      out.faults.push(read);
      return;
    }
    const key = `${lotKey(read.kit, read.lot)} ${read.month} ${read.market.toUpperCase()}`;
    const before = first.get(key);
    if (before !== undefined) out.faults.push({ row, code: 'twice', first: before });
    else {
      first.set(key, row);
      out.rows.push(read);
    }
  });
  return out;
}

function readRow(
  cells: readonly Cell[],
  form: SoldForm,
  row: number,
  today: string,
  order: DateOrder,
): SoldRow | SoldFault {
  const at = (c: SoldColumn) => text(form[c] === undefined ? undefined : cells[form[c]]);
  for (const column of NEEDED) if (at(column) === '') return { row, code: 'empty', column };
  const month = readDay(at('month'), order, today)?.slice(0, 7);
  if (month === undefined) return { row, code: 'bad_month', column: 'month', text: at('month') };
  if (month > today.slice(0, 7)) return { row, code: 'later', month };
  const sold = readCount(at('sold'));
  if (sold === undefined) return { row, code: 'bad_count', column: 'sold', text: at('sold') };
  if (sold < 0) return { row, code: 'negative', text: at('sold') };
  const made = at('made') === '' ? undefined : readDay(at('made'), order, today);
  if (at('made') !== '' && made === undefined)
    return { row, code: 'bad_day', column: 'made', text: at('made') };
  if (made !== undefined && month < made.slice(0, 7)) return { row, code: 'before_made', month, made };
  return {
    kit: at('kit'),
    lot: at('lot'),
    month,
    market: at('market'),
    sold,
    ...(made === undefined ? {} : { made }),
  };
}

function readDay(t: string, order: DateOrder, today: string): string | undefined {
  const day = parseDay(t, order, today);
  return day.ok ? day.value : undefined;
}

/** A whole number, its thousands parted or not. */
function readCount(t: string): number | undefined {
  const n = readNumber(t, true);
  return n === undefined || !Number.isInteger(n) ? undefined : n;
}

/** What does not agree between what was sold and what came back. */
export type SoldClash =
  | { code: 'more_back'; kit: string; lot: string; sold: number; back: number }
  | { code: 'unknown_lot'; kit: string; lot: string; tags: string[] };

/** Lots of which more came back than were sold, and lots of returns that nothing was sold of; returns without a lot are no clash. */
export function clashes(sold: readonly SoldRow[], returns: readonly Return[]): SoldClash[] {
  const lots = new Map<string, { kit: string; lot: string; sold: number }>();
  for (const r of sold) {
    const key = lotKey(r.kit, r.lot);
    const known = lots.get(key);
    if (known) known.sold += r.sold;
    else lots.set(key, { kit: r.kit, lot: r.lot, sold: r.sold });
  }
  const back = new Map<string, Return[]>();
  for (const r of returns)
    if (r.lot !== '') {
      const key = lotKey(r.kit, r.lot);
      const list = back.get(key);
      if (list) list.push(r);
      else back.set(key, [r]);
    }
  return [...back].flatMap(([key, all]): SoldClash[] => {
    const lot = lots.get(key);
    const one = all[0];
    if (!lot)
      return one ? [{ code: 'unknown_lot', kit: one.kit, lot: one.lot, tags: all.map((r) => r.tag) }] : [];
    return all.length > lot.sold ? [{ code: 'more_back', ...lot, back: all.length }] : [];
  });
}
