import { inject, Injectable } from '@angular/core';
import { buildSearch, type Hit, search, type SearchIndex } from '@core/catalogue/search';
import type { Pack } from '@core/catalogue/pack';
import { CaseDesk } from './case-desk';

/** Finds in the newest catalogue; the index of a pack is built at the first search. */
@Injectable({ providedIn: 'root' })
export class Find {
  private readonly desk = inject(CaseDesk);
  private readonly indexes = new WeakMap<Pack, SearchIndex>();

  hits(typed: string, limit = 12): Hit[] {
    const pack = this.desk.newestPack();
    return pack ? search(this.indexOf(pack), typed, limit) : [];
  }

  private indexOf(pack: Pack): SearchIndex {
    const known = this.indexes.get(pack);
    if (known) return known;
    const made = buildSearch(pack);
    this.indexes.set(pack, made);
    return made;
  }
}
