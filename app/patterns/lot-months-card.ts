import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import type { LotMonths } from '@core/patterns/charts';
import { SPAN_LINES, spansWords, watchWords } from '../messages/bulletins';
import { Segmented } from '../ui/segmented';
import { ChartBox } from './chart-box';
import { spanOption, spanTable, watchOption } from './span-options';

/** A lot month by month against the others of its kit, and what speaks for a raised rate, summed up. */
@Component({
  selector: 'hs-lot-months',
  imports: [ChartBox, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-segmented label="Show" [options]="ways" [value]="way()" (picked)="way.set($event)" />
    @if (way() === 'months') {
      <hs-chart-box
        [label]="'Returns of lot ' + lot() + ' by month, and what was to be expected'"
        [note]="spans()"
        [option]="byMonth()"
        [name]="'lot-' + lot()"
        [table]="table()"
      />
    } @else {
      <hs-chart-box
        [label]="'Watch over lot ' + lot() + ': what speaks for a raised rate, summed up'"
        [note]="watch()"
        [option]="summed()"
        [name]="'watch-' + lot()"
        [table]="table()"
      />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
      grid-template-columns: minmax(0, 1fr);
      justify-items: stretch;
      width: 100%;
    }
    hs-segmented {
      justify-self: start;
    }
  `,
})
export class LotMonthsCard {
  readonly lot = input.required<string>();
  readonly of = input.required<LotMonths>();
  protected readonly ways = [
    { value: 'months', label: 'By month' },
    { value: 'watch', label: 'Summed up' },
  ] as const;
  protected readonly way = signal<'months' | 'watch'>('months');
  protected readonly spans = computed(() => `${spansWords(this.of().months)} ${SPAN_LINES}`);
  protected readonly watch = computed(() => watchWords(this.of().watch));
  protected readonly byMonth = computed(() => spanOption(this.of().months, 'came back'));
  protected readonly summed = computed(() => watchOption(this.of().months, this.of().watch));
  protected readonly table = computed(() => spanTable(this.of().months, this.of().watch));
}
