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
};

/** A photograph, capture or document, once per content. */
export type FileRecord = { sha256: string; name: string; type: string; blob: Blob };

export interface Records extends DBSchema {
  facts: { key: string; value: Fact; indexes: { case: string } };
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
      if (from < 2) {
        db.createObjectStore('extracts', { keyPath: 'case' });
        db.createObjectStore('drafts');
      }
      if (from < 3) {
        // Heads of the cases that are here already are made by the thread at the first opening.
        db.createObjectStore('heads', { keyPath: 'id' });
        db.createObjectStore('files', { keyPath: 'sha256' });
      }
    },
    ...on,
  });
}
