import * as z from 'zod';
import type { DateOrder } from '@core/quantity/dates';
import type { ClaimsForm, KeptForm } from './kept-form';
import type { Observable, Registry } from '@core/facts/observable';
import headings from './data/claim-headings.json';
import fields from './data/fields.json';

/** What stands in a cell: text; or a number of a workbook, whose decimal sign is known. Days of a workbook come as "2026-03-12". */
export type Cell = string | number;
/** Rows of a table as they came, from the first on, also empty ones: a row keeps the number that it has on the screen. */
export type Rows = readonly (readonly Cell[])[];

/** A column that says in what money the amounts of its row are. */
export const CURRENCY = 'currency';
/** The column without which a row is no claim. */
export const CLAIM_NUMBER = 'claim.number';

const HEADINGS = z.record(z.string(), z.array(z.string().min(1))).parse(headings);
const FIELDS = z.record(z.string(), z.array(z.string())).parse(fields);
const TYPES: ReadonlySet<Observable['type']['kind']> = new Set([
  'number',
  'count',
  'choice',
  'several',
  'date',
  'text',
  'codes',
  'ref',
]);
/** Kinds of things of which a claim has just one. */
const ABOUT: ReadonlySet<string> = new Set([
  'call',
  'case',
  'claim',
  'engine',
  'fitting',
  'kit',
  'return',
  'vehicle',
]);

/** What a column of a claims table can be: reported of the one claim, vehicle, kit or fitting; nothing that this desk decides. */
export const claimColumns = (registry: Registry): Observable[] =>
  [...registry.values()].filter(
    (o) =>
      o.how !== 'decided' &&
      o.place === undefined &&
      ABOUT.has(o.part) &&
      TYPES.has(o.type.kind) &&
      (!o.hidden || o.key in HEADINGS || o.line),
  );

const fold = (heading: Cell | undefined): string =>
  String(heading ?? '')
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

/** Rows from the top among which the heading is looked for: a title may stand above it. */
const LOOKED_AT = 12;

/** Place of the row that is the heading: the one with the most names that are known, else the first that is not empty; -1 for none. */
export function headingAt(rows: Rows, registry: Registry): number {
  const names = namesOf(registry);
  let best = { at: rows.findIndex((r) => r.some((c) => c !== '')), known: 0 };
  for (const [at, row] of rows.slice(0, LOOKED_AT).entries()) {
    const known = row.filter((c) => names.has(fold(c))).length;
    if (known > best.known) best = { at, known };
  }
  return best.at;
}

/** Headings of a table, as they are written. */
export const headingsOf = (rows: Rows, at: number): string[] => (rows[at] ?? []).map((c) => String(c).trim());

/** Whether a heading names the number of a claim: then the table below it is one of claims. */
export const namesClaims = (head: readonly Cell[], registry: Registry): boolean => {
  const names = namesOf(registry);
  return head.some((h) => names.get(fold(h))?.includes(CLAIM_NUMBER));
};

/** What a folded name may mean: wordings first, then synonyms, then what tables call it. */
function namesOf(registry: Registry): Map<string, string[]> {
  const out = new Map<string, string[]>();
  const columns = claimColumns(registry);
  const keys = new Set([...columns.map((o) => o.key), CURRENCY]);
  const put = (name: string, key: string) => {
    const folded = fold(name);
    if (folded === '' || !keys.has(key)) return;
    const known = out.get(folded) ?? [];
    if (!known.includes(key)) out.set(folded, [...known, key]);
  };
  for (const o of columns) put(o.wording, o.key);
  for (const o of columns) for (const a of o.aliases) put(a, o.key);
  for (const named of [HEADINGS, FIELDS])
    for (const [key, names] of Object.entries(named)) for (const n of names) put(n, key);
  return out;
}

/** What part of some cells can be read as something; 1 where there are none. */
export type ReadsAs = (key: string, cells: readonly Cell[]) => number;
export type FormGuess = {
  form: ClaimsForm;
  /** The same headings were read before. */
  kept: boolean;
  /** Nothing in the table tells the order of its days: they are read as this house writes them. */
  orderAssumed: boolean;
};

/**
 * How a table is to be read: as one with the same headings was read last, else by the names of its columns and by how its
 * days and figures are written.
 * @param rows of the table, as many as came so far
 * @param at place of the heading among them
 * @param reads see {@link readsAs}
 */
export function guessForm(
  rows: Rows,
  at: number,
  registry: Registry,
  kept: readonly KeptForm[],
  house: Pick<ClaimsForm, 'dateOrder' | 'distance'>,
  reads: ReadsAs,
): FormGuess {
  const head = headingsOf(rows, at);
  const same = kept.find((k) => k.head.length === head.length && k.head.every((h, i) => h === head[i]));
  const known = new Set([...claimColumns(registry).map((o) => o.key), CURRENCY, '']);
  // What was known when the form was kept may be known no more.
  if (same)
    return {
      form: { ...same.form, columns: same.form.columns.map((k) => (known.has(k) ? k : '')) },
      kept: true,
      orderAssumed: false,
    };
  const names = namesOf(registry);
  const taken = new Set<string>();
  const told = rows.slice(at + 1, at + 1 + TOLD_BY);
  const columns = head.map((h, i) => {
    const cells = told
      .slice(0, LOOKED_AT_CELLS)
      .flatMap((r) => (r[i] === undefined || r[i] === '' ? [] : [r[i]]));
    const may = (names.get(fold(h)) ?? []).filter((k) => !taken.has(k));
    const key = bestOf(may, (k) => reads(k, cells));
    if (key !== '') taken.add(key);
    return key;
  });
  const cellsOf = (...kinds: string[]) =>
    columns.flatMap((key, i) => {
      const kind = registry.get(key)?.type.kind;
      return kind !== undefined && kinds.includes(kind)
        ? told.flatMap((r) => (typeof r[i] === 'string' && r[i] !== '' ? [r[i]] : []))
        : [];
    });
  const order = orderOf(cellsOf('date'));
  return {
    form: {
      columns,
      dateOrder: order ?? house.dateOrder,
      decimal: decimalOf(cellsOf('number')),
      distance: distanceOf(head) ?? house.distance,
    },
    kept: false,
    orderAssumed: order === undefined && cellsOf('date').some((c) => IN_FIGURES.test(c)),
  };
}

/** Cells of a column that tell what it is, and the part of them that has to be read for a name to be believed. */
const [LOOKED_AT_CELLS, BELIEVED] = [60, 0.25];

/** Of several things that a heading may name, the one that most of its cells can be read as; of equal ones the first. */
function bestOf(keys: readonly string[], share: (key: string) => number): string {
  let best = { key: '', share: BELIEVED };
  for (const key of keys) {
    const s = share(key);
    if (s > best.share) best = { key, share: s };
  }
  return best.key;
}

/** Rows that tell how days and figures are written. */
const TOLD_BY = 1000;
const IN_FIGURES = /^\s*(\d{1,2})[./-](\d{1,2})[./-]\d{2,4}\b/;
/** Order in which days are written, where a figure above twelve tells it for more of them than against it. */
function orderOf(cells: readonly string[]): DateOrder | undefined {
  let [dmy, mdy] = [0, 0];
  for (const c of cells) {
    const m = IN_FIGURES.exec(c);
    if (Number(m?.[1] ?? 0) > 12) dmy++;
    if (Number(m?.[2] ?? 0) > 12) mdy++;
  }
  return dmy === mdy ? undefined : dmy > mdy ? 'dmy' : 'mdy';
}

/** The decimal sign, where figures tell it: behind both signs the last one, alone the one that no group of three follows. */
function decimalOf(cells: readonly string[]): ClaimsForm['decimal'] {
  let [point, comma] = [0, 0];
  for (const c of cells) {
    const m = /^[^\d.,]*[\d\s’']*(?:[.,]\d{3})*([.,])(\d+)\D*$/.exec(c);
    if (!m) continue;
    const both = c.includes('.') && c.includes(',');
    if (!both && (m[2] ?? '').length === 3) continue;
    if (m[1] === '.') point++;
    else comma++;
  }
  return point === comma ? '' : point > comma ? '.' : ',';
}

/** Miles or kilometres, where a heading says so. */
function distanceOf(head: readonly string[]): ClaimsForm['distance'] | undefined {
  const words = head.flatMap((h) => fold(h).split(' '));
  if (words.includes('km')) return 'km';
  return words.some((w) => w === 'mi' || w === 'miles') ? 'mi' : undefined;
}

/** What a column is called: its heading, else its place. */
export function columnName(head: readonly string[], column: number): string {
  const own = head[column] ?? '';
  return own === '' ? `column ${column + 1}` : own;
}
