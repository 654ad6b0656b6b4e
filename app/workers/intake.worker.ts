import { openRecords } from '../records/open-records';
import { takeDesk } from './take-desk';
import { serveJobs } from '../threads/worker-client';
import type { IntakeJobs } from './intake.protocol';
import { readCase } from './read-case';

serveJobs<IntakeJobs>(
  {
    case: ({ name, blob }) => readCase(name, blob),
    desk: async (blob, line) => {
      const db = await openRecords();
      try {
        return await takeDesk(db, blob, line);
      } finally {
        db.close();
      }
    },
  },
  self,
);
