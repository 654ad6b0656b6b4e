import { rebuildSummaries } from './rebuild-summaries';
import { withRecords } from '../records/with-records';
import { readMailbox } from './read-mailbox';
import { rejudgeAll } from './rejudge-all';
import { claimCells, openClaims, readClaimsTable } from './claims';
import { writeTablesAsWorkbook } from './workbook';
import { wordsInAll } from './words-all';
import type { DeskJobs } from './desk.protocol';
import { serveJobs } from '../threads/worker-client';

serveJobs<DeskJobs>(
  {
    rebuild: (only, line) => withRecords((db) => rebuildSummaries(db, line, only)),
    words: (ask, line) => withRecords((db) => wordsInAll(db, ask, line)),
    mailbox: (ask, line) => withRecords((db) => readMailbox(db, ask, line)),
    claims: (ask) => withRecords((db) => readClaimsTable(db, ask)),
    openClaims: (ask, line) => withRecords((db) => openClaims(db, ask, line)),
    claimCells: (ask) => withRecords((db) => claimCells(db, ask)),
    workbook: (sheets) => writeTablesAsWorkbook(sheets),
    rejudge: (ask, line) => withRecords((db) => rejudgeAll(db, ask, line)),
  },
  self,
);
