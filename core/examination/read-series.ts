import { nth } from '@core/quantity/must';
import { asStructured, type StructuredAs } from '@core/facts/value';
import { findUnit, toBase } from '@core/quantity/units';
import { err, ok, type Result } from '@core/quantity/result';
import type { LeakPoint } from './leak-down';

/** A series read from a table: seconds from its first row, mm; rows that were left out, by their line. */
export type SeriesRead = {
  points: LeakPoint[];
  /** Lines that hold no pair of numbers, header aside. */
  refused: number[];
  /** Places where the time steps by more than three times the usual: line, and seconds that are missing. */
  gaps: { line: number; seconds: number }[];
};
export type SeriesError =
  | { code: 'empty' }
  | { code: 'one_column'; line: number }
  | { code: 'wrong_unit'; line: number; unit: string; wanted: 'time' | 'length' }
  | { code: 'runs_back'; line: number }
  | { code: 'too_many'; most: number };

/** More readings than this are thinned evenly before they become a fact. */
export const MOST_POINTS = 1000;
const MOST_LINES = 200_000;
/** A step of more than so many usual ones is a gap. */
const GAP = 3;

/** Semicolon or tab part columns wherever they stand; else a comma does, unless it is what parts decimals. */
function partsOf(line: string): string[] {
  if (/[;\t]/.test(line)) return line.split(/[;\t]/);
  const commas = line.match(/,/g)?.length ?? 0;
  if (commas === 1 && /\d,\d+\s+\S|\s/.test(line.trim()) && !/,\s/.test(line))
    return line.trim().split(/\s+/);
  if (commas === 0) return line.trim().split(/\s+/);
  return line.split(',');
}

const NUMBER = /^[-+]?\d+(?:[.,]\d+)?(?:e[-+]?\d+)?$/i;
const valueOf = (cell: string): number | undefined =>
  NUMBER.test(cell.trim()) ? Number(cell.trim().replace(',', '.')) : undefined;

const LONGEST_HEADING = 200;
/** Unit in a heading: "time [ms]", "way (in)", or a cell that is a unit alone. */
function unitIn(cell: string): string | undefined {
  const from = cell.search(/[[(]/);
  if (from < 0 || cell.length > LONGEST_HEADING) return undefined;
  const to = cell.slice(from).search(/[\])]/);
  return to < 2 ? undefined : cell.slice(from + 1, from + to).trim();
}

/**
 * Reads time and length from the first two columns of a table: comma, semicolon or tab between them, decimal point or comma, headings
 * with units in brackets or as a row of their own (seconds and millimetres unless they say otherwise), rows without numbers left out and told.
 */
export function readSeries(text: string): Result<SeriesRead, SeriesError> {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/);
  if (lines.length > MOST_LINES) return err({ code: 'too_many', most: MOST_LINES });
  let [time, length] = ['s', 'mm'];
  const rows: { line: number; t: number; x: number }[] = [];
  const refused: number[] = [];
  for (const [i, raw] of lines.entries()) {
    if (raw.trim() === '') continue;
    const cells = partsOf(raw).map((c) => c.trim());
    const [t, x] = [valueOf(cells[0] ?? ''), valueOf(cells[1] ?? '')];
    if (t !== undefined && x !== undefined) rows.push({ line: i + 1, t, x });
    else if (rows.length > 0) refused.push(i + 1);
    else {
      const named = cells.map((c) => unitIn(c) ?? findUnit('time', c) ?? findUnit('length', c) ?? '');
      for (const [column, wanted] of [
        [0, 'time'],
        [1, 'length'],
      ] as const) {
        const unit = named[column];
        if (!unit) continue;
        const symbol = findUnit(wanted, unit) ?? (unit === 'µm' && wanted === 'length' ? 'µm' : undefined);
        if (symbol === undefined) return err({ code: 'wrong_unit', line: i + 1, unit, wanted });
        if (wanted === 'time') time = symbol;
        else length = symbol;
      }
      if (cells.length < 2 && valueOf(cells[0] ?? '') !== undefined)
        return err({ code: 'one_column', line: i + 1 });
    }
  }
  if (rows.length === 0) return err({ code: 'empty' });
  const back = rows.findIndex((r, i) => i > 0 && r.t < nth(rows, i - 1).t);
  if (back > 0) return err({ code: 'runs_back', line: nth(rows, back).line });
  const seconds = (v: number) => toBase('time', v - nth(rows, 0).t, time);
  const mm = (v: number) => (length === 'µm' ? v / 1000 : toBase('length', v, length));
  const steps = rows
    .slice(1)
    .map((r, i) => seconds(r.t) - seconds(nth(rows, i).t))
    .sort((a, b) => a - b);
  const usual = steps[Math.floor(steps.length / 2)] ?? 0;
  const gaps = rows.slice(1).flatMap((r, i) => {
    const step = seconds(r.t) - seconds(nth(rows, i).t);
    return usual > 0 && step > GAP * usual ? [{ line: r.line, seconds: step }] : [];
  });
  return ok({ points: rows.map((r) => ({ t: seconds(r.t), x: mm(r.x) })), refused, gaps });
}

/** Thins a series evenly to what a fact holds; first and last stay. */
export function thinned(points: readonly LeakPoint[], most = MOST_POINTS): LeakPoint[] {
  if (points.length <= most) return [...points];
  return Array.from({ length: most }, (_, i) =>
    nth(points, Math.round((i * (points.length - 1)) / (most - 1))),
  );
}

const round = (v: number, by: number): number => Math.round(v * by) / by;
/** A series as the value of a fact. */
export const seriesValue = (points: readonly LeakPoint[]): StructuredAs<'series'> => ({
  is: 'series',
  t: points.map(({ t }) => round(t, 1e4)),
  values: points.map(({ x }) => round(x, 1e5)),
});

/** The points of such a value. Earlier makes wrote seconds and values in turn; what is no pair is left out. */
export function seriesPoints(value: unknown): LeakPoint[] {
  const series = asStructured('series', value);
  if (series) return series.t.flatMap((t, i) => pair(t, series.values[i]));
  if (!Array.isArray(value)) return [];
  const numbers = value.filter((v): v is number => typeof v === 'number');
  return numbers.flatMap((t, i) => (i % 2 === 0 ? pair(t, numbers[i + 1]) : []));
}
const pair = (t: number, x: number | undefined): LeakPoint[] => (x === undefined ? [] : [{ t, x }]);
