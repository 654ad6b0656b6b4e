import { Injectable, signal } from '@angular/core';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { Pack } from '@core/catalogue/pack';
import type { Fact } from '@core/facts/fact';

export interface Records extends DBSchema {
  facts: { key: string; value: Fact; indexes: { case: string } };
  /** Key: name and version of the pack. */
  packs: { key: string; value: Pack };
  settings: { key: string; value: unknown };
}
export const DATABASE = 'hollow-sprocket';
export const VERSION = 1;

/** Opens the browser's database and applies whatever migrations it lacks, oldest first. */
export function openRecords(on: {
  blocked: () => void;
  blocking: () => void;
  terminated: () => void;
}): Promise<IDBPDatabase<Records>> {
  return openDB<Records>(DATABASE, VERSION, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('facts', { keyPath: 'id' }).createIndex('case', 'case');
        db.createObjectStore('packs');
        db.createObjectStore('settings');
      }
    },
    blocked: on.blocked,
    blocking: on.blocking,
    terminated: on.terminated,
  });
}

/** The one connection. `trouble` holds a sentence when it is not usable. */
@Injectable({ providedIn: 'root' })
export class Database {
  readonly trouble = signal<string | undefined>(undefined);
  private connection: Promise<IDBPDatabase<Records>> | undefined;

  /** The open database; opened at the first call and again after it was cut off. */
  open(): Promise<IDBPDatabase<Records>> {
    this.connection ??= openRecords({
      blocked: () =>
        this.trouble.set(
          'Another window holds an older version of the records open. Close it, then reload this one.',
        ),
      blocking: () => {
        void this.connection?.then((db) => db.close());
        this.trouble.set(
          'A newer version was opened in another window. Reload this one to go on; nothing is lost.',
        );
      },
      terminated: () => {
        this.connection = undefined;
        this.trouble.set('The browser closed the record store. Reload to go on; everything filed is kept.');
      },
    });
    return this.connection;
  }
}
