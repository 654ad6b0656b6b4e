import type { Fact, FileRef } from '@core/facts/fact';
import type { Database } from '../data/database';
import type { FactRepository } from '../data/fact-repository';
import type { ChosenFolder } from '../records/chosen-folder';
import type { HttpShelf } from './http-shelf';
import { hashOf } from '../records/hash';
import { isShared } from './shelf-records';

type Way = { http?: HttpShelf; folder?: ChosenFolder };

/** Photographs, captures and papers of shared cases: each goes to the shelf once, and comes when a fact points to it. */
export class FilesOnShelf {
  private readonly missingHere = new Map<string, FileRef>();
  /** Files of which it is known that the shelf has them. */
  private readonly there = new Set<string>();
  /** Files that were here when all facts were last looked through; undefined: not yet. */
  private looked: number | undefined;

  constructor(
    private readonly repository: FactRepository,
    private readonly database: Database,
    /** Cases that do not go to the shelf: their files do not either. */
    private readonly kept: () => ReadonlySet<string>,
  ) {}

  /** Facts came that may point to files. */
  wanted(facts: readonly Fact[]): void {
    for (const f of facts) for (const file of f.files ?? []) this.missingHere.set(file.hash, file);
  }

  async exchange(way: Way): Promise<void> {
    const count = await this.database.read((db) => db.count('files'));
    if (this.looked !== count) await this.look(way, count);
    await this.fetchMissing(way);
  }

  /** Looks through all facts: files that they point to go to the shelf, and those that are not here are wanted from it. */
  private async look(way: Way, count: number): Promise<void> {
    const kept = this.kept();
    const pointed = await this.pointedTo((id) => isShared(id) && !kept.has(id));
    const mine = (await this.database.read((db) => db.getAllKeys('files'))).filter((h) => pointed.has(h));
    const whole = await this.put(way, mine);
    const own = new Set(mine);
    for (const [hash, file] of pointed) if (!own.has(hash)) this.missingHere.set(hash, file);
    if (whole) this.looked = count;
  }

  private async fetchMissing(way: Way): Promise<void> {
    for (const [hash, file] of [...this.missingHere]) {
      const blob = (await this.repository.fileOf(hash)) ? undefined : await this.fetch(way, hash);
      if (blob === 'gone') continue;
      if (blob) {
        const kept = await this.repository.keepFile({
          sha256: hash,
          name: file.name,
          type: file.type,
          blob: new Blob([blob], { type: file.type }),
        });
        if (!kept.ok) return;
      }
      this.missingHere.delete(hash);
    }
  }

  /** True when all of them are there. */
  private async put({ http, folder }: Way, hashes: readonly string[]): Promise<boolean> {
    const open = hashes.filter((h) => !this.there.has(h));
    if (open.length === 0) return true;
    let gone: readonly string[] = [];
    if (http) {
      const asked = await http.missingFiles(open);
      if (!asked.ok) return false;
      gone = asked.value;
    } else if (folder) {
      const read = await Promise.all(open.map(async (h) => ((await folder.byHash(h)) ? [] : [h])));
      gone = read.flat();
    }
    const missing = new Set(gone);
    for (const h of open) if (!missing.has(h)) this.there.add(h);
    for (const h of gone) {
      const file = await this.repository.fileOf(h);
      if (!file) continue;
      if (http) {
        const done = await http.putFile(h, new Uint8Array(await file.blob.arrayBuffer()));
        if (!done.ok) return false;
      } else await folder?.keepByHash(h, file.blob);
      this.there.add(h);
    }
    return true;
  }

  /** The content of a file, or that it is not there yet. */
  private async fetch({ http, folder }: Way, hash: string): Promise<Blob | 'gone'> {
    if (folder) return (await folder.byHash(hash)) ?? 'gone';
    const came = await http?.file(hash);
    if (!came?.ok || (await hashOf(came.value)) !== hash) return 'gone';
    return new Blob([came.value]);
  }

  /** Lets go of files that nothing here points to any more and that the shelf has. How many went. */
  async letGo(http: HttpShelf, hashes: readonly string[]): Promise<number> {
    const pointed = await this.pointedTo(() => true);
    const free = hashes.filter((h) => !pointed.has(h));
    const asked = free.length === 0 ? undefined : await http.missingFiles(free);
    if (!asked?.ok) return 0;
    const only = new Set(asked.value);
    const gone = free.filter((h) => !only.has(h));
    const tx = (await this.database.open()).transaction('files', 'readwrite', { durability: 'strict' });
    tx.done.catch(() => undefined);
    for (const h of gone) void tx.store.delete(h).catch(() => undefined);
    await tx.done;
    return gone.length;
  }

  /** Files that facts of such cases point to. */
  private async pointedTo(cases: (id: string) => boolean): Promise<ReadonlyMap<string, FileRef>> {
    const found = new Map<string, FileRef>();
    for await (const facts of this.repository.allFacts())
      for (const f of facts) if (cases(f.case)) for (const file of f.files ?? []) found.set(file.hash, file);
    return found;
  }
}
