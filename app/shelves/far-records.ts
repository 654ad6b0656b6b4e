import type { IDBPDatabase } from 'idb';
import type { CaseSummary } from '@core/answer/case-summary';
import type { Fact } from '@core/facts/fact';
import { ofCase, type Records } from '../records/records';

const ignored = () => undefined;

/** Cases of which this browser has the summary alone: they come whole, and are let go again. */
export class FarRecords {
  constructor(private readonly open: () => Promise<IDBPDatabase<Records>>) {}

  /** Keeps summaries of cases whose facts are not here; of cases that are, nothing. Those that were kept come back. */
  async keep(all: readonly { summary: CaseSummary; facts: number }[]): Promise<CaseSummary[]> {
    const tx = (await this.open()).transaction(['facts', 'heads', 'elsewhere'], 'readwrite');
    tx.done.catch(ignored);
    const kept: CaseSummary[] = [];
    for (const { summary, facts } of all) {
      if ((await tx.objectStore('facts').getKey(ofCase(summary.id))) !== undefined) continue;
      void tx.objectStore('heads').put(summary).catch(ignored);
      void tx.objectStore('elsewhere').put({ id: summary.id, facts }).catch(ignored);
      kept.push(summary);
    }
    await tx.done;
    return kept;
  }

  /** Whether only the summary of a case is here, and of how many facts it was made. */
  async factsOf(id: string): Promise<number | undefined> {
    return (await (await this.open()).get('elsewhere', id))?.facts;
  }

  async count(): Promise<number> {
    return (await this.open()).count('elsewhere');
  }

  /** Puts a case here whole. */
  async bring(id: string, facts: readonly Fact[]): Promise<void> {
    const stores = ['facts', 'shelved', 'elsewhere'] as const;
    const tx = (await this.open()).transaction(stores, 'readwrite', { durability: 'strict' });
    tx.done.catch(ignored);
    const store = tx.objectStore('facts');
    for (const f of facts) {
      const owner = await store.index('id').getKey(f.id);
      if (f.case !== id || (owner !== undefined && owner[0] !== id)) continue;
      if (owner === undefined) void store.put(f).catch(ignored);
      void tx.objectStore('shelved').put({ case: id, id: f.id }).catch(ignored);
    }
    // its summary was made by whoever filed last
    void tx.objectStore('elsewhere').delete(id).catch(ignored);
    await tx.done;
  }

  /** Lets go of the facts of cases that stand on the shelf whole; their summaries stay. Those that went come back, with the files they point to. */
  async letGo(cases: readonly string[]): Promise<{ gone: string[]; files: string[] }> {
    const stores = ['facts', 'shelved', 'behind', 'elsewhere'] as const;
    const tx = (await this.open()).transaction(stores, 'readwrite', { durability: 'strict' });
    tx.done.catch(ignored);
    const gone: string[] = [];
    const files = new Set<string>();
    for (const id of cases) {
      const range = ofCase(id);
      const facts = await tx.objectStore('facts').count(range);
      const there = await tx.objectStore('shelved').count(range);
      if (facts === 0 || facts !== there || (await tx.objectStore('behind').get(id)) !== undefined) continue;
      for (const f of await tx.objectStore('facts').getAll(range))
        for (const file of f.files ?? []) files.add(file.hash);
      void tx.objectStore('facts').delete(range).catch(ignored);
      void tx.objectStore('shelved').delete(range).catch(ignored);
      void tx.objectStore('elsewhere').put({ id, facts }).catch(ignored);
      gone.push(id);
    }
    await tx.done;
    return { gone, files: [...files] };
  }
}
