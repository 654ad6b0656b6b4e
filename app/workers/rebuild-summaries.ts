import type { IDBPDatabase } from 'idb';
import { type CaseSummary, summaryOf } from '@core/answer/case-summary';
import { type World, worldOf } from '@core/answer/world';
import type { Fact } from '@core/facts/fact';
import { cataloguesIn, readBatch } from '../records/all-cases';
import type { Damaged } from '../records/damaged';
import { ofCase, putSummaries, type Records } from '../records/records';
import { standingOf } from '../records/valid-facts';

export type Rebuilt = { cases: number; damaged: Damaged[] };
export type RebuildLine = { progress: (done: number) => void; cancelled: () => boolean };

/**
 * Makes the summaries of cases anew from their facts: of those named, else of all in the order of their ids. Facts that are damaged are left out and
 * told; a summary without facts is left as it is. Cancelled between two batches, whole cases are done.
 */
export async function rebuildSummaries(
  db: IDBPDatabase<Records>,
  line: RebuildLine,
  only?: readonly string[],
): Promise<Rebuilt> {
  const worlds = await worldsIn(db);
  if (only) return rebuildSome(db, only, worlds);
  const done: Rebuilt = { cases: 0, damaged: [] };
  let next = readBatch(db, undefined, done.damaged);
  let written: Promise<void> = Promise.resolve();
  while (!line.cancelled()) {
    const { groups, last } = await next;
    if (last === undefined) break;
    // The store reads the next batch while this one is computed.
    next = readBatch(db, last, done.damaged);
    const summaries: CaseSummary[] = [];
    for (const [id, facts] of groups)
      if (facts.length > 0) summaries.push(summaryOf(id, facts, await worlds(id, facts)));
    await written;
    const tx = db.transaction('heads', 'readwrite', { durability: 'relaxed' });
    for (const h of summaries) void tx.store.put(h);
    written = tx.done;
    done.cases += summaries.length;
    line.progress(done.cases);
  }
  await Promise.all([next, written]);
  return done;
}

type Worlds = (caseId: string, facts: readonly Fact[]) => Promise<World | undefined>;
/** What ships judges what the rack shows. */
async function worldsIn(db: IDBPDatabase<Records>): Promise<Worlds> {
  const catalogues = await cataloguesIn(db);
  return async (id, facts) => {
    const catalogue = await catalogues(id, facts);
    return catalogue && worldOf(catalogue);
  };
}

/** A few cases. What is filed between reading and writing marks the summary as behind. */
async function rebuildSome(
  db: IDBPDatabase<Records>,
  ids: readonly string[],
  worlds: Worlds,
): Promise<Rebuilt> {
  const done: Rebuilt = { cases: 0, damaged: [] };
  for (const id of ids) {
    const read = await db.getAll('facts', ofCase(id));
    const facts = standingOf(read, (d) => void done.damaged.push(d));
    const summary = facts.length > 0 ? summaryOf(id, facts, await worlds(id, facts)) : undefined;
    const tx = db.transaction(['heads', 'behind'], 'readwrite');
    if (summary)
      await putSummaries(tx.objectStore('heads'), tx.objectStore('behind'), [
        { summary, facts: read.length },
      ]);
    else await tx.objectStore('behind').delete(id);
    await tx.done;
    done.cases++;
  }
  return done;
}
