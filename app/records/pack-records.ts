import { must } from '@core/quantity/must';
import type { IDBPDatabase } from 'idb';
import type { Pack } from '@core/catalogue/pack';
import { packDigest, rememberPackDigest } from '@core/catalogue/pack-digest';
import { packId } from '@core/catalogue/version';
import { PACK_SHAPE, PACK_TABLES as TABLES, type PackRecord, type Records } from './records';

/** Rows a chunk: small enough that reading one never holds the screen up. */
const CHUNK = 1000;

/**
 * Writes packs chunk by chunk inside one transaction: all or nothing. Runs in the page and in the import worker alike.
 * @param known its digest where it was computed; the make of the schema that read it
 */
export function putPack(
  store: { packs: (v: PackRecord) => unknown; rows: (v: unknown[], key: string) => unknown },
  pack: Pack,
  known: Pick<PackRecord, 'digest' | 'shape'> = { shape: PACK_SHAPE },
): void {
  const id = packId(pack);
  const chunks: PackRecord['chunks'] = [];
  const head = { ...pack } as Partial<Pack>;
  for (const table of TABLES) {
    const rows = (pack[table] as unknown[] | undefined) ?? [];
    Reflect.deleteProperty(head, table);
    for (let i = 0; i < Math.max(1, rows.length); i += CHUNK) {
      const key = `${id}|${table}|${i}`;
      store.rows(rows.slice(i, i + CHUNK), key);
      chunks.push({ table, key });
    }
  }
  store.packs({ id, head: head as PackRecord['head'], chunks, ...known });
}

/** Reads a pack back, one chunk at a time, so that other work can run between. */
export async function getPack(db: IDBPDatabase<Records>, id: string): Promise<Pack | undefined> {
  const record = await db.get('packs', id);
  if (!record) return undefined;
  const tables = Object.fromEntries(TABLES.map((t) => [t, [] as unknown[]]));
  for (const { table, key } of record.chunks) {
    const rows = (await db.get('packRows', key)) ?? [];
    for (const row of rows) must(tables[table]).push(row);
  }
  const pack = { ...record.head, ...tables } as Pack;
  if (record.digest !== undefined) rememberPackDigest(pack, record.digest);
  return pack;
}

/** Writes a pack by itself, with its digest: for a thread, since that of a large pack takes seconds. */
export async function writePack(db: IDBPDatabase<Records>, pack: Pack): Promise<void> {
  const digest = packDigest(pack);
  const tx = db.transaction(['packs', 'packRows'], 'readwrite', { durability: 'strict' });
  putPack(
    {
      packs: (v) => void tx.objectStore('packs').put(v),
      rows: (v, k) => void tx.objectStore('packRows').put(v, k),
    },
    pack,
    { digest, shape: PACK_SHAPE },
  );
  await tx.done;
}
