import { must } from '@core/quantity/must';
import type { IDBPDatabase } from 'idb';
import { type Catalogue, catalogueOf } from '@core/catalogue/find-records';
import { newerFirst } from '@core/catalogue/version';
import type { Fact } from '@core/facts/fact';
import type { Damaged } from './damaged';
import { getPack } from './pack-records';
import { ofCase, type PackRecord, type Records } from './records';
import { validFacts, standingOf } from './valid-facts';

/** Facts that are read at once: large enough that reading is quick, small enough that they need not much memory. */
const BATCH = 8000;

/** The next cases with all of their facts, and the id of the last one that was read. */
export async function readBatch(db: IDBPDatabase<Records>, after: string | undefined, damaged: Damaged[]) {
  const range = after === undefined ? null : IDBKeyRange.lowerBound([after, []], true);
  const read = await db.getAll('facts', range, BATCH);
  const full = read.length === BATCH;
  const tell = (d: Damaged) => void damaged.push(d);
  const groups = new Map<string, Fact[]>();
  let last = read.at(-1)?.case;
  for (const f of validFacts(read, tell)) {
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
      groups.set(cut, validFacts(await db.getAll('facts', ofCase(cut)), tell));
      last = cut;
    }
  }
  const standing = new Map([...groups].map(([id, facts]) => [id, standingOf(facts, tell)]));
  return { groups: standing, last };
}

const newestOf = (packs: readonly PackRecord[]): PackRecord | undefined =>
  packs.filter((p) => Array.isArray(p.chunks)).sort((a, b) => newerFirst(a.head, b.head))[0];

/** The catalogue that a new case begins with. */
export async function newestCatalogue(db: IDBPDatabase<Records>): Promise<Catalogue | undefined> {
  const newest = newestOf(await db.getAll('packs'));
  const pack = newest && (await getPack(db, newest.id));
  return pack && catalogueOf(pack);
}

export type Catalogues = (caseId: string, facts: readonly Fact[]) => Promise<Catalogue | undefined>;
/** The catalogue that answers a case; each is read once. */
export async function cataloguesIn(db: IDBPDatabase<Records>): Promise<Catalogues> {
  const packs = await db.getAll('packs');
  const names = new Set(packs.map((p) => p.id));
  const extracts = new Set(await db.getAllKeys('extracts'));
  const newest = newestOf(packs);
  const read = new Map<string, Promise<Catalogue | undefined>>();
  const pack = (id: string) => {
    const known = read.get(id) ?? getPack(db, id).then((p) => p && catalogueOf(p));
    read.set(id, known);
    return known;
  };
  return async (caseId, facts) => {
    const named = facts.findLast((f) => f.key === 'case.catalogue' && f.strikes === undefined)?.value;
    if (typeof named === 'string' && names.has(named)) return pack(named);
    if (extracts.has(caseId)) return catalogueOf(must(await db.get('extracts', caseId)).pack);
    return newest && pack(newest.id);
  };
}
