import { computed, inject, Injectable, signal } from '@angular/core';
import { type Catalogue, catalogueOf } from '@core/catalogue/find-records';
import type { Pack } from '@core/catalogue/pack';
import { newerFirst } from '@core/catalogue/version';
import { Database } from './database';
import { FactRepository, type News } from './fact-repository';
import { getPack } from '../records/pack-records';
import { PACK_SHAPE } from '../records/records';

/** A pack by its name, without its rows. */
export type PackName = { id: string; name: string; version: string; issued: string };

/** Catalogues of this browser. All are known by name; one is read when a case, or the screen, wants it. */
@Injectable({ providedIn: 'root' })
export class Packs {
  private readonly database = inject(Database);
  private readonly repository = inject(FactRepository);
  private readonly reading = new Map<string, Promise<Catalogue | undefined>>();
  private readonly extracts = new Map<string, Catalogue>();
  private readonly inMemory = signal<ReadonlyMap<string, Catalogue>>(new Map());

  /** All packs, the one issued last first. */
  readonly names = signal<readonly PackName[]>([]);
  /** True once it is known which packs are here. */
  readonly known = signal(false);
  /** Catalogues that were read, by pack id. */
  readonly loaded = this.inMemory.asReadonly();
  readonly newestId = computed(() => this.names()[0]?.id);
  /** The catalogue that new cases answer with: the one issued last, once it is read. */
  readonly newest = computed<Catalogue | undefined>(() => this.loaded().get(this.newestId() ?? ''));

  constructor() {
    this.repository.news$.subscribe((news) => void this.hear(news));
  }

  /** Reads the names of all packs; the newest itself is read in the background. */
  async load(): Promise<void> {
    const found: PackName[] = [];
    for (const r of await this.database.read((db) => db.getAll('packs'))) {
      const head = r.head as Partial<Pack> | undefined;
      if (typeof head?.name === 'string' && typeof head.version === 'string' && Array.isArray(r.chunks))
        found.push({ id: r.id, name: head.name, version: head.version, issued: head.issued ?? '' });
      else this.repository.setAside({ store: 'packs', id: r.id, why: 'it holds no catalogue', record: r });
    }
    this.names.set(found.sort(newerFirst));
    this.known.set(true);
    const [newest] = found;
    if (newest) void this.read(newest.id);
  }

  /** A pack's catalogue, read once. */
  read(id: string): Promise<Catalogue | undefined> {
    const known = this.reading.get(id);
    if (known) return known;
    const made = this.fetch(id);
    this.reading.set(id, made);
    return made;
  }

  /** The catalogue that answers a case: the pack that it names, else the part of one that came with it, else the newest. */
  async forCase(caseId: string, named: string | undefined): Promise<Catalogue | undefined> {
    if (named !== undefined && this.names().some((h) => h.id === named)) return this.read(named);
    const extract = this.extracts.get(caseId) ?? (await this.extractOf(caseId));
    if (extract) return extract;
    const newest = this.newestId();
    return newest === undefined ? undefined : this.read(newest);
  }

  private async fetch(id: string): Promise<Catalogue | undefined> {
    try {
      const pack = await this.database.read((db) => getPack(db, id));
      if (!pack || !(await this.reads(id, pack))) return undefined;
      const made = catalogueOf(pack);
      this.inMemory.update((all) => new Map([...all, [id, made]]));
      return made;
    } catch (e) {
      this.reading.delete(id);
      // What the store refuses is no fault of the pack: it is read again when it is wanted again.
      if (!(e instanceof DOMException))
        this.repository.setAside({ store: 'packs', id, why: String(e), record: { id } });
      return undefined;
    }
  }

  /** A catalogue of an earlier make must be one by today's schema; if not, it is set aside with the place. */
  private async reads(id: string, pack: Pack): Promise<boolean> {
    const record = await this.database.read((db) => db.get('packs', id));
    if (!record || record.shape === PACK_SHAPE) return true;
    const { whyNoPack } = await import('./why-no-pack');
    const why = whyNoPack(pack);
    if (why !== undefined) {
      this.repository.setAside({ store: 'packs', id, why, record: pack });
      this.names.update((all) => all.filter((h) => h.id !== id));
      this.reading.delete(id);
      return false;
    }
    await this.database.read((db) => db.put('packs', { ...record, shape: PACK_SHAPE }));
    return true;
  }

  private async extractOf(caseId: string): Promise<Catalogue | undefined> {
    const record = await this.database.read((db) => db.get('extracts', caseId));
    if (!record) return undefined;
    if (!Array.isArray((record.pack as Partial<Pack> | undefined)?.variants)) {
      this.repository.setAside({ store: 'extracts', id: caseId, why: 'it holds no catalogue', record });
      return undefined;
    }
    const made = catalogueOf(record.pack);
    this.extracts.set(caseId, made);
    return made;
  }

  private async hear(news: News): Promise<void> {
    for (const id of news.extracts) this.extracts.delete(id);
    if (news.packs.some((id) => !this.names().some((h) => h.id === id))) await this.load();
  }
}
