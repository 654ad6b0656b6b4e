import { inject, Injectable, type OnDestroy } from '@angular/core';
import { BehaviorSubject, type Observable } from 'rxjs';
import { type Pack, packId } from '@core/catalogue/pack';
import type { Fact } from '@core/facts/fact';
import { Database } from './database';
import { getPack, putPack } from './pack-records';

type News = { facts: readonly Fact[]; packIds: readonly string[] };

/** Facts and catalogue packs, kept in the browser's database and in step between windows. Only ever added to. */
@Injectable({ providedIn: 'root' })
export class FactRepository implements OnDestroy {
  private readonly database = inject(Database);
  private readonly factSubject = new BehaviorSubject<readonly Fact[]>([]);
  private readonly packSubject = new BehaviorSubject<ReadonlyMap<string, Pack>>(new Map());
  private readonly channel = new BroadcastChannel('hollow-sprocket-facts');

  readonly facts$: Observable<readonly Fact[]> = this.factSubject.asObservable();
  readonly packs$: Observable<ReadonlyMap<string, Pack>> = this.packSubject.asObservable();

  constructor() {
    this.channel.onmessage = (e: MessageEvent<News>) => void this.hear(e.data);
  }

  /** Hears no more from other windows; the record store is closed by its own service. */
  ngOnDestroy(): void {
    this.channel.close();
    this.factSubject.complete();
    this.packSubject.complete();
  }

  /** Reads everything once. */
  async load(): Promise<void> {
    const db = await this.database.open();
    await this.hear({ facts: await db.getAll('facts'), packIds: await db.getAllKeys('packs') });
  }

  /** Adds facts and packs in one transaction: all or nothing. Known ids are left as they are. */
  async add(facts: readonly Fact[], packs: readonly Pack[] = []): Promise<void> {
    const db = await this.database.open();
    const tx = db.transaction(['facts', 'packs', 'packRows'], 'readwrite', { durability: 'strict' });
    const known = new Set(this.factSubject.value.map((f) => f.id));
    const fresh = facts.filter((f) => !known.has(f.id));
    for (const f of fresh) void tx.objectStore('facts').put(f);
    const store = {
      packs: (v: Parameters<Parameters<typeof putPack>[0]['packs']>[0]) =>
        void tx.objectStore('packs').put(v),
      rows: (v: unknown[], key: string) => void tx.objectStore('packRows').put(v, key),
    };
    for (const p of packs) putPack(store, p);
    await tx.done;
    this.show(fresh, packs);
    this.channel.postMessage({ facts: fresh, packIds: packs.map(packId) } satisfies News);
  }

  /** Shows a pack that another thread has written. */
  async packWritten(id: string): Promise<void> {
    await this.hear({ facts: [], packIds: [id] });
    this.channel.postMessage({ facts: [], packIds: [id] } satisfies News);
  }

  async setting(key: string): Promise<unknown> {
    return (await this.database.open()).get('settings', key);
  }

  async keepSetting(key: string, value: unknown): Promise<void> {
    await (await this.database.open()).put('settings', value, key);
  }

  private async hear(news: News): Promise<void> {
    const db = await this.database.open();
    const packs: Pack[] = [];
    for (const id of news.packIds) {
      const pack = await getPack(db, id);
      if (pack) packs.push(pack);
    }
    this.show(news.facts, packs);
  }

  private show(facts: readonly Fact[], packs: readonly Pack[]): void {
    if (packs.length)
      this.packSubject.next(
        new Map([...this.packSubject.value, ...packs.map((p) => [packId(p), p] as const)]),
      );
    const known = new Set(this.factSubject.value.map((f) => f.id));
    const fresh = facts.filter((f) => !known.has(f.id));
    if (fresh.length) this.factSubject.next([...this.factSubject.value, ...fresh]);
  }
}
