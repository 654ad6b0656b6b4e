import { inject, Injectable, type OnDestroy, signal } from '@angular/core';
import { type Observable, Subject } from 'rxjs';
import type { CaseSummary } from '@core/answer/case-summary';
import type { Pack } from '@core/catalogue/pack';
import { must } from '@core/quantity/must';
import { packId } from '@core/catalogue/version';
import { mergeCase } from '@core/facts/consistent';
import { type Fact, FactSchema, MOST_FACTS } from '@core/facts/fact';
import { isPractice } from '@core/facts/practice';
import { type Result, ok } from '@core/quantity/result';
import { type Damaged, mergeWords, whyUnfit } from '../records/damaged';
import { Database } from './database';
import { putPack } from '../records/pack-records';
import { LEFT_OVER } from '../records/upgrade-layout';
import { type FileRecord, ofCase, putSummaries } from '../records/records';
import { validFacts, standingOf } from '../records/valid-facts';
import { type StoreTrouble, Unfit } from './store-trouble';
import { WriteQueue } from './write-queue';

/** What was written, by this window or another: summaries of the cases that changed, packs and parts of packs that came. */
export type News = {
  /** Cases that got facts. */
  grown: readonly string[];
  summaries: readonly CaseSummary[];
  packs: readonly string[];
  extracts: readonly string[];
  /** A setting that windows share was written: read it again. */
  setting?: string;
  /** Summaries of many cases were made anew: read them again. */
  allSummaries?: true;
  /** Another window wrote it. */
  elsewhere?: true;
};
/** Makes the summary of a case from all of its facts. */
export type SummaryMaker = (caseId: string, facts: readonly Fact[]) => CaseSummary;
/** What can be added at once: all or nothing. Facts and files whose ids are here already are left as they are. */
export type Addition = {
  facts?: readonly Fact[];
  files?: readonly FileRecord[];
  packs?: readonly Pack[];
  extract?: { case: string; pack: Pack } | undefined;
  /** Summaries of cases that come whole, made already. */
  summaries?: readonly CaseSummary[];
};

/** The browser's records of cases: read by case, only ever added to, in step between windows. */
@Injectable({ providedIn: 'root' })
export class FactRepository implements OnDestroy {
  private readonly database = inject(Database);
  /** Its number grows with the form of {@link News}: a window of an earlier make would not understand. */
  private readonly channel = new BroadcastChannel('hollow-sprocket-news-2');
  private readonly newsSubject = new Subject<News>();
  private readonly writes = new WriteQueue(() => this.database.lost());
  private ended = false;
  readonly news$: Observable<News> = this.newsSubject.asObservable();
  readonly damaged = signal<readonly Damaged[]>([]);
  readonly trouble = this.writes.trouble;

  constructor() {
    this.channel.onmessage = (e: MessageEvent<News>) => this.newsSubject.next({ ...e.data, elsewhere: true });
  }

  /** Hears no more from other windows; the record store is closed by its own service. */
  ngOnDestroy(): void {
    this.ended = true;
    this.writes.close();
    this.channel.close();
    this.newsSubject.complete();
  }

  /** Facts of a case. What is damaged is set aside. */
  async factsOf(caseId: string): Promise<Fact[]> {
    return this.standing(await this.database.read((db) => db.getAll('facts', ofCase(caseId))));
  }

  /** All facts of all cases, in pieces that need not much memory. */
  async *allFacts(): AsyncGenerator<readonly Fact[]> {
    let range: IDBKeyRange | null = null;
    for (;;) {
      const from: IDBKeyRange | null = range;
      const facts = await this.database.read((db) => db.getAll('facts', from, PIECE));
      const last = facts.at(-1);
      if (!last) return;
      yield this.sound(facts);
      range = IDBKeyRange.lowerBound([last.case, last.id], true);
    }
  }

  /** The first of these facts whose id belongs to another case here. */
  foreign(facts: readonly Fact[]): Promise<Fact | undefined> {
    return this.database.read(async (db) => {
      const index = db.transaction('facts').store.index('id');
      const known = await Promise.all(facts.map((f) => index.getKey(f.id)));
      return facts.find((f, i) => known[i] !== undefined && known[i]?.[0] !== f.case);
    });
  }

  /**
   * Writes further facts of a case, made by `build` from what stands in the store at the time: whatever other windows do, a
   * correction corrects what stands. What the caller has seen is not read again where it is still all there is. Resolves when
   * they are on the disk, with all facts of the case; its summary is then behind until it is kept.
   * @param seen facts of the case as the caller knows them
   */
  extend(
    caseId: string,
    build: (facts: readonly Fact[]) => readonly Fact[],
    seen?: readonly Fact[],
  ): Promise<Result<{ all: readonly Fact[]; fresh: readonly Fact[] }, StoreTrouble>> {
    return this.writes.put(async () => {
      if (isPractice(caseId)) throw new Unfit('a return for practice is no case');
      const db = await this.database.open();
      const prepared = seen && { of: new Set(seen.map((f) => f.id)), fresh: fitting(build(seen)) };
      const tx = db.transaction(['facts', 'behind'], 'readwrite', { durability: 'strict' });
      // The abort that a refused write brings is told by the write itself.
      tx.done.catch(() => undefined);
      const facts = tx.objectStore('facts');
      const keys = prepared ? await facts.getAllKeys(ofCase(caseId)) : [];
      const still = prepared?.of.size === keys.length && keys.every(([, id]) => prepared.of.has(id));
      const stored = seen && still ? seen : this.standing(await facts.getAll(ofCase(caseId)));
      const fresh = prepared && still ? prepared.fresh : fitting(build(stored));
      const all = [...stored, ...fresh];
      if (all.length > MOST_FACTS) throw new Unfit(`the case would hold more than ${MOST_FACTS} facts`);
      for (const f of fresh) await facts.add(f);
      if (fresh.length > 0) await tx.objectStore('behind').put(all.length, caseId);
      await tx.done;
      if (fresh.length > 0) this.tell({ grown: [caseId], summaries: [], packs: [], extracts: [] });
      return { all, fresh };
    });
  }

  /**
   * Adds facts, files and packs in one transaction: all or nothing, and nothing that cannot stand with what is here. Summaries of
   * cases that grew and brought none are made by `headFor` afterwards.
   */
  async add(
    { facts = [], files = [], packs = [], extract, summaries = [] }: Addition,
    headFor?: SummaryMaker,
  ): Promise<Result<readonly CaseSummary[], StoreTrouble>> {
    const added = await this.writes.put(async () => {
      const db = await this.database.open();
      const stores = ['facts', 'heads', 'behind', 'files', 'packs', 'packRows', 'extracts'] as const;
      const tx = db.transaction(stores, 'readwrite', { durability: 'strict' });
      tx.done.catch(() => undefined);
      const store = tx.objectStore('facts');
      const whole = new Set(summaries.map((h) => h.id));
      const grown = new Map<string, readonly Fact[]>();
      for (const id of new Set(facts.map((f) => f.case))) {
        const stored = this.standing(await store.getAll(ofCase(id)));
        const own = facts.filter((f) => f.case === id);
        const merged = mergeCase(stored, own);
        if (!merged.ok) {
          tx.abort();
          throw new Unfit(mergeWords(merged.error));
        }
        const known = new Set(stored.map((f) => f.id));
        const fresh = own.filter((f) => !known.has(f.id));
        // What lies there damaged under the same id is mended by the whole one.
        for (const f of fresh) void store.put(f).catch(ignored);
        if (fresh.length === 0) continue;
        grown.set(id, merged.value);
        if (!whole.has(id)) void tx.objectStore('behind').put(merged.value.length, id).catch(ignored);
      }
      for (const h of summaries) void tx.objectStore('heads').put(h).catch(ignored);
      for (const f of files) void tx.objectStore('files').put(f).catch(ignored);
      const rows = {
        packs: (v: Parameters<Parameters<typeof putPack>[0]['packs']>[0]) =>
          void tx.objectStore('packs').put(v).catch(ignored),
        rows: (v: unknown[], key: string) => void tx.objectStore('packRows').put(v, key).catch(ignored),
      };
      for (const p of packs) putPack(rows, p);
      if (extract) void tx.objectStore('extracts').put(extract).catch(ignored);
      await tx.done;
      this.tell({
        grown: [...grown.keys()],
        summaries,
        packs: packs.map(packId),
        extracts: extract ? [extract.case] : [],
      });
      return grown;
    });
    if (!added.ok) return added;
    const late = [...added.value].filter(([id]) => headFor && !summaries.some((h) => h.id === id));
    const made = late.map(([id, all]) => ({ summary: must(headFor)(id, all), facts: all.length }));
    if (made.length > 0) await this.keepSummaries(made);
    return ok([...summaries, ...made.map((m) => m.summary)]);
  }

  /**
   * Keeps summaries, each made from so many facts. The rack shows them at once, here and in other windows; they are written after
   * that. Where more was filed meanwhile, what is kept of it is shown instead.
   */
  keepSummaries(
    made: readonly { summary: CaseSummary; facts: number }[],
  ): Promise<Result<true, StoreTrouble>> {
    const show = (summaries: readonly CaseSummary[]) =>
      this.tell({ grown: [], summaries, packs: [], extracts: [] });
    show(made.map((m) => m.summary));
    return this.writes.put(async () => {
      const tx = (await this.database.open()).transaction(['heads', 'behind'], 'readwrite');
      tx.done.catch(() => undefined);
      const newer = await putSummaries(tx.objectStore('heads'), tx.objectStore('behind'), made);
      await tx.done;
      if (newer.length > 0) show(newer);
      return true as const;
    }, QUIET);
  }

  /** Cases whose summary is behind: somebody closed the browser between a filing and its summary. */
  behind(): Promise<readonly string[]> {
    return this.database.read((db) => db.getAllKeys('behind'));
  }

  /** Keeps a file, once per content; resolves when it is on the disk. */
  keepFile(file: FileRecord): Promise<Result<true, StoreTrouble>> {
    return this.writes.put(async () => {
      const tx = (await this.database.open()).transaction('files', 'readwrite', { durability: 'strict' });
      tx.done.catch(() => undefined);
      if ((await tx.store.getKey(file.sha256)) === undefined) await tx.store.put(file);
      await tx.done;
      return true as const;
    });
  }

  fileOf(sha256: string): Promise<FileRecord | undefined> {
    return this.database.read((db) => db.get('files', sha256));
  }

  /** Tells this window and the others what was written, here or by a thread. */
  tell(news: News): void {
    if (this.ended) return;
    this.newsSubject.next(news);
    this.channel.postMessage(news);
  }

  /** Resolves when everything that was to be written by now is on the disk, or was refused. */
  written(): Promise<void> {
    return this.writes.written();
  }

  setting(key: string): Promise<unknown> {
    return this.database.read((db) => db.get('settings', key));
  }

  async keepSetting(key: string, value: unknown): Promise<Result<true, StoreTrouble>> {
    return this.writes.put(async () => {
      await (await this.database.open()).put('settings', value, key);
      return true as const;
    }, QUIET);
  }

  /**
   * Makes a setting from what is kept of it at the time of writing, in one transaction, so that what another window kept meanwhile is not lost. Nothing is written where
   * `make` refuses. Resolves when it is on the disk; other windows are told.
   */
  async growSetting<T, E>(
    key: string,
    make: (kept: unknown) => Result<T, E>,
  ): Promise<Result<T, E | StoreTrouble>> {
    const written = await this.writes.put(async () => {
      const db = await this.database.open();
      const tx = db.transaction('settings', 'readwrite', { durability: 'strict' });
      tx.done.catch(() => undefined);
      const made = make(await tx.store.get(key));
      if (made.ok) await tx.store.put(made.value, key);
      await tx.done;
      if (made.ok) this.tell({ grown: [], summaries: [], packs: [], extracts: [], setting: key });
      return made;
    });
    return written.ok ? written.value : written;
  }

  /** Lists what earlier migrations could not carry over. */
  async recallLeftOver(): Promise<void> {
    const left = await this.setting(LEFT_OVER);
    for (const record of Array.isArray(left) ? (left as { id?: unknown }[]) : [])
      this.setAside({ store: 'facts', id: String(record.id), why: 'it belongs to no case', record });
  }

  setAside(d: Damaged): void {
    if (!this.damaged().some((x) => x.store === d.store && x.id === d.id))
      this.damaged.update((all) => [...all, d]);
  }

  /** Facts of one case that can stand together; what cannot is set aside with its reason. */
  private standing(facts: readonly Fact[]): Fact[] {
    return [...standingOf(facts, (d) => this.setAside(d))];
  }

  private sound(facts: readonly Fact[]): Fact[] {
    return validFacts(facts, (d) => this.setAside(d));
  }
}

/** Facts that can be read again, here and from a file; nothing else is written. */
function fitting(facts: readonly Fact[]): readonly Fact[] {
  for (const f of facts) {
    const fits = FactSchema.safeParse(f);
    if (!fits.success) throw new Unfit(whyUnfit(f, fits.error));
  }
  return facts;
}

/** Facts that are read at once when all are wanted. */
const PIECE = 8000;
/** What nobody filed, summaries and settings, neither tells trouble nor takes back what was told of a filing. */
const QUIET = true;
/** The transaction as a whole tells what failed. */
const ignored = () => undefined;
