import { inject, Injectable, type OnDestroy, signal } from '@angular/core';
import { BehaviorSubject, type Observable } from 'rxjs';
import { type Pack, packId } from '@core/catalogue/pack';
import type { Fact } from '@core/facts/fact';
import { type Result, err, ok } from '@core/quantity/result';
import { Database } from './database';
import { getPack, putPack } from './pack-records';
import { type StoreTrouble, troubleOf } from './store-trouble';

type News = { facts: readonly Fact[]; packIds: readonly string[]; extracts?: readonly string[] };
/** A record that cannot be what it says it is: set aside, so that the rest works, and kept for export. */
export type Damaged = { store: 'facts' | 'packs' | 'extracts'; id: string; why: string; record: unknown };

/** Facts and catalogue packs, kept in the browser's database and in step between windows. Only ever added to. */
@Injectable({ providedIn: 'root' })
export class FactRepository implements OnDestroy {
  private readonly database = inject(Database);
  private readonly factSubject = new BehaviorSubject<readonly Fact[]>([]);
  private readonly packSubject = new BehaviorSubject<ReadonlyMap<string, Pack>>(new Map());
  private readonly extractSubject = new BehaviorSubject<ReadonlyMap<string, Pack>>(new Map());
  private readonly channel = new BroadcastChannel('hollow-sprocket-facts');
  private readonly known = new Map<string, string>();
  private last: Promise<unknown> = Promise.resolve();

  readonly facts$: Observable<readonly Fact[]> = this.factSubject.asObservable();
  readonly packs$: Observable<ReadonlyMap<string, Pack>> = this.packSubject.asObservable();
  /** Parts of catalogues that came with case files, by case. */
  readonly extracts$: Observable<ReadonlyMap<string, Pack>> = this.extractSubject.asObservable();
  readonly damaged = signal<readonly Damaged[]>([]);

  constructor() {
    this.channel.onmessage = (e: MessageEvent<News>) => void this.hear(e.data);
  }

  /** Hears no more from other windows; the record store is closed by its own service. */
  ngOnDestroy(): void {
    this.channel.close();
    this.factSubject.complete();
    this.packSubject.complete();
    this.extractSubject.complete();
  }

  /** Reads everything once. What is damaged is set aside, and the rest opens. */
  async load(): Promise<void> {
    const db = await this.database.open();
    await this.hear({
      facts: await db.getAll('facts'),
      packIds: await db.getAllKeys('packs'),
      extracts: await db.getAllKeys('extracts'),
    });
  }

  /** Case that a fact id belongs to, if it is known. */
  caseOf(factId: string): string | undefined {
    return this.known.get(factId);
  }

  /**
   * Lets `build` make facts of a case as it stands in the store, and writes them in the same transaction: whatever other
   * windows do at the time, a correction corrects what stands. Resolves when the facts are on the disk.
   */
  extend(
    caseId: string,
    build: (facts: readonly Fact[]) => readonly Fact[],
  ): Promise<Result<readonly Fact[], StoreTrouble>> {
    return this.inTurn(async () => {
      const db = await this.database.open();
      const tx = db.transaction('facts', 'readwrite', { durability: 'strict' });
      // The abort that a refused write brings is told by the write itself.
      tx.done.catch(() => undefined);
      const stored = (await tx.store.index('case').getAll(caseId)).filter(isSound);
      const fresh = build(stored);
      for (const f of fresh) await tx.store.add(f);
      await tx.done;
      this.show([...stored, ...fresh], []);
      if (fresh.length) this.channel.postMessage({ facts: fresh, packIds: [] } satisfies News);
      return fresh;
    });
  }

  /** Adds facts and packs in one transaction: all or nothing. Known ids are left as they are. */
  add(
    facts: readonly Fact[],
    packs: readonly Pack[] = [],
    extract?: { case: string; pack: Pack },
  ): Promise<Result<readonly Fact[], StoreTrouble>> {
    return this.inTurn(async () => {
      const db = await this.database.open();
      const tx = db.transaction(['facts', 'packs', 'packRows', 'extracts'], 'readwrite', {
        durability: 'strict',
      });
      tx.done.catch(() => undefined);
      const fresh = facts.filter((f) => !this.known.has(f.id));
      for (const f of fresh) void tx.objectStore('facts').put(f).catch(ignored);
      const store = {
        packs: (v: Parameters<Parameters<typeof putPack>[0]['packs']>[0]) =>
          void tx.objectStore('packs').put(v).catch(ignored),
        rows: (v: unknown[], key: string) => void tx.objectStore('packRows').put(v, key).catch(ignored),
      };
      for (const p of packs) putPack(store, p);
      if (extract) void tx.objectStore('extracts').put(extract).catch(ignored);
      await tx.done;
      this.show(fresh, packs, extract ? [[extract.case, extract.pack]] : []);
      this.channel.postMessage({
        facts: fresh,
        packIds: packs.map(packId),
        extracts: extract ? [extract.case] : [],
      } satisfies News);
      return fresh;
    });
  }

  /** Shows a pack that another thread has written. */
  async packWritten(id: string): Promise<void> {
    await this.hear({ facts: [], packIds: [id] });
    this.channel.postMessage({ facts: [], packIds: [id] } satisfies News);
  }

  async setting(key: string): Promise<unknown> {
    return (await this.database.open()).get('settings', key);
  }

  async keepSetting(key: string, value: unknown): Promise<Result<true, StoreTrouble>> {
    return this.inTurn(async () => {
      await (await this.database.open()).put('settings', value, key);
      return true as const;
    });
  }

  /** One write after the other. A connection that was cut off is opened again once; what then fails is told. */
  private inTurn<T>(job: () => Promise<T>): Promise<Result<T, StoreTrouble>> {
    const run = async (): Promise<Result<T, StoreTrouble>> => {
      try {
        return ok(await job());
      } catch (first) {
        if (troubleOf(first).code !== 'closed') return err(troubleOf(first));
        this.database.lost();
        try {
          return ok(await job());
        } catch (second) {
          return err(troubleOf(second));
        }
      }
    };
    const next = this.last.then(run, run);
    this.last = next;
    return next;
  }

  private async hear(news: News): Promise<void> {
    const db = await this.database.open();
    const packs: Pack[] = [];
    const extracts: [string, Pack][] = [];
    for (const id of news.packIds) {
      try {
        const pack = await getPack(db, id);
        if (pack) packs.push(pack);
      } catch (e) {
        this.setAside({ store: 'packs', id, why: reason(e), record: await db.get('packs', id) });
      }
    }
    for (const id of news.extracts ?? []) {
      const record = await db.get('extracts', id);
      if (record?.pack && Array.isArray(record.pack.variants)) extracts.push([id, record.pack]);
      else this.setAside({ store: 'extracts', id, why: 'it holds no catalogue', record });
    }
    this.show(news.facts, packs, extracts);
  }

  private setAside(d: Damaged): void {
    if (!this.damaged().some((x) => x.store === d.store && x.id === d.id))
      this.damaged.update((all) => [...all, d]);
  }

  private show(
    facts: readonly Fact[],
    packs: readonly Pack[],
    extracts: readonly (readonly [string, Pack])[] = [],
  ): void {
    if (packs.length)
      this.packSubject.next(
        new Map([...this.packSubject.value, ...packs.map((p) => [packId(p), p] as const)]),
      );
    if (extracts.length) this.extractSubject.next(new Map([...this.extractSubject.value, ...extracts]));
    const fresh: Fact[] = [];
    for (const f of facts) {
      if (!isSound(f)) {
        const id = String((f as { id?: unknown }).id);
        this.setAside({ store: 'facts', id, why: 'a field is missing or of another kind', record: f });
      } else if (!this.known.has(f.id)) {
        this.known.set(f.id, f.case);
        fresh.push(f);
      }
    }
    if (fresh.length) this.factSubject.next([...this.factSubject.value, ...fresh]);
  }
}

/** The transaction as a whole tells what failed. */
const ignored = () => undefined;
const reason = (e: unknown): string => (e instanceof Error ? e.message : String(e));

/** Does a record have the fields by which a fact is sorted, shown and computed with? Cheap: asked of every one. */
function isSound(f: Fact): boolean {
  const list = (x: unknown) => x === undefined || Array.isArray(x);
  return (
    typeof f === 'object' &&
    typeof f.id === 'string' &&
    typeof f.case === 'string' &&
    typeof f.key === 'string' &&
    typeof f.at === 'string' &&
    typeof f.by === 'string' &&
    typeof f.how === 'string' &&
    f.value !== undefined &&
    f.value !== null &&
    list(f.basis) &&
    list(f.files) &&
    (f.about === undefined || typeof f.about === 'string') &&
    (f.place === undefined || (typeof f.place === 'object' && typeof f.place?.on === 'string'))
  );
}
