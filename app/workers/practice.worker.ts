import { knowledgeOf, worldOf } from '@core/answer/world';
import { type Catalogue, catalogueOf } from '@core/catalogue/find-records';
import { afterwards } from '@core/practice/after';
import { getPack } from '../records/pack-records';
import { withRecords } from '../records/with-records';
import { CAUSES } from '@core/cause/cause-data';
import { knowledgeWith } from '@core/cause/changes';
import { drivesOf } from '@core/practice/drives';
import { scoreDesk } from '@core/practice/score';
import { serveJobs } from '../threads/worker-client';
import type { PracticeJobs } from './practice.protocol';

/** A catalogue, read once. */
let read: { id: string; catalogue: Catalogue } | undefined;
async function catalogueById(id: string): Promise<Catalogue> {
  if (read?.id === id) return read.catalogue;
  const pack = await withRecords((db) => getPack(db, id));
  if (!pack) throw new Error(`catalogue ${id} is not here`);
  read = { id, catalogue: catalogueOf(pack) };
  return read.catalogue;
}

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
    after: async ({ pack, changes, policy, run, facts, verdict }) => {
      const catalogue = await catalogueById(pack);
      const knowledge = knowledgeOf(knowledgeWith(CAUSES, changes));
      return afterwards(worldOf(catalogue, { knowledge, policy }), run.case, {
        looks: run.looks,
        facts,
        verdict,
      });
    },
  },
  self,
);
