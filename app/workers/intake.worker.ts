import { withRecords } from '../records/with-records';
import { takeDesk } from './take-desk';
import { serveJobs } from '../threads/worker-client';
import type { IntakeJobs } from './intake.protocol';
import { readCase } from './read-case';

serveJobs<IntakeJobs>(
  {
    case: ({ name, blob }) => readCase(name, blob),
    desk: (blob, line) => withRecords((db) => takeDesk(db, blob, line)),
  },
  self,
);
