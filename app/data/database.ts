import { Injectable, type OnDestroy, signal } from '@angular/core';
import type { IDBPDatabase } from 'idb';
import { openRecords, type Records } from './records';

/** The one connection. `trouble` holds a sentence when it is not usable. */
@Injectable({ providedIn: 'root' })
export class Database implements OnDestroy {
  readonly trouble = signal<string | undefined>(undefined);
  private connection: Promise<IDBPDatabase<Records>> | undefined;

  ngOnDestroy(): void {
    void this.connection?.then((db) => db.close());
  }

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
