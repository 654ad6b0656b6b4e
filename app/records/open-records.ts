import { type IDBPDatabase, openDB } from 'idb';
import { upgradeLayout } from './upgrade-layout';
import { DATABASE, type Records, VERSION } from './records';

export type Trouble = { blocked: () => void; blocking: () => void; terminated: () => void };
const QUIET: Trouble = { blocked: () => undefined, blocking: () => undefined, terminated: () => undefined };

/** Opens the browser's database and brings records of earlier makes into today's layout. */
export function openRecords(on: Trouble = QUIET): Promise<IDBPDatabase<Records>> {
  return openDB<Records>(DATABASE, VERSION, {
    upgrade: (db, _from, _to, tx) => upgradeLayout(db as unknown as IDBPDatabase, tx as never),
    ...on,
  });
}
