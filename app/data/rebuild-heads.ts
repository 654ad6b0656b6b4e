import type { IDBPDatabase } from 'idb';
import { type Head, headOf } from '@core/answer/head';
import { type World, worldOf } from '@core/answer/world';
import { type Catalogue, catalogueOf } from '@core/catalogue/find-records';
import { newerFirst } from '@core/catalogue/version';
import type { Fact } from '@core/facts/fact';
import { type Damaged, damagedFact } from './damaged';
import { getPack } from './pack-records';
import { ofCase, type Records } from './records';
import { isSound } from './sound';

/** Facts that are read at once: large enough that reading is quick, small enough that they need not much memory. */
const BATCH = 8000;

export type Rebuilt = { cases: number; damaged: Damaged[] };
export type RebuildLine = { progress: (done: number) => void; cancelled: () => boolean };

/**
 * Makes the heads of cases anew from their facts: of those named, else of all in the order of their ids. Facts that are damaged are left out and
 * told; a head without facts is left as it is. Cancelled between two batches, whole cases are done.
 */
export async function rebuildHeads(
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
    const heads: Head[] = [];
    for (const [id, facts] of groups)
      if (facts.length > 0) heads.push(headOf(id, facts, await worlds(id, facts)));
    await written;
    const tx = db.transaction('heads', 'readwrite', { durability: 'relaxed' });
    for (const h of heads) void tx.store.put(h);
    written = tx.done;
    done.cases += heads.length;
    line.progress(done.cases);
  }
  await Promise.all([next, written]);
  return done;
}

/** A few cases: facts and head in one transaction, so that nothing is filed between. */
async function rebuildSome(
  db: IDBPDatabase<Records>,
  ids: readonly string[],
  worlds: Worlds,
): Promise<Rebuilt> {
  const done: Rebuilt = { cases: 0, damaged: [] };
  for (const id of ids) {
    const world = await worlds(id, await db.getAll('facts', ofCase(id)));
    const tx = db.transaction(['facts', 'heads'], 'readwrite');
    const facts = sound(await tx.objectStore('facts').getAll(ofCase(id)), done.damaged);
    if (facts.length > 0) await tx.objectStore('heads').put(headOf(id, facts, world));
    await tx.done;
    done.cases++;
  }
  return done;
}

/** The facts that are what they say they are; the others are told. */
function sound(facts: readonly Fact[], damaged: Damaged[]): Fact[] {
  return facts.filter((f) => {
    const good = isSound(f);
    if (!good) damaged.push(damagedFact(f));
    return good;
  });
}

/** The next cases with all of their facts, and the id of the last one that was read. */
async function readBatch(db: IDBPDatabase<Records>, after: string | undefined, damaged: Damaged[]) {
  const range = after === undefined ? null : IDBKeyRange.lowerBound([after, []], true);
  const read = await db.getAll('facts', range, BATCH);
  const full = read.length === BATCH;
  const groups = new Map<string, Fact[]>();
  let last = read.at(-1)?.case;
  for (const f of sound(read, damaged)) {
    const group = groups.get(f.case);
    if (group) group.push(f);
    else groups.set(f.case, [f]);
  }
  if (full && last !== undefined) {
    // The last case may go on beyond the batch: it is read again with the next one, or whole when it fills the batch.
    const cut = last;
    groups.delete(cut);
    last = read.findLast((f) => f.case !== cut)?.case;
    if (last === undefined) {
      groups.set(cut, sound(await db.getAll('facts', ofCase(cut)), damaged));
      last = cut;
    }
  }
  return { groups, last };
}

type Worlds = (caseId: string, facts: readonly Fact[]) => Promise<World | undefined>;
/** The world that answers a case; each catalogue is read once. */
async function worldsIn(db: IDBPDatabase<Records>): Promise<Worlds> {
  const packs = await db.getAll('packs');
  const names = new Set(packs.map((p) => p.id));
  const extracts = new Set(await db.getAllKeys('extracts'));
  const newest = packs.filter((p) => Array.isArray(p.chunks)).sort((a, b) => newerFirst(a.head, b.head))[0];
  const read = new Map<string, Promise<Catalogue | undefined>>();
  const pack = (id: string) => {
    const known = read.get(id) ?? getPack(db, id).then((p) => p && catalogueOf(p));
    read.set(id, known);
    return known;
  };
  return async (caseId, facts) => {
    const named = facts.findLast((f) => f.key === 'case.catalogue' && f.strikes === undefined)?.value;
    let catalogue: Catalogue | undefined;
    if (typeof named === 'string' && names.has(named)) catalogue = await pack(named);
    else if (extracts.has(caseId)) catalogue = catalogueOf((await db.get('extracts', caseId))!.pack);
    else if (newest) catalogue = await pack(newest.id);
    return catalogue && worldOf(catalogue);
  };
}
