import { effect, inject, Injectable, signal } from '@angular/core';
import { type Hit, search, searchBuilder, type SearchIndex } from '@core/catalogue/search';
import type { Pack } from '@core/catalogue/pack';
import { Packs } from './packs';

/** Milliseconds of building before the screen gets its turn. */
const TURN_MS = 8;

/** Finds in the newest catalogue. Its index is built in the background, turn by turn, as soon as the catalogue is here. */
@Injectable({ providedIn: 'root' })
export class Find {
  private readonly packs = inject(Packs);
  private readonly ready = signal<{ pack: Pack; index: SearchIndex } | undefined>(undefined);

  constructor() {
    effect(() => {
      const pack = this.packs.newest()?.pack;
      if (pack && this.ready()?.pack !== pack) void this.build(pack);
    });
  }

  /** Empty while the index of a new catalogue is being built; it comes by itself. */
  hits(typed: string, limit = 12): Hit[] {
    const ready = this.ready();
    return ready && typed.trim() !== '' ? search(ready.index, typed, limit) : [];
  }

  private async build(pack: Pack): Promise<void> {
    const builder = searchBuilder(pack);
    let turn = performance.now();
    for (;;) {
      const step = builder.next();
      if (step.done) {
        if (this.packs.newest()?.pack === pack) this.ready.set({ pack, index: step.value });
        return;
      }
      if (performance.now() - turn > TURN_MS) {
        await new Promise((rest) => setTimeout(rest));
        if (this.packs.newest()?.pack !== pack) return;
        turn = performance.now();
      }
    }
  }
}
