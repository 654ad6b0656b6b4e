import { ChangeDetectionStrategy, Component } from '@angular/core';
import { FactField } from '../../ui/fact-field';

/** What the phone or the box says, in the order in which it is told. */
@Component({
  selector: 'hs-call-page',
  imports: [FactField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (g of groups; track g.name) {
      <section class="card" [attr.aria-label]="g.name">
        <h2>{{ g.name }}</h2>
        @for (k of g.keys; track k) {
          <hs-fact-field [key]="k" />
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
  protected readonly groups = [
    {
      name: 'Who and which engine',
      keys: ['call.who', 'engine.code', 'vehicle.name', 'vehicle.built', 'vehicle.market', 'claim.number'],
    },
    {
      name: 'Now, and the kit',
      keys: [
        'vehicle.odometer',
        'case.date',
        'kit.number',
        'kit.bought',
        'kit.fitted',
        'kit.fitted_odometer',
      ],
    },
    { name: 'What is wrong', keys: ['symptom', 'complaint', 'fault.codes', 'parts.sent'] },
  ];
}
