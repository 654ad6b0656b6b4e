import { canonical } from '@core/facts/canonical';
import type { Pack } from './pack';

export type TableDiff = { table: string; rows: number; added: number; changed: number; removed: number };

const KEYS: { [T in keyof Pack]?: (row: never) => string } = {
  engines: (r: { code: string }) => r.code,
  features: (r: { id: string }) => r.id,
  variants: (r: { id: string }) => r.id,
  layouts: (r: { id: string }) => r.id,
  parts: (r: { number: string }) => r.number,
  kits: (r: { number: string }) => r.number,
  applications: (r: { kit: string; variant: string }) => `${r.kit}|${r.variant}`,
  jobs: (r: { variant: string; item: string }) => `${r.variant}|${r.item}`,
  intervals: (r: { engine: string; vehicle: string }) => `${r.engine}|${r.vehicle}`,
  cross: (r: { number: string }) => r.number,
  procedures: (r: { id: string }) => r.id,
};

/** What a new pack brings against an old one, table by table; without an old one all rows are new. */
export function diffPacks(before: Pack | undefined, after: Pack): TableDiff[] {
  return Object.entries(KEYS).map(([table, key]) => {
    const keyOf = key as (row: unknown) => string;
    const now = after[table as keyof Pack] as unknown as readonly object[];
    const then = new Map(
      ((before?.[table as keyof Pack] ?? []) as unknown as readonly object[]).map((r) => [keyOf(r), r]),
    );
    let added = 0;
    let changed = 0;
    for (const row of now) {
      const k = keyOf(row);
      const old = then.get(k);
      if (old === undefined) added++;
      else if (canonical(old) !== canonical(row)) changed++;
      then.delete(k);
    }
    return { table, rows: now.length, added, changed, removed: then.size };
  });
}
