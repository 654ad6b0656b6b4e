import { must } from '@core/quantity/must';
import type { IDBPDatabase, IDBPTransaction } from 'idb';
import type { Pack } from '@core/catalogue/pack';
import { putPack } from './pack-records';

/** Under this name migrations leave records that they could not carry over, for export. */
export const LEFT_OVER = 'left-over';

/** Stores, and by what their records lie; null: by a key beside them. */
const STORES: Readonly<Record<string, string | string[] | null>> = {
  facts: ['case', 'id'],
  heads: 'id',
  behind: null,
  files: 'sha256',
  packs: 'id',
  packRows: null,
  extracts: 'case',
  shelved: ['case', 'id'],
  elsewhere: 'id',
  drafts: null,
  settings: null,
};
/** Where records of an earlier make lie while they are carried over. */
const BEFORE = 'before-';

type Upgrade = IDBPTransaction<unknown, string[], 'versionchange'>;

/**
 * Brings the stores into today's layout, whatever make of this program laid them out: what is missing is made, what lies by
 * another key is carried over word for word. All of it is one transaction: cut off, it begins again at the next opening, and
 * whatever goes wrong leaves the records as they were.
 */
export function upgradeLayout(db: IDBPDatabase, tx: Upgrade): void {
  const otherwise = [...db.objectStoreNames].filter(
    (name) => name in STORES && !sameKey(tx.objectStore(name).keyPath, must(STORES[name])),
  );
  for (const name of otherwise) (tx.objectStore(name) as unknown as { name: string }).name = BEFORE + name;
  for (const [name, keyPath] of Object.entries(STORES))
    if (!db.objectStoreNames.contains(name)) db.createObjectStore(name, { keyPath });
  const facts = tx.objectStore('facts');
  // An id is one fact's, in whichever case.
  if (!facts.indexNames.contains('id')) facts.createIndex('id', 'id', { unique: true });
  // What is cut off is told by the opening that fails.
  tx.done.catch(ignored);
  void carryOver(db, tx, otherwise).catch(() => tx.abort());
}

const ignored = () => undefined;
const sameKey = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

async function carryOver(db: IDBPDatabase, tx: Upgrade, names: readonly string[]): Promise<void> {
  const left: unknown[] = [];
  for (const name of names) {
    const old = tx.objectStore(BEFORE + name);
    for (let at = await old.openCursor(); at; at = await at.continue())
      if (!carry(name, at.value, tx)) left.push(at.value);
    db.deleteObjectStore(BEFORE + name);
  }
  if (left.length > 0) await tx.objectStore('settings').put(left, LEFT_OVER);
}

/** Puts one record into its new place; false where it has none there, and is left over. */
function carry(name: string, record: unknown, tx: Upgrade): boolean {
  if (typeof record !== 'object' || record === null) return false;
  if (name === 'packs') return carryPack(record, tx);
  const keyPath = STORES[name];
  const keys = typeof keyPath === 'string' ? [keyPath] : (keyPath ?? []);
  if (!keys.every((k) => typeof (record as Record<string, unknown>)[k] === 'string')) return false;
  void tx.objectStore(name).put(record).catch(ignored);
  return true;
}

/** The first make kept a catalogue whole, without tables that came later. */
function carryPack(pack: Partial<Pack>, tx: Upgrade): boolean {
  if (typeof pack.name !== 'string' || typeof pack.version !== 'string') return false;
  if (!Array.isArray(pack.engines) || !Array.isArray(pack.variants)) return false;
  putPack(
    {
      packs: (v) => void tx.objectStore('packs').put(v).catch(ignored),
      rows: (v, key) => void tx.objectStore('packRows').put(v, key).catch(ignored),
    },
    { jobs: [], intervals: [], cross: [], procedures: [], ...pack } as unknown as Pack,
    {},
  );
  return true;
}
