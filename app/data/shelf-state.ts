import { computed, inject, Injectable, signal } from '@angular/core';
import type { Presence } from '@core/shelf/protocol';
import type { ShelfStanding } from '@core/shelf/standing';
import { Cases } from './cases';

/** Facts that came in to a case from other desks since it was looked at, and who filed them. */
export type CameIn = { ids: ReadonlySet<string>; by: readonly string[] };

/** What is known of the shelf, for whatever shows it; what makes it is fetched only where there is a shelf. */
@Injectable({ providedIn: 'root' })
export class ShelfState {
  private readonly cases = inject(Cases);
  readonly standing = signal<ShelfStanding>({ is: 'none' });
  /** Facts that are not on the shelf yet. */
  readonly waiting = signal(0);
  /** Which desks are in which case; this one is not among them. */
  readonly here = signal<readonly Presence[]>([]);
  /** The case in hand lies on the shelf alone: it is being fetched, or cannot be. */
  readonly fetching = signal<'no' | 'coming' | 'away'>('no');
  private readonly came = signal<ReadonlyMap<string, CameIn>>(new Map());
  /** Others in the case in hand. */
  readonly besides = computed(() => this.here().filter((h) => h.case === this.cases.currentId()));
  /** What came in to the case in hand. */
  readonly cameIn = computed(() => this.came().get(this.cases.currentId() ?? ''));

  add(caseId: string, facts: readonly { id: string; by: string }[]): void {
    this.came.update((all) => {
      const before = all.get(caseId);
      return new Map(all).set(caseId, {
        ids: new Set([...(before?.ids ?? []), ...facts.map((f) => f.id)]),
        by: [...new Set([...(before?.by ?? []), ...facts.map((f) => f.by)])],
      });
    });
  }

  /** What came in to the case in hand was seen. */
  seen(): void {
    const id = this.cases.currentId();
    this.came.update((all) => new Map([...all].filter(([c]) => c !== id)));
  }
}
