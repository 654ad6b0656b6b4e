import { knowledgeOf, worldOf } from '@core/answer/world';
import { type Catalogue, catalogueOf } from '@core/catalogue/find-records';
import { afterwards } from '@core/practice/after';
import { scorePaths } from '@core/practice/path-score';
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
/** Whole returns that are worked look by look, and what each of the three takes of the progress. */
const WORKED = 40;
const PART = 1 / 3;

serveJobs<PracticeJobs>(
  {
    score: async ({ changes, pack, kinds, returns, policy }, line) => {
      const causes = knowledgeWith(CAUSES, changes);
      const drives = drivesOf(causes, kinds);
      const of = (complete: number, from: number) =>
        scoreDesk(drives, policy, { returns, complete, seed: SEED }, (share) =>
          line.progress(from + PART * share),
        );
      const world = worldOf(await catalogueById(pack), { knowledge: knowledgeOf(causes), policy });
      return {
        complete: of(1, 0),
        half: of(0.5, PART),
        paths: scorePaths(world, { returns: WORKED, seed: SEED }, (share) =>
          line.progress(2 * PART + PART * share),
        ),
      };
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
