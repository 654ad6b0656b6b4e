import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { wayBackWords, brokenWords, oddWords, shownWords } from '../../messages/fitting';
import { FitStore } from './fit-store';

/** What was told of the fitting shows: faults with their steps, the shortest way back, and what nobody confirmed. */
@Component({
  selector: 'hs-found-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (found().length > 0) {
      <section class="card found" aria-label="What the fitting shows">
        <h2>What the fitting shows</h2>
        @for (f of found(); track f) {
          <div>{{ f }}</div>
        }
        @for (b of back(); track b) {
          <p class="caution">{{ b }}</p>
        }
      </section>
    }
    @if (unconfirmed(); as u) {
      <p class="quiet">Not confirmed, and so evidence of nothing: steps {{ u }}.</p>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .found {
      display: grid;
      gap: 4px;
      border-left: 4px solid var(--brass);
    }
    p {
      margin: 0;
    }
  `,
})
export class FoundCard {
  private readonly store = inject(FitStore);
  /** Faults first, then order that leads to none, then what does not agree. */
  protected readonly found = computed(() => {
    const [sheet, f] = [this.store.sheet(), this.store.fitted()];
    if (!sheet || !f) return [];
    const told = new Set(f.faults.map((x) => `${x.step} ${x.other ?? ''}`));
    const order = f.broken.filter(
      (b) => b.how === 'reversed' && !told.has(`${b.gate.after} ${b.gate.before}`),
    );
    return [
      ...f.faults.map((x) => shownWords(x, sheet)),
      ...order.map((b) => brokenWords(b, sheet)),
      ...f.odd.map((o) => oddWords(o, sheet)),
    ];
  });
  protected readonly back = computed(() => {
    const [sheet, f] = [this.store.sheet(), this.store.fitted()];
    return sheet && f ? wayBackWords(f, sheet) : [];
  });
  protected readonly unconfirmed = computed(() => {
    const ids = new Set(this.store.fitted()?.unconfirmed);
    return this.store
      .sheet()
      ?.steps.filter((s) => ids.has(s.id))
      .map((s) => s.number)
      .join(', ');
  });
}
