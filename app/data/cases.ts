import { inject, Injectable, signal } from '@angular/core';
import { findSummaries } from '@core/answer/find-summaries';
import type { CaseSummary } from '@core/answer/case-summary';
import { Database } from './database';
import { FactRepository } from './fact-repository';
import { SHELF_MARK } from './shelf-link';

/** The rack: a summary of every case, newest first. Nothing here is computed; opening a case is the desk's work. */
@Injectable({ providedIn: 'root' })
export class Cases {
  private readonly database = inject(Database);
  private readonly repository = inject(FactRepository);
  private readonly all = signal<readonly CaseSummary[]>([]);
  readonly summaries = this.all.asReadonly();
  /** Id of the case in hand. */
  readonly currentId = signal<string | undefined>(undefined);

  constructor() {
    this.repository.news$.subscribe((news) => {
      if (news.allSummaries) void this.load();
      else this.put(news.summaries);
    });
  }

  async load(): Promise<void> {
    // What the rack shows already may still be on its way to the disk.
    await this.repository.written();
    const [heads, mark] = await this.database.read((db) =>
      Promise.all([db.getAll('heads'), db.get('settings', SHELF_MARK)]),
    );
    if (this.mark() === undefined) this.mark.set(typeof mark === 'string' ? mark : '');
    this.all.set(heads.sort(rackOrder));
  }

  /** Stands behind the numbers of new cases while another desk may give the same ones: told apart, both can be called by their numbers. */
  readonly mark = signal<string | undefined>(undefined);

  /** Puts the case in hand back. */
  putBack(): void {
    this.currentId.set(undefined);
  }

  /** Cases whose facts hold everything typed, newest first. */
  find(typed: string): readonly CaseSummary[] {
    return findSummaries(this.all(), typed);
  }

  /** The case that stands before or after another on the rack. */
  beside(id: string | undefined, by: 1 | -1): CaseSummary | undefined {
    const all = this.all();
    const at = all.findIndex((h) => h.id === id);
    return all[(at + by + all.length) % all.length];
  }

  /** The number for the next new case. */
  nextNumber(): number {
    return this.all().reduce((most, h) => Math.max(most, Number.parseInt(h.tag, 10) || 0), 2000) + 1;
  }

  nextTag(): string {
    return `${this.nextNumber()}${this.mark() ?? ''}`;
  }

  private put(summaries: readonly CaseSummary[]): void {
    if (summaries.length === 0) return;
    const fresh = new Map(summaries.map((h) => [h.id, h]));
    let promised = false;
    const kept = this.all().map((h) => {
      const now = fresh.get(h.id);
      fresh.delete(h.id);
      promised ||= now !== undefined && now.back !== h.back;
      return now ?? h;
    });
    const all = [...fresh.values(), ...kept];
    this.all.set(fresh.size > 0 || promised ? all.sort(rackOrder) : kept);
  }
}

/** Calls that were promised stand on top, the earliest first; then the newest case. */
const rackOrder = (a: CaseSummary, b: CaseSummary): number => {
  if (a.back !== b.back)
    return a.back === undefined ? 1 : b.back === undefined ? -1 : a.back < b.back ? -1 : 1;
  return newestFirst(a, b);
};

const newestFirst = (a: CaseSummary, b: CaseSummary): number =>
  a.opened < b.opened ? 1 : a.opened > b.opened ? -1 : a.id < b.id ? 1 : -1;
