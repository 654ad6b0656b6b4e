import { Injectable, type OnDestroy, signal } from '@angular/core';
import type { IDBPDatabase } from 'idb';
import { openRecords } from '../records/open-records';
import type { Records } from '../records/records';
import { type StoreTrouble, troubleOf } from './store-trouble';

/** The one connection. `trouble` says why it is not usable; it goes when it is again. */
@Injectable({ providedIn: 'root' })
export class Database implements OnDestroy {
  readonly trouble = signal<StoreTrouble | undefined>(undefined);
  private connection: Promise<IDBPDatabase<Records>> | undefined;

  ngOnDestroy(): void {
    void this.connection?.then(
      (db) => db.close(),
      () => undefined,
    );
  }

  /** The open database; opened at the first call, and again after it was cut off or could not be opened. */
  open(): Promise<IDBPDatabase<Records>> {
    this.connection ??= this.connect();
    return this.connection;
  }

  /** Reads with the open database; a connection that turned out to be dead is opened again once. */
  async read<T>(job: (db: IDBPDatabase<Records>) => Promise<T>): Promise<T> {
    try {
      return await job(await this.open());
    } catch (e) {
      if (troubleOf(e).code !== 'closed') throw e;
      this.lost();
      return job(await this.open());
    }
  }

  /** Forgets a connection that turned out to be dead, so that the next call opens it again. */
  lost(): void {
    this.connection = undefined;
  }

  private async connect(): Promise<IDBPDatabase<Records>> {
    try {
      const db = await openRecords({
        blocked: () => this.trouble.set({ code: 'blocked', detail: '' }),
        blocking: () => {
          db.close();
          this.connection = undefined;
          this.trouble.set({ code: 'newer', detail: '' });
        },
        terminated: () => {
          this.connection = undefined;
          this.trouble.set({ code: 'closed', detail: '' });
        },
      });
      this.trouble.set(undefined);
      return db;
    } catch (e) {
      this.connection = undefined;
      this.trouble.set(troubleOf(e));
      throw e;
    }
  }
}
