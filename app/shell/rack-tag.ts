import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { CaseSummary } from '@core/answer/case-summary';
import { dayOf, daysBetween } from '@core/quantity/dates';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { waitsWords } from '../messages/waits';

/** A case as a tag of the rack: its number, its engine, what it waits for and how old it is. */
@Component({
  selector: 'hs-rack-tag',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.rail]': 'rail()', '[class.narrow]': 'narrow()' },
  template: `
    <a
      class="tag"
      [routerLink]="['/case', of().id, 'call']"
      [attr.aria-current]="of().id === cases.currentId() ? 'page' : null"
      [title]="of().tag + ' ' + of().engine + ' ' + of().who + ', ' + state()"
    >
      <b class="code">{{ of().tag }}</b>
      <span class="engine code">{{ of().engine || 'no engine' }}</span>
      <span class="waits" [class.late]="late()">{{ state() }}</span>
      <span class="age">{{ age() }}</span>
    </a>
  `,
  styleUrl: './rack-tag.less',
})
export class RackTag {
  readonly of = input.required<CaseSummary>();
  readonly rail = input(false);
  readonly narrow = input(false);
  protected readonly cases = inject(Cases);
  private readonly clock = inject(Clock);

  /** What it waits for; a call that was promised goes before everything. */
  protected readonly state = computed(() => waitsWords(this.of(), this.clock.today()));
  protected readonly late = computed(() => {
    const { back } = this.of();
    return back !== undefined && back <= this.clock.today();
  });
  protected readonly age = computed(() => {
    const days = daysBetween(dayOf(this.of().opened), this.clock.today());
    return days <= 0 ? 'today' : `${days} d`;
  });
}
