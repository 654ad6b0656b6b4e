import { rebuildHeads } from '../data/rebuild-heads';
import { openRecords } from '../data/records';
import type { DeskJobs } from './desk.protocol';
import { serve } from './door';

serve<DeskJobs>(
  {
    async rebuild(only, line) {
      const db = await openRecords();
      try {
        return await rebuildHeads(db, line, only);
      } finally {
        db.close();
      }
    },
  },
  self,
);
