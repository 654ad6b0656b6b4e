import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { heatEffect } from '@core/drive/heat';
import { CoolingWait } from '../../entry/cooling-wait';
import { heldWords } from '../../messages/drive-results';
import { FitStore } from './fit-store';

/** When the engine is cold, from two readings; and what setting it now would cost on this drive. */
@Component({
  selector: 'hs-heat-helper',
  imports: [CoolingWait],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="When it is cold">
      <h2>Two readings of the cooling block</h2>
      <hs-cooling-wait [within]="within()" (at)="second.set($event)" />
    </section>
    <section class="card" aria-label="Set now">
      <h2>What it would cost to set it now</h2>
      @for (line of cost(); track line) {
        <p>{{ line }}</p>
      } @empty {
        <p class="quiet">
          The second reading shows it, stage by stage, where the catalogue gives the growth.
        </p>
      }
      <p class="caution">Hot parts and fluids burn. Set it when engine and air agree.</p>
    </section>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 6px;
    }
    p {
      margin: 0;
    }
  `,
})
export class FitHeatPanel {
  private readonly store = inject(FitStore);
  protected readonly second = signal<number | undefined>(undefined);
  protected readonly within = computed(() => this.store.answers()?.policy.coldWithinK ?? 5);
  protected readonly cost = computed(() => {
    const at = this.second();
    if (at === undefined) return [];
    return this.store.stages().flatMap(({ layout }) => {
      const h = heatEffect(layout, at);
      return h.ok ? [heldWords(layout, at, h.value)] : [];
    });
  });
}
