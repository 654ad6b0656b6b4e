import { formatRough, isMonth } from '@core/quantity/dates';
import { formatQuantity } from '@core/quantity/format-quantity';
import type { FactValue } from './fact';
import { type Observable, optionsOf } from './observable';
import { whySilent } from './silence';
import { plainText, isStructured, type Structured, type Why } from './value';
import { type Notation, writtenDay, unitFor } from './read-value';

/** Names of records and wheels for showing; falls back to the key. */
export type Namer = (table: string, key: string) => string;

const SILENT: Readonly<Record<Why, string>> = { notExamined: 'not examined', unknown: 'unknown' };

/** A value as a person reads it, in the house's units and date order. */
export function showValue(
  o: Observable,
  value: FactValue,
  notation: Notation,
  name: Namer,
  u?: number,
): string {
  const t = o.type;
  const why = whySilent({ key: o.key, value });
  if (why !== undefined) return SILENT[why];
  if (isStructured(value)) return structuredWords(value);
  switch (t.kind) {
    case 'number':
      return typeof value === 'number'
        ? formatQuantity(t.dimension, value, { unit: unitFor(o, notation), decimals: t.decimals, u })
        : plainText(value);
    case 'count':
      return `${plainText(value)} ${t.what}`;
    case 'date':
      return isMonth(u) ? formatRough(plainText(value), u ?? 0) : writtenDay(plainText(value), notation);
    case 'choice':
      return optionsOf(o).find((x) => x.key === value)?.wording ?? plainText(value);
    case 'several':
    case 'wheels': {
      const keys = Array.isArray(value) ? value.map(String) : [plainText(value)];
      if (keys.length === 0) return t.none;
      const label = (k: string) =>
        t.kind === 'wheels' ? name('wheel', k) : (t.options.find((x) => x.key === k)?.wording ?? k);
      return keys.map(label).join(', ');
    }
    case 'codes':
      return Array.isArray(value) && value.length ? value.join(' ') : 'none';
    case 'ref':
      return name(t.table, plainText(value));
    case 'seal':
      return `seal ${plainText(value).slice(0, 4)} ${plainText(value).slice(4, 8)}`;
    case 'series':
      return readingsWords(Array.isArray(value) ? Math.floor(value.length / 2) : 0);
    case 'reading':
      return linesWords(Array.isArray(value) ? value.length : 0);
    case 'structured':
    case 'text':
      return o.hidden ? shortDigests(plainText(value)) : plainText(value);
  }
}

/** What the program filed itself names contents by digests: eight signs are as many as a person compares. */
const shortDigests = (text: string): string => text.replace(/\b([0-9a-f]{8})[0-9a-f]{56}\b/g, '$1…');

const readingsWords = (n: number): string => `${n} readings`;

function structuredWords(v: Structured): string {
  switch (v.is) {
    case 'overlay':
      return `${v.spots.length} spots, ${v.scale}`;
    case 'sheet':
      return `${v.sheet.slice(0, 8)}… ${v.steps === v.of ? v.of : `${v.steps} of ${v.of}`} steps`;
    case 'policy':
      return (
        Object.entries(v.chosen)
          .map(([key, is]) => `${key} ${is}`)
          .join(', ') || 'as shipped'
      );
    case 'series':
      return readingsWords(v.t.length);
    case 'signature':
      return `${v.signature.slice(0, 8)}…`;
  }
}

const linesWords = (n: number): string => (n === 1 ? 'one line' : `${n} lines`);
