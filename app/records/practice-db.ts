import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { Fact } from '@core/facts/fact';
import type { Run } from '@core/practice/record';
import type { VirtualCase } from '@core/practice/virtual-case';

/** Returns for practice lie in a database of their own: nothing that reads or writes the desk's records ever meets one. */
export const PRACTICE_DATABASE = 'hollow-sprocket-practice';

export interface PracticeDb extends DBSchema {
  /** By case and id, as facts of cases lie. */
  facts: { key: [string, string]; value: Fact };
  /** Runs of this desk, by their return. */
  runs: { key: string; value: Run };
  /** Returns made from settled cases here, or brought by a file. */
  returns: { key: string; value: VirtualCase };
  /** Runs of other judges, by judge and return. */
  judges: { key: [string, string]; value: { by: string; id: string; run: Run } };
}

export const openPractice = (): Promise<IDBPDatabase<PracticeDb>> =>
  openDB<PracticeDb>(PRACTICE_DATABASE, 1, {
    upgrade: (db) => {
      db.createObjectStore('facts', { keyPath: ['case', 'id'] });
      db.createObjectStore('runs', { keyPath: 'case.id' });
      db.createObjectStore('returns', { keyPath: 'id' });
      db.createObjectStore('judges', { keyPath: ['by', 'id'] });
    },
  });
