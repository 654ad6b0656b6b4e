import { must } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzTableModule } from 'ng-zorro-antd/table';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { jobsFor, kitOfJob } from '@core/answer/jobs';
import { formatDay } from '@core/quantity/dates';
import { CaseDesk } from '../../data/case-desk';
import { Clock } from '../../data/clock';
import { Papers } from '../../commands/papers';
import { SOURCE_WORDS } from '../../messages/jobs';

/** What the job needs against what the kit holds, as an order list. */
@Component({
  selector: 'hs-job-panel',
  imports: [NzTableModule, NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="What the job needs">
      <h2>
        What the job needs <small>{{ kit() ? 'with kit ' + kit()!.number : 'no kit named yet' }}</small>
      </h2>
      @if (lines().length) {
        <nz-table nzTemplateMode nzSize="small">
          <thead>
            <tr>
              <th>From</th>
              <th>What</th>
              <th>Why</th>
              <th class="num">Now</th>
              <th class="num">Later</th>
            </tr>
          </thead>
          <tbody>
            @for (l of lines(); track l.item.item) {
              <tr>
                <td>
                  <b>{{ words[l.source] }}</b>
                </td>
                <td>
                  {{ l.item.quantity }} × {{ l.item.item }} <small class="mono">{{ l.item.part }}</small>
                </td>
                <td>
                  {{ l.item.why }}
                  @if (l.source === 'reuse_after_check') {
                    <small>Check: {{ l.item.check }}</small>
                  }
                </td>
                <td class="num">{{ l.item.costNow }} AC</td>
                <td class="num">{{ l.item.costLater }} AC</td>
              </tr>
            }
          </tbody>
        </nz-table>
        <div class="row">
          <button nz-button (click)="csv()">Order list CSV</button>
          <button nz-button (click)="print()">Order list PDF</button>
        </div>
      } @else {
        <p class="quiet">It shows as soon as one design is left.</p>
      }
    </section>
  `,
})
export class JobPanel {
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);
  private readonly papers = inject(Papers);
  protected readonly words = SOURCE_WORDS;
  protected readonly kit = computed(() => {
    const a = this.desk.current()?.answers;
    return a && kitOfJob(a);
  });
  protected readonly lines = computed(() => {
    const view = this.desk.current();
    const a = view?.answers;
    return view?.catalogue && a?.variant ? jobsFor(view.catalogue, a.variant.id, a) : [];
  });

  protected csv(): void {
    const head = this.head();
    if (head) void this.papers.orderCsv(head, this.lines());
  }

  protected print(): void {
    const head = this.head();
    if (head) void this.papers.orderPdf(head, this.lines());
  }

  private head() {
    const view = this.desk.current();
    const a = view?.answers;
    if (!a?.variant || !a.engine) return undefined;
    return {
      tag: must(view).tag,
      engine: a.engine.code,
      variant: a.variant.name,
      kit: this.kit()?.number ?? 'not chosen',
      today: formatDay(this.clock.today(), 'named'),
    };
  }
}
