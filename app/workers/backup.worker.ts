import { withRecords } from '../records/with-records';
import { serveJobs } from '../threads/worker-client';
import type { BackupJobs } from './backup.protocol';
import { lookAtBackup, restoreBackup } from './restore-backup';
import { saveBackup } from './save-backup';

serveJobs<BackupJobs>(
  {
    save: (ask, line) => withRecords((db) => saveBackup(db, ask, line)),
    look: ({ name, blob }) => lookAtBackup(name, blob),
    restore: ({ name, blob }, line) => withRecords((db) => restoreBackup(db, name, blob, line)),
  },
  self,
);
