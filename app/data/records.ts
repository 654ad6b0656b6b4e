import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { Head } from '@core/answer/head';
import type { Pack } from '@core/catalogue/pack';
import type { Fact } from '@core/facts/fact';

/** Tables of a pack, in the order in which they are written. */
export const PACK_TABLES = [
  'engines',
  'features',
  'variants',
  'layouts',
  'parts',
  'kits',
  'applications',
  'jobs',
  'intervals',
  'cross',
  'procedures',
] as const;

/** A pack without its rows, and where those lie. */
export type PackRecord = {
  id: string;
  head: Omit<Pack, (typeof PACK_TABLES)[number]>;
  chunks: { table: (typeof PACK_TABLES)[number]; key: string }[];
  /** SHA-256 of the whole pack, where a thread computed it. */
  digest?: string;
};

/** A photograph, capture or document, once per content. */
export type FileRecord = { sha256: string; name: string; type: string; blob: Blob };

export interface Records extends DBSchema {
  /** By case and id: the facts of a case lie beside each other. */
  facts: { key: [string, string]; value: Fact; indexes: { id: string } };
  /** What the rack shows of each case: made from facts, written with them, made anew at will. */
  heads: { key: string; value: Head };
  /** Files that facts point to, by the SHA-256 of their content. */
  files: { key: string; value: FileRecord };
  /** Heads of packs by name and version; their rows lie in packRows, in chunks. */
  packs: { key: string; value: PackRecord };
  packRows: { key: string; value: unknown[] };
  /** The part of a catalogue that came with a case file, by case. It answers that case alone and is never the catalogue. */
  extracts: { key: string; value: { case: string; pack: Pack } };
  /** Half-typed text by case and field. */
  drafts: { key: string; value: { text: string; at: string } };
  settings: { key: string; value: unknown };
}
export const DATABASE = 'hollow-sprocket';
export const VERSION = 3;

export type Trouble = { blocked: () => void; blocking: () => void; terminated: () => void };
const QUIET: Trouble = { blocked: () => undefined, blocking: () => undefined, terminated: () => undefined };

/** Under this name migrations leave records that they could not carry over, for export. */
export const LEFT_OVER = 'left-over';

/** Everything of one case. */
export const ofCase = (id: string): IDBKeyRange => IDBKeyRange.bound([id], [id, []]);

/** Opens the browser's database and applies whatever migrations it lacks, oldest first. */
export function openRecords(on: Trouble = QUIET): Promise<IDBPDatabase<Records>> {
  return openDB<Records>(DATABASE, VERSION, {
    upgrade(db, from, _to, tx) {
      if (from < 1) {
        db.createObjectStore('packs', { keyPath: 'id' });
        db.createObjectStore('packRows');
        db.createObjectStore('settings');
      }
      if (from < 2) {
        db.createObjectStore('extracts', { keyPath: 'case' });
        db.createObjectStore('drafts');
      }
      if (from < 3) {
        // Heads of the cases that are here already are made by the thread at the first opening.
        db.createObjectStore('heads', { keyPath: 'id' });
        db.createObjectStore('files', { keyPath: 'sha256' });
        const old = from > 0 ? tx.objectStore('facts') : undefined;
        if (old) (old as unknown as { name: string }).name = 'facts-by-id';
        const facts = db.createObjectStore('facts', { keyPath: ['case', 'id'] });
        facts.createIndex('id', 'id', { unique: true });
        // Whatever goes wrong here leaves the records of before as they were.
        if (old)
          carryOver(old as never, facts as never, tx.objectStore('settings') as never).then(
            () => db.deleteObjectStore('facts-by-id' as never),
            () => tx.abort(),
          );
      }
    },
    ...on,
  });
}

type Old = { openCursor(): Promise<Cursor | null> };
type Cursor = { value: Fact; continue(): Promise<Cursor | null> };
type Into = { put(value: unknown, key?: string): Promise<unknown> };
/** Facts word for word into their new place; what has no case or id has none there and is left over. */
async function carryOver(old: Old, facts: Into, settings: Into): Promise<void> {
  const left: unknown[] = [];
  for (let at = await old.openCursor(); at; at = await at.continue()) {
    if (typeof at.value.case === 'string' && typeof at.value.id === 'string') void facts.put(at.value);
    else left.push(at.value);
  }
  if (left.length > 0) await settings.put(left, LEFT_OVER);
}
