import { openRecords } from './open-records';

type Db = Awaited<ReturnType<typeof openRecords>>;

/** Works with the records of this browser, in a thread, and closes them whatever comes of it. */
export async function withRecords<T>(work: (db: Db) => Promise<T>): Promise<T> {
  const db = await openRecords();
  try {
    return await work(db);
  } finally {
    db.close();
  }
}
