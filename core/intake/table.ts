import { nth } from '@core/quantity/must';
import Papa from 'papaparse';
import type { Registry } from '@core/facts/observable';

/** A pasted table: its heading and rows; or what makes it none that can be read. */
export type TableRead =
  | { kind: 'none' }
  /** A heading and one row, as a text of labelled values. */
  | { kind: 'row'; text: string }
  /** A heading and more rows, each as such a text; how many columns are known. */
  | { kind: 'rows'; texts: string[]; known: number };

/** Columns from which lines with marks between count as a table. */
const LEAST = 3;

/** Is this text rows of a sheet? Its heading has to name at least two observables. */
export function tableOf(text: string, registry: Registry): TableRead {
  const lines = text.trim().split(/\r?\n/);
  if (lines.length < 2) return { kind: 'none' };
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true });
  const [head = [], ...rows] = data;
  if (head.length < LEAST || rows.length === 0 || rows.some((r) => Math.abs(r.length - head.length) > 1))
    return { kind: 'none' };
  const names = new Set(
    [...registry.values()].flatMap((o) => [o.wording, ...o.aliases].map((n) => n.toLowerCase())),
  );
  const known = head.filter((h) => names.has(h.trim().toLowerCase())).length;
  if (known < 2) return { kind: 'none' };
  const texts = rows.map((row) =>
    head
      .flatMap((h, i) => {
        const value = (row[i] ?? '').trim();
        return value === '' ? [] : [`${h.trim()}: ${value}`];
      })
      .join('\n'),
  );
  return texts.length > 1 ? { kind: 'rows', texts, known } : { kind: 'row', text: nth(texts, 0) };
}
