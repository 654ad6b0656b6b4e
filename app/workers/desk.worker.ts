import { rebuildSummaries } from './rebuild-summaries';
import { withRecords } from '../records/with-records';
import { readMailbox } from './read-mailbox';
import { rejudgeAll } from './rejudge-all';
import { wordsInAll } from './words-all';
import type { DeskJobs } from './desk.protocol';
import { serveJobs } from '../threads/worker-client';

serveJobs<DeskJobs>(
  {
    rebuild: (only, line) => withRecords((db) => rebuildSummaries(db, line, only)),
    words: (ask, line) => withRecords((db) => wordsInAll(db, ask, line)),
    mailbox: (ask, line) => withRecords((db) => readMailbox(db, ask, line)),
    rejudge: (ask, line) => withRecords((db) => rejudgeAll(db, ask, line)),
  },
  self,
);
