import { rebuildSummaries } from './rebuild-summaries';
import { openRecords } from '../records/open-records';
import { readMailbox } from './read-mailbox';
import { rejudgeAll } from './rejudge-all';
import { wordsInAll } from './words-all';
import type { DeskJobs } from './desk.protocol';
import { serveJobs } from '../threads/worker-client';

async function withRecords<T>(work: (db: Awaited<ReturnType<typeof openRecords>>) => Promise<T>): Promise<T> {
  const db = await openRecords();
  try {
    return await work(db);
  } finally {
    db.close();
  }
}

serveJobs<DeskJobs>(
  {
    rebuild: (only, line) => withRecords((db) => rebuildSummaries(db, line, only)),
    words: (ask, line) => withRecords((db) => wordsInAll(db, ask, line)),
    mailbox: (ask, line) => withRecords((db) => readMailbox(db, ask, line)),
    rejudge: (ask, line) => withRecords((db) => rejudgeAll(db, ask, line)),
  },
  self,
);
