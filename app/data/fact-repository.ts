import { inject, Injectable } from '@angular/core';
import { BehaviorSubject, type Observable } from 'rxjs';
import type { Pack } from '@core/catalogue/pack';
import { packId } from '@core/catalogue/pack';
import type { Fact } from '@core/facts/fact';
import { Database } from './database';

type News = { facts: Fact[]; packs: Pack[] };

/** Facts and catalogue packs, kept in the browser's database and in step between windows. Only ever added to. */
@Injectable({ providedIn: 'root' })
export class FactRepository {
  private readonly database = inject(Database);
  private readonly factSubject = new BehaviorSubject<readonly Fact[]>([]);
  private readonly packSubject = new BehaviorSubject<ReadonlyMap<string, Pack>>(new Map());
  private readonly channel = new BroadcastChannel('hollow-sprocket-facts');

  readonly facts$: Observable<readonly Fact[]> = this.factSubject.asObservable();
  readonly packs$: Observable<ReadonlyMap<string, Pack>> = this.packSubject.asObservable();

  constructor() {
    this.channel.onmessage = (e: MessageEvent<News>) => this.show(e.data);
  }

  /** Reads everything once. */
  async load(): Promise<void> {
    const db = await this.database.open();
    const [facts, packs] = await Promise.all([db.getAll('facts'), db.getAll('packs')]);
    this.show({ facts, packs });
  }

  /** Adds facts and packs in one transaction: all or nothing. Known ids are left as they are. */
  async add(facts: readonly Fact[], packs: readonly Pack[] = []): Promise<void> {
    const db = await this.database.open();
    const tx = db.transaction(['facts', 'packs'], 'readwrite', { durability: 'strict' });
    const known = new Set(this.factSubject.value.map((f) => f.id));
    const fresh = facts.filter((f) => !known.has(f.id));
    for (const f of fresh) void tx.objectStore('facts').put(f);
    for (const p of packs) void tx.objectStore('packs').put(p, packId(p));
    await tx.done;
    const news: News = { facts: [...fresh], packs: [...packs] };
    this.show(news);
    this.channel.postMessage(news);
  }

  async setting(key: string): Promise<unknown> {
    return (await this.database.open()).get('settings', key);
  }

  async keepSetting(key: string, value: unknown): Promise<void> {
    await (await this.database.open()).put('settings', value, key);
  }

  private show(news: News): void {
    if (news.packs.length) {
      this.packSubject.next(
        new Map([...this.packSubject.value, ...news.packs.map((p) => [packId(p), p] as const)]),
      );
    }
    const known = new Set(this.factSubject.value.map((f) => f.id));
    const fresh = news.facts.filter((f) => !known.has(f.id));
    if (fresh.length) this.factSubject.next([...this.factSubject.value, ...fresh]);
  }
}
