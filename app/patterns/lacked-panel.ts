import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { NzTableModule } from 'ng-zorro-antd/table';
import type { Looked } from '@core/patterns/look';
import { moneyWords } from '../messages/money';
import { StateCard } from '../ui/state';

/** What undecidable cases lacked, and what they cost: what to ask for first. */
@Component({
  selector: 'hs-lacked-panel',
  imports: [NzTableModule, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Undecidable">
      @if (rows().length) {
        <h2>What to ask for first</h2>
        <nz-table nzTemplateMode nzSize="small">
          <thead>
            <tr>
              <th>Did not come</th>
              <th class="num">Undecidable cases</th>
              <th class="num">They cost us</th>
            </tr>
          </thead>
          <tbody>
            @for (r of rows(); track r.missing) {
              <tr>
                <td>{{ r.missing }}</td>
                <td class="num">{{ r.cases }}</td>
                <td class="num">{{ r.cost }}</td>
              </tr>
            }
          </tbody>
        </nz-table>
      } @else {
        <hs-state kind="empty" title="No case was found undecidable for want of something." />
      }
    </section>
  `,
})
export class LackedPanel {
  readonly looked = input.required<Looked>();
  protected readonly rows = computed(() =>
    this.looked().lacked.map((l) => ({
      missing: l.missing,
      cases: l.cases.length,
      cost: moneyWords(l.cost),
    })),
  );
}
