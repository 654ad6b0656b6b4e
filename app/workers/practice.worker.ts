import { CAUSES } from '@core/cause/cause-data';
import { knowledgeWith } from '@core/cause/changes';
import { drivesOf } from '@core/practice/drives';
import { scoreDesk } from '@core/practice/score';
import { serveJobs } from '../threads/worker-client';
import type { PracticeJobs } from './practice.protocol';

/** The same returns for every house and at any time, so that two scores can be compared. */
const SEED = 1;

serveJobs<PracticeJobs>(
  {
    score: ({ changes, kinds, returns, ...policy }, line) => {
      const drives = drivesOf(knowledgeWith(CAUSES, changes), kinds);
      const of = (complete: number, from: number) =>
        scoreDesk(drives, policy, { returns, complete, seed: SEED }, (share) =>
          line.progress(from + share / 2),
        );
      return Promise.resolve({ complete: of(1, 0), half: of(0.5, 0.5) });
    },
  },
  self,
);
