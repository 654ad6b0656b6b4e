import { doubleAt } from '@core/quantity/must';
import type { Dialect } from './capture-dialect';

// Signs as bytes, each a constant of its own: the loops over them run hot.
export const LF = 10;
export const CR = 13;
const MINUS = 45;
const PLUS = 43;
const DOT = 46;
const COMMA = 44;
const ZERO = 48;
const NINE = 57;
const SMALL_E = 101;
const BIG_E = 69;
const SPACE = 32;
const QUOTE = 34;

/** Digits whose number is exact, so that one division by a power of ten rounds it rightly. */
const EXACT = 15;
const TENS = Float64Array.from({ length: EXACT + 1 }, (_, k) => 10 ** k);

/** Reads a line of plain numbers in one walk into cells: where it ends, or -1 where it holds anything else. The bytes have an end of a line from there on. */
export function plainRow(
  b: Uint8Array,
  from: number,
  { separator, comma, width }: Pick<Dialect, 'separator' | 'comma' | 'width'>,
  cells: Float64Array,
): number {
  const mark = comma ? COMMA : DOT;
  for (let i = from, column = 0; column < cells.length; column++, i++) {
    let c = b[i] ?? LF;
    const minus = c === MINUS;
    if (minus) c = b[++i] ?? LF;
    let value = 0;
    let digits = i;
    while (c >= ZERO && c <= NINE) {
      value = value * 10 + c - ZERO;
      c = b[++i] ?? LF;
    }
    digits = i - digits;
    if (c === mark) {
      const point = ++i;
      c = b[i] ?? LF;
      while (c >= ZERO && c <= NINE) {
        value = value * 10 + c - ZERO;
        c = b[++i] ?? LF;
      }
      digits += i - point;
      if (digits > EXACT) return -1;
      value /= doubleAt(TENS, i - point);
    }
    if (digits === 0) return -1;
    cells[column] = minus ? -value : value;
    if (c === LF || c === CR) return column + 1 >= width ? i : -1;
    if (c !== separator) return -1;
  }
  return -1;
}

/** A number in bytes; not a number when anything else stands there. Decimal comma or point, exponent, blanks and quotes about it. */
export function numberIn(b: Uint8Array, from: number, to: number, comma: boolean): number {
  while (from < to && (b[from] === SPACE || b[from] === QUOTE)) from++;
  while (to > from && (b[to - 1] === SPACE || b[to - 1] === QUOTE)) to--;
  if (from === to) return NaN;
  let i = from;
  let sign = 1;
  if (b[i] === MINUS || b[i] === PLUS) sign = b[i++] === MINUS ? -1 : 1;
  let [value, digits, scale] = [0, 0, 0];
  const mark = comma ? COMMA : DOT;
  for (; i < to; i++) {
    const c = b[i] ?? LF;
    if (c >= ZERO && c <= NINE) {
      value = value * 10 + (c - ZERO);
      digits++;
      if (scale > 0) scale *= 10;
    } else if (c === mark && scale === 0) scale = 1;
    else break;
  }
  if (digits === 0) return NaN;
  if (scale > 1) value /= scale;
  if (i < to && (b[i] === SMALL_E || b[i] === BIG_E)) {
    let power = 0;
    let [minus, seen] = [false, 0];
    i++;
    if (b[i] === MINUS || b[i] === PLUS) minus = b[i++] === MINUS;
    for (; i < to && (b[i] ?? LF) >= ZERO && (b[i] ?? LF) <= NINE; i++, seen++)
      power = power * 10 + ((b[i] ?? LF) - ZERO);
    if (seen === 0) return NaN;
    value *= 10 ** (minus ? -power : power);
  }
  return i < to ? NaN : sign * value;
}
