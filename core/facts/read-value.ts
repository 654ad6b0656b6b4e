import { nth } from '@core/quantity/must';
import {
  type DateForm,
  type DateOrder,
  type Day,
  formatDay,
  isMonthOnly,
  MONTH_U,
  parseDay,
} from '@core/quantity/dates';
import { parseQuantity, readNumber } from '@core/quantity/parse-quantity';
import { type Result, err, ok } from '@core/quantity/result';
import { formatQuantity } from '@core/quantity/format-quantity';
import type { FactValue } from './fact';
import { mayBeUnknown, type Observable, optionsOf } from './observable';
import type { PlacedOn } from './place';
import { silent, UNKNOWN } from './silence';

/** How this house writes figures: date order and the units first shown, by dimension. */
export type Notation = {
  /** Order in which days are typed. */
  dateOrder: DateOrder;
  /** How days are written; as they are typed unless given. What is printed names the month. */
  dateForm?: DateForm;
  units: Readonly<Partial<Record<string, string>>>;
};
/** A day as this house writes it. */
export const writtenDay = (iso: Day, notation: Notation): string =>
  formatDay(iso, notation.dateForm ?? notation.dateOrder);
/** The same house on paper, where a day must not be misread. */
export const onPaper = (notation: Notation): Notation => ({ ...notation, dateForm: 'named' });
export const METRIC: Notation = { dateOrder: 'dmy', units: {} };

export type ReadContext = {
  notation: Notation;
  today: Day;
  /** Ids and names of the drive's wheels, for observables of that kind. */
  wheels: readonly { id: string; name: string }[];
  /** Finds the record that a typed reference means. */
  findRef: (table: string, typed: string) => string | undefined;
  /** Records whose names come closest to what was typed. */
  nearestRefs: (table: string, typed: string) => string[];
  /** Highest number of a tooth or link that the drive can have, where it is known. */
  most?: (on: PlacedOn) => number | undefined;
};

export type ReadError =
  | { code: 'empty' }
  | { code: 'not_a_number' | 'not_a_count'; typed: string; example: string }
  | { code: 'unknown_unit'; typed: string; allowed: string[] }
  | { code: 'bad_uncertainty'; typed: string }
  | { code: 'out_of_range'; typed: string; min: string; max: string }
  | { code: 'not_an_option'; typed: string; allowed: string[] }
  | { code: 'not_a_date'; typed: string; order: DateOrder }
  | { code: 'not_a_code'; typed: string; example: string; nearest: string[] }
  | { code: 'too_long'; length: number; most: number }
  /** `nearest`: what is there that comes closest. */
  | { code: 'not_found'; typed: string; table: string; nearest: string[] };

/** Signs that a text may have. What fits on a line, and what fits on a page. */
const LONGEST = { line: 200, page: 5000 };
const longest = (t: { long: boolean }): number => (t.long ? LONGEST.page : LONGEST.line);

export type ReadValue = { value: FactValue; u?: number };

/** The unit in which an observable is shown and typed first in this house. */
export function unitFor(o: Observable, notation: Notation): string | undefined {
  return o.type.kind === 'number' ? (notation.units[o.type.dimension] ?? o.type.unit) : undefined;
}

/** Reads a typed text as a value of the observable. Refuses, with what would be right, rather than repair. */
export function readValue(o: Observable, text: string, ctx: ReadContext): Result<ReadValue, ReadError> {
  const typed = text.trim();
  if (typed === '') return err({ code: 'empty' });
  if (mayBeUnknown(o) && isUnknown(typed)) return ok({ value: silent('unknown') });
  const t = o.type;
  switch (t.kind) {
    case 'number':
      return readNumeric(o, typed, ctx.notation);
    case 'count': {
      const n = readNumber(typed, true);
      const example = String(t.min);
      if (n === undefined) return err({ code: 'not_a_number', typed, example });
      if (!Number.isInteger(n)) return err({ code: 'not_a_count', typed, example });
      if (n < t.min || n > t.max)
        return err({ code: 'out_of_range', typed, min: String(t.min), max: `${t.max} ${t.what}`.trim() });
      return ok({ value: n });
    }
    case 'date': {
      const day = parseDay(typed, ctx.notation.dateOrder, ctx.today);
      // A month alone is its first day, uncertain by a month: it is never shown as a day.
      return day.ok
        ? ok({ value: day.value, ...(isMonthOnly(typed) ? { u: MONTH_U } : {}) })
        : err(day.error);
    }
    case 'choice': {
      const options = mayBeUnknown(o) ? [...optionsOf(o), UNKNOWN] : optionsOf(o);
      const found = findOption(typed, options);
      if (found === undefined)
        return err({ code: 'not_an_option', typed, allowed: options.map((x) => x.wording) });
      return ok({ value: found === UNKNOWN.key ? silent('unknown') : found });
    }
    case 'several':
      return readList(typed, t.none, optionsOf(o));
    case 'wheels':
      return readList(
        typed,
        t.none,
        ctx.wheels.map((w) => ({ key: w.id, wording: w.name })),
      );
    case 'codes':
      return readCodes(typed, t.pattern, t.example);
    case 'ref': {
      const key = ctx.findRef(t.table, typed);
      return key
        ? ok({ value: key })
        : err({ code: 'not_found', typed, table: t.table, nearest: ctx.nearestRefs(t.table, typed) });
    }
    case 'text':
      return typed.length <= longest(t)
        ? ok({ value: typed })
        : err({ code: 'too_long', length: typed.length, most: longest(t) });
    case 'seal':
    case 'series':
    case 'reading':
    case 'structured':
      return ok({ value: typed });
  }
}

function readNumeric(o: Observable, typed: string, notation: Notation): Result<ReadValue, ReadError> {
  if (o.type.kind !== 'number') throw new Error(`${o.key} is not a number`);
  const { dimension, min, max, decimals, u } = o.type;
  const unit = unitFor(o, notation);
  const read = parseQuantity(dimension, typed, unit);
  if (!read.ok) {
    return read.error.code === 'not_a_number'
      ? err({
          ...read.error,
          example: formatQuantity(dimension, Math.max(min, Math.min(max, 10)), { unit, decimals }),
        })
      : err(read.error);
  }
  if (read.value.value < min || read.value.value > max) {
    const show = (v: number) => formatQuantity(dimension, v, { unit, decimals });
    return err({ code: 'out_of_range', typed, min: show(min), max: show(max) });
  }
  // An uncertainty wider than all that is plausible says nothing.
  if (read.value.u !== undefined && read.value.u > max - min)
    return err({ code: 'bad_uncertainty', typed: typed.slice(typed.search(/±|\+-|\+\/-/)) });
  const spread = read.value.u ?? u;
  return ok(spread === undefined ? { value: read.value.value } : { value: read.value.value, u: spread });
}

const fold = (s: string) =>
  s
    .toLowerCase()
    .replace(/[^a-z0-9?]+/g, ' ')
    .trim();

/** Key of the option that the text names: by key, wording, synonym, or the one whose wording starts so. */
export function findOption(
  typed: string,
  options: readonly { key: string; wording: string; also?: string[] | undefined }[],
): string | undefined {
  const t = fold(typed);
  const exact = options.find((o) => [o.key, o.wording, ...(o.also ?? [])].some((w) => fold(w) === t));
  if (exact) return exact.key;
  const starts = options.filter((o) => fold(o.wording).startsWith(t) || fold(o.key).startsWith(t));
  if (starts.length === 1) return nth(starts, 0).key;
  const inside = options.filter((o) =>
    fold(o.wording)
      .split(' ')
      .some((w) => w.startsWith(t)),
  );
  return inside.length === 1 ? nth(inside, 0).key : undefined;
}

function readList(
  typed: string,
  none: string,
  options: readonly { key: string; wording: string }[],
): Result<ReadValue, ReadError> {
  if (['none', '-', fold(none)].includes(fold(typed)) || typed === '-') return ok({ value: [] });
  const keys: string[] = [];
  for (const piece of typed.split(/[,;+&]| and /)) {
    const key = findOption(piece, options);
    if (!key)
      return err({
        code: 'not_an_option',
        typed: piece.trim(),
        allowed: [...options.map((o) => o.wording), none],
      });
    if (!keys.includes(key)) keys.push(key);
  }
  return ok({ value: keys });
}

function readCodes(typed: string, pattern: string, example: string): Result<ReadValue, ReadError> {
  if (fold(typed) === 'none') return ok({ value: [] });
  const shape = new RegExp(pattern);
  const codes = typed
    .toUpperCase()
    .split(/[\s,;]+/)
    .filter(Boolean);
  const bad = codes.find((c) => !shape.test(c));
  return bad === undefined
    ? ok({ value: [...new Set(codes)] })
    : err({ code: 'not_a_code', typed: bad, example, nearest: likeCode(bad, shape) });
}

const isUnknown = (typed: string): boolean => [UNKNOWN.key, ...UNKNOWN.also].includes(typed.toLowerCase());

/** What a mistyped code may have meant: letters and digits that look alike put right, a missing or doubled zero mended. */
function likeCode(typed: string, shape: RegExp): string[] {
  const first = typed.slice(0, 1);
  const rest = typed.slice(1).replace(/O/g, '0').replace(/[IL]/g, '1').replace(/S/g, '5').replace(/B/g, '8');
  const tries = [first + rest, `${first}0${rest}`, first + rest.replace(/^0/, ''), `P${rest}`, `P${typed}`];
  return [...new Set(tries)].filter((c) => shape.test(c)).slice(0, 3);
}
