import type { IDBPDatabase } from 'idb';
import { type CaseSummary, summaryOf } from '@core/answer/case-summary';
import { worldOf } from '@core/answer/world';
import { readDeskFile } from '@core/claim/desk-file';
import { LARGEST_FILE_OF_FACTS } from '@core/claim/read-shape';
import { mergeCase } from '@core/facts/consistent';
import type { Fact } from '@core/facts/fact';
import { type Result, err, ok } from '@core/quantity/result';
import type { JobChannel } from '../threads/worker-client';
import type { DeskCame, DeskCameError } from './intake.protocol';
import { cataloguesIn } from '../records/all-cases';
import { type Damaged, inconsistentFact } from '../records/damaged';
import { ofCase, type Records } from '../records/records';
import { standingOf } from '../records/valid-facts';

type Merged = { all: readonly Fact[]; fresh: readonly Fact[]; summary: CaseSummary };

/**
 * Merges every case of a desk file into the records: all of it in one write, or nothing. What cannot stand with the rest of
 * its case is left and told. Stopped before the write begins, nothing was done.
 */
export async function takeDesk(
  db: IDBPDatabase<Records>,
  blob: Blob,
  line: JobChannel<{ done: number; of: number }>,
): Promise<Result<DeskCame, DeskCameError>> {
  if (blob.size > LARGEST_FILE_OF_FACTS)
    return err({ code: 'too_large', bytes: blob.size, most: LARGEST_FILE_OF_FACTS });
  const read = readDeskFile(await blob.text());
  if (!read.ok) return read;
  const { cases, drafts } = read.value;
  const left: Damaged[] = read.value.left.map(inconsistentFact);
  const tell = (d: Damaged) => void left.push(d);
  const catalogues = await cataloguesIn(db);
  const merged = new Map<string, Merged>();
  for (const [id, own] of cases) {
    if (line.cancelled()) return err({ code: 'cut' });
    const stored = standingOf(await db.getAll('facts', ofCase(id)), tell);
    const made = mergedOf(id, stored, own);
    if (!made.ok) return made;
    const catalogue = await catalogues(id, made.value.all);
    merged.set(id, {
      ...made.value,
      summary: summaryOf(id, made.value.all, catalogue && worldOf(catalogue)),
    });
    line.progress({ done: merged.size, of: cases.size });
    // Between two cases the thread hears whether it is to stop.
    await new Promise((rest) => setTimeout(rest));
  }
  if (line.cancelled()) return err({ code: 'cut' });
  const written = await write(db, merged);
  return written.ok ? ok({ cases: [...cases.keys()], left, drafts }) : written;
}

function mergedOf(
  id: string,
  stored: readonly Fact[],
  own: readonly Fact[],
): Result<Omit<Merged, 'summary'>, DeskCameError> {
  const all = mergeCase(stored, own);
  if (!all.ok) return err({ code: 'no_merge', case: id, why: all.error });
  const known = new Set(stored.map((f) => f.id));
  return ok({ all: all.value, fresh: own.filter((f) => !known.has(f.id)) });
}

async function write(
  db: IDBPDatabase<Records>,
  merged: ReadonlyMap<string, Merged>,
): Promise<Result<true, DeskCameError>> {
  const tx = db.transaction(['facts', 'heads'], 'readwrite', { durability: 'strict' });
  tx.done.catch(ignored);
  const facts = tx.objectStore('facts');
  const ids = facts.index('id');
  let fault: DeskCameError | undefined;
  for (const [id, { all, fresh, summary }] of merged) {
    // What another window filed since is merged with as well.
    const now = await facts.getAll(ofCase(id));
    if (now.length !== all.length - fresh.length) {
      const again = mergedOf(id, standingOf(now, ignored), fresh);
      if (!again.ok) fault = again.error;
    }
    for (const f of fresh) {
      const owner = (await ids.getKey(f.id))?.[0];
      if (owner !== undefined && owner !== id) fault = { code: 'foreign', id: f.id };
      if (fault) {
        tx.abort();
        return err(fault);
      }
      void facts.put(f).catch(ignored);
    }
    if (fault) {
      tx.abort();
      return err(fault);
    }
    void tx.objectStore('heads').put(summary).catch(ignored);
  }
  await tx.done;
  return ok(true);
}

const ignored = () => undefined;
