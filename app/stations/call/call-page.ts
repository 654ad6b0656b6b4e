import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { CaseDesk } from '../../data/case-desk';
import { FactField } from '../../entry/fact-field';

/** What the phone or the box says, in the order in which it is told. */
@Component({
  selector: 'hs-call-page',
  imports: [FactField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (g of groups(); track g.key) {
      <section class="card" [attr.aria-label]="g.name">
        <h2>{{ g.name }}</h2>
        @for (o of g.fields; track o.key) {
          <hs-fact-field [key]="o.key" />
        }
      </section>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(225px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 4px;
    }
  `,
})
export class CallPage {
  private readonly desk = inject(CaseDesk);
  protected readonly groups = computed(() => this.desk.groupsAt('call'));
}
