import { openRecords } from '../records/open-records';
import { serveJobs } from '../threads/worker-client';
import type { BackupJobs } from './backup.protocol';
import { lookAtBackup, restoreBackup } from './restore-backup';
import { saveBackup } from './save-backup';

async function withRecords<T>(work: (db: Awaited<ReturnType<typeof openRecords>>) => Promise<T>): Promise<T> {
  const db = await openRecords();
  try {
    return await work(db);
  } finally {
    db.close();
  }
}

serveJobs<BackupJobs>(
  {
    save: (ask, line) => withRecords((db) => saveBackup(db, ask, line)),
    look: ({ name, blob }) => lookAtBackup(name, blob),
    restore: ({ name, blob }, line) => withRecords((db) => restoreBackup(db, name, blob, line)),
  },
  self,
);
