import { type Result, err, ok } from './result';
import { baseUnit, type Dimension, findUnit, spreadToBase, toBase, unitsOf } from './units';

export type QuantityError =
  | { code: 'not_a_number'; typed: string }
  | { code: 'unknown_unit'; typed: string; allowed: string[] }
  | { code: 'bad_uncertainty'; typed: string };

/** A value in the base unit with its standard uncertainty (same unit) when one was given. */
export type ReadQuantity = { value: number; u?: number };

const NUMBER = String.raw`[-+−]?(?:\d[\d\u00a0\u202f ’']*(?:[.,]\d+)*|[.,]\d+)`;
const SHAPE = new RegExp(
  `^(${NUMBER})\\s*(k(?=\\s|$|km|mi))?\\s*(?:(?:±|\\+-|\\+/-)\\s*(${NUMBER}))?\\s*(.*)$`,
  'i',
);

/** What nobody measures: larger figures are refused, as are those that run over to infinity. */
const LARGEST = 1e12;

/**
 * Reads one number as people type it: "48 200", "48.200", "7,4", "7.4", "-0.35".
 * A comma or point is a decimal mark unless it stands before groups of exactly three digits more than once, or
 * `grouping` says that whole numbers are expected (odometer) and exactly three digits follow.
 * Returns undefined when it is no number.
 */
export function readNumber(text: string, grouping = false): number | undefined {
  let t = text.replace(/[\s\u00a0\u202f’']/g, '').replace('−', '-');
  const marks = t.match(/[.,]/g) ?? [];
  const lastMark = Math.max(t.lastIndexOf('.'), t.lastIndexOf(','));
  const kinds = new Set(marks);
  if (kinds.size === 2) {
    const decimal = t[lastMark];
    t = t.replace(decimal === '.' ? /,/g : /\./g, '').replace(',', '.');
  } else if (marks.length > 1 || (grouping && marks.length === 1 && /^[-+]?[1-9]\d{0,2}[.,]\d{3}$/.test(t))) {
    if (!/^[-+]?\d{1,3}([.,]\d{3})+$/.test(t)) return undefined;
    t = t.replace(/[.,]/g, '');
  } else {
    t = t.replace(',', '.');
  }
  if (!/^[-+]?(\d+\.?\d*|\.\d+)$/.test(t)) return undefined;
  const value = Number(t);
  return Math.abs(value) <= LARGEST ? value : undefined;
}

/**
 * Parses "7.4 mm ± 0.05", "7,4 ±0,05 mm", "48 200 km", "30k mi", "12" (in `unit`, else the base unit).
 * The result is in the base unit of the dimension.
 * @example parseQuantity('length', '1 in') // { value: 25.4 }
 */
export function parseQuantity(
  dimension: Dimension,
  text: string,
  unit?: string,
): Result<ReadQuantity, QuantityError> {
  const typed = text.trim();
  const found = SHAPE.exec(typed);
  if (!found) return err({ code: 'not_a_number', typed });
  const [, head = '', kilo, spread, tail = ''] = found;
  const grouping = dimension === 'distance';
  const number = readNumber(head, grouping);
  if (number === undefined) return err({ code: 'not_a_number', typed });

  const late = new RegExp(`^(.*?)\\s*(?:±|\\+-|\\+/-)\\s*(${NUMBER})\\s*(.*)$`).exec(tail);
  const unitText = (late ? (late[1] ?? '') || (late[3] ?? '') : tail).trim();
  const spreadText = spread ?? late?.[2];
  const symbol = unitText === '' ? (unit ?? baseUnit(dimension)) : findUnit(dimension, unitText);
  if (symbol === undefined)
    return err({ code: 'unknown_unit', typed: unitText, allowed: unitsOf(dimension) });

  const value = toBase(dimension, number * (kilo ? 1000 : 1), symbol);
  if (spreadText === undefined) return ok({ value });
  const spreadNumber = readNumber(spreadText);
  if (spreadNumber === undefined || spreadNumber <= 0)
    return err({ code: 'bad_uncertainty', typed: spreadText });
  return ok({ value, u: spreadToBase(dimension, spreadNumber, symbol) });
}
