import type { IDBPDatabase } from 'idb';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { type Fact, FactSchema } from '@core/facts/fact';
import { type Heads, HeadsSchema, type LogHead } from '@core/shelf/entry';
import type { ShelfDesk } from '@core/shelf/exchange';
import { type Damaged, mergeWords } from '../records/damaged';
import { ofCase, type Records } from '../records/records';

const MemorySchema = z.strictObject({
  log: z.string(),
  positions: HeadsSchema,
  recheck: z.boolean(),
  /** Cases whose facts went to the shelf and whose summaries did not yet. Undefined: every case may be one. */
  owed: z.array(z.string()).optional(),
});
type Kept = z.infer<typeof MemorySchema>;
/** Where the memory of the shelf lies among the settings. It never goes along with a backup. */
export const SHELF_MEMORY = 'shelf-memory';
/** Cases of the demo are at every desk, with the days of its own first opening: they stay there. */
const DEMO = 'demo-';
export const isShared = (caseId: string): boolean => !caseId.startsWith(DEMO);

const ignored = () => undefined;
type Told = {
  /** Cases that got facts from the shelf. */
  grown(cases: readonly string[], facts: readonly Fact[]): void;
  aside(d: Damaged): void;
  /** Cases of which only the summary is here got facts on the shelf. */
  outdated(cases: readonly string[]): void;
  /** Facts of cases went to the shelf. */
  went(cases: readonly string[]): void;
};

/** The records of this browser as the desk's side of a shelf. */
export class ShelfRecords implements ShelfDesk {
  /** Cases that may have facts which are not on the shelf. Undefined: any may. */
  private wet: Set<string> | undefined;
  /** Records that are no facts. */
  private readonly unfit = new Set<string>();

  constructor(
    private readonly open: () => Promise<IDBPDatabase<Records>>,
    private readonly told: Told,
    /** Cases that do not go to the shelf. */
    private readonly kept: () => ReadonlySet<string>,
  ) {}

  /** A case got facts here. */
  grew(cases: readonly string[]): void {
    for (const id of cases) this.wet?.add(id);
  }

  async memory(): Promise<Kept> {
    const read = MemorySchema.safeParse(await (await this.open()).get('settings', SHELF_MEMORY));
    if (!read.success) throw new Error('this browser is joined to no shelf');
    return read.data;
  }

  async begin(log: string): Promise<void> {
    const tx = (await this.open()).transaction(['shelved', 'settings'], 'readwrite', {
      durability: 'strict',
    });
    void tx.objectStore('shelved').clear().catch(ignored);
    const memory: Kept = { log, positions: {}, recheck: true, owed: [] };
    void tx.objectStore('settings').put(memory, SHELF_MEMORY).catch(ignored);
    await tx.done;
    this.wet = undefined;
  }

  /** How many facts are not on the shelf yet. */
  async count(): Promise<number> {
    return (await this.dry()).reduce((sum, [, ids]) => sum + ids.length, 0);
  }

  async waiting(most: number, after?: Fact): Promise<readonly Fact[]> {
    const db = await this.open();
    const facts: Fact[] = [];
    const found = await this.dry();
    const unfit = this.unfit.size;
    for (const [caseId, ids] of found) {
      if (after && caseId < after.case) continue;
      const later = after?.case === caseId ? ids.filter((id) => id > after.id) : ids;
      for (const id of later.slice(0, most - facts.length)) {
        const fits = FactSchema.safeParse(await db.get('facts', [caseId, id]));
        // what is damaged is told elsewhere; it goes nowhere
        if (fits.success) facts.push(fits.data);
        else this.unfit.add(id);
      }
      if (facts.length >= most) break;
    }
    // behind records that are damaged there may be others
    return facts.length === 0 && this.unfit.size > unfit ? this.waiting(most, after) : facts;
  }

  async take(facts: readonly Fact[], positions: Heads): Promise<void> {
    const db = await this.open();
    const stores = ['facts', 'behind', 'shelved', 'elsewhere', 'settings'] as const;
    const tx = db.transaction(stores, 'readwrite', { durability: 'strict' });
    tx.done.catch(ignored);
    const store = tx.objectStore('facts');
    const owners = store.index('id');
    const far = new Set<string>();
    for (const id of new Set(facts.map((f) => f.case)))
      if ((await tx.objectStore('elsewhere').getKey(id)) !== undefined) far.add(id);
    const fresh: Fact[] = [];
    for (const f of facts) {
      if (far.has(f.case)) continue;
      const owner = await owners.getKey(f.id);
      // an id is one fact's: one that came under another case is told, and what stands here stays
      if (owner !== undefined && owner[0] !== f.case) {
        this.tellOther(f.id);
        continue;
      }
      void tx.objectStore('shelved').put({ case: f.case, id: f.id }).catch(ignored);
      if (owner !== undefined) continue;
      void store.put(f).catch(ignored);
      fresh.push(f);
    }
    const cases = [...new Set(fresh.map((f) => f.case))];
    for (const id of cases)
      void tx
        .objectStore('behind')
        .put(await store.count(ofCase(id)), id)
        .catch(ignored);
    await this.remember(tx.objectStore('settings'), (m) => ({
      ...m,
      positions: { ...m.positions, ...positions },
    }));
    await tx.done;
    if (cases.length > 0) this.told.grown(cases, fresh);
    if (far.size > 0) this.told.outdated([...far]);
  }

  async know(ids: readonly string[], written?: { log: string; position: LogHead }): Promise<void> {
    const tx = (await this.open()).transaction(['facts', 'shelved', 'settings'], 'readwrite', {
      durability: 'strict',
    });
    tx.done.catch(ignored);
    const owners = tx.objectStore('facts').index('id');
    const cases = new Set<string>();
    for (const id of ids) {
      const key = await owners.getKey(id);
      if (key) cases.add(key[0]);
      if (key) void tx.objectStore('shelved').put({ case: key[0], id }).catch(ignored);
    }
    if (written)
      await this.remember(tx.objectStore('settings'), (m) => ({
        ...m,
        positions: { ...m.positions, [written.log]: written.position },
        ...(m.owed ? { owed: [...new Set([...m.owed, ...cases])] } : {}),
      }));
    await tx.done;
    if (written) this.told.went([...cases]);
  }

  async lost(logs: readonly string[]): Promise<void> {
    const tx = (await this.open()).transaction(['shelved', 'settings'], 'readwrite', {
      durability: 'strict',
    });
    tx.done.catch(ignored);
    void tx.objectStore('shelved').clear().catch(ignored);
    await this.remember(tx.objectStore('settings'), (m) => ({
      ...m,
      positions: Object.fromEntries(Object.entries(m.positions).filter(([log]) => !logs.includes(log))),
      recheck: true,
    }));
    await tx.done;
    this.wet = undefined;
  }

  async rechecked(): Promise<void> {
    const tx = (await this.open()).transaction('settings', 'readwrite', { durability: 'strict' });
    tx.done.catch(ignored);
    await this.remember(tx.store, (m) => ({ ...m, recheck: false }));
    await tx.done;
  }

  /** Cases whose summaries wait to go to the shelf, closed windows or not; every case where no list was kept. */
  async owed(): Promise<readonly string[]> {
    const { owed } = await this.memory();
    if (owed) return owed;
    const keys = await (await this.open()).getAllKeys('facts');
    const all = [...new Set(keys.map(([id]) => id))].filter(isShared);
    await this.owe((before) => before ?? all);
    return all;
  }

  /** The summaries of these cases are on the shelf. */
  paid(cases: readonly string[]): Promise<void> {
    const gone = new Set(cases);
    return this.owe((before) => before?.filter((id) => !gone.has(id)));
  }

  private async owe(change: (before: string[] | undefined) => string[] | undefined): Promise<void> {
    const tx = (await this.open()).transaction('settings', 'readwrite', { durability: 'strict' });
    tx.done.catch(ignored);
    await this.remember(tx.store, ({ owed, ...m }) => {
      const now = change(owed);
      return now ? { ...m, owed: now } : m;
    });
    await tx.done;
  }

  contested(id: string): Promise<void> {
    this.tellOther(id);
    return this.know([id]);
  }

  /** Begins where the shelf ends: what was there before is here as summaries. */
  async beginAtEnd(positions: Heads): Promise<void> {
    const tx = (await this.open()).transaction('settings', 'readwrite', { durability: 'strict' });
    tx.done.catch(ignored);
    await this.remember(tx.store, (m) => ({ ...m, positions }));
    await tx.done;
  }

  /** Facts that are not known to stand on the shelf, by case, in the order of their keys. */
  private async dry(): Promise<[string, string[]][]> {
    const db = await this.open();
    const none = this.kept();
    const goes = (id: string) => isShared(id) && !none.has(id);
    const found: [string, string[]][] = [];
    if (this.wet) {
      for (const id of [...this.wet].sort()) {
        const gaps = goes(id) ? await gapsOf(db, ofCase(id)) : [];
        const ids = gaps.map(([, fact]) => fact).filter((fact) => !this.unfit.has(fact));
        if (ids.length === 0) this.wet.delete(id);
        else found.push([id, ids]);
      }
      return found;
    }
    for (const [caseId, id] of await gapsOf(db, null)) {
      if (!goes(caseId) || this.unfit.has(id)) continue;
      const last = found.at(-1);
      if (last?.[0] === caseId) last[1].push(id);
      else found.push([caseId, [id]]);
    }
    this.wet = new Set(found.map(([id]) => id));
    return found;
  }

  private async remember(
    settings: { get(key: string): Promise<unknown>; put(value: unknown, key: string): Promise<unknown> },
    change: (m: Kept) => Kept,
  ): Promise<void> {
    const kept = MemorySchema.safeParse(await settings.get(SHELF_MEMORY));
    // left meanwhile: nothing is remembered of a shelf that this browser is not joined to
    if (kept.success) await settings.put(change(kept.data), SHELF_MEMORY);
  }

  private tellOther(id: string): void {
    this.told.aside({
      store: 'facts',
      id,
      why: mergeWords({ code: 'same_id_other_content', id }),
      record: { id },
    });
  }
}

/** Keys of facts that have no mark, in their order. */
async function gapsOf(db: IDBPDatabase<Records>, range: IDBKeyRange | null): Promise<[string, string][]> {
  const [facts, marks] = await Promise.all([db.getAllKeys('facts', range), db.getAllKeys('shelved', range)]);
  if (facts.length === marks.length) return [];
  const known = new Set(marks.map(([c, id]) => `${c}\n${id}`));
  return facts.filter(([c, id]) => !known.has(`${c}\n${id}`));
}
