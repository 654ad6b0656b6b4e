import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { Fact } from '@core/facts/fact';
import type { PackRecord } from './pack-records';

export interface Records extends DBSchema {
  facts: { key: string; value: Fact; indexes: { case: string } };
  /** Heads of packs by name and version; their rows lie in packRows, in chunks. */
  packs: { key: string; value: PackRecord };
  packRows: { key: string; value: unknown[] };
  settings: { key: string; value: unknown };
}
export const DATABASE = 'hollow-sprocket';
export const VERSION = 1;

export type Trouble = { blocked: () => void; blocking: () => void; terminated: () => void };
const QUIET: Trouble = { blocked: () => undefined, blocking: () => undefined, terminated: () => undefined };

/** Opens the browser's database and applies whatever migrations it lacks, oldest first. */
export function openRecords(on: Trouble = QUIET): Promise<IDBPDatabase<Records>> {
  return openDB<Records>(DATABASE, VERSION, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('facts', { keyPath: 'id' }).createIndex('case', 'case');
        db.createObjectStore('packs', { keyPath: 'id' });
        db.createObjectStore('packRows');
        db.createObjectStore('settings');
      }
    },
    ...on,
  });
}
