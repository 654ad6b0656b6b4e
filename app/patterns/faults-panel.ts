import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { NzTableModule } from 'ng-zorro-antd/table';
import type { FaultLine, Looked } from '@core/patterns/look';
import { isAlarm } from '@core/patterns/scan';
import { formatNumber } from '@core/quantity/format-quantity';
import { percent } from '../messages/answers';
import { faultWording } from '../messages/fitting';
import { intervalWords } from '../messages/patterns';
import { ChartBox } from './chart-box';
import { funnelOption, pointTable } from './chart-options';

/** Rows of a table. */
const SHOWN = 15;

/** Installation faults: of each workshop against all others, of each step of a kit against all others. */
@Component({
  selector: 'hs-faults-panel',
  imports: [ChartBox, NzTableModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Workshops">
      <h2>Workshops</h2>
      @if (looked().shopPoints.length) {
        <hs-chart-box
          label="Funnel of workshops: fitting faults against what was expected of each"
          note="Of returns alone: how many a workshop fitted in all is not known."
          [option]="option()"
          name="workshops"
          [table]="table()"
        />
      } @else {
        <p class="quiet">No case names who fitted it.</p>
      }
    </section>
    @for (t of tables(); track t.name) {
      <section class="card" [attr.aria-label]="t.name + ' by fault'">
        <h2>{{ t.name }} by fault</h2>
        <nz-table nzTemplateMode nzSize="small">
          <thead>
            <tr>
              <th>{{ t.first }}</th>
              <th>Fault</th>
              <th class="num">Found</th>
              <th class="num">Share</th>
              <th class="num">Elsewhere</th>
              <th class="num">Leaning on all</th>
            </tr>
          </thead>
          <tbody>
            @for (r of t.rows; track r.key) {
              <tr>
                <td>{{ r.alarm ? '▲ ' : '' }}{{ r.who }}</td>
                <td>{{ r.fault }}</td>
                <td class="num">{{ r.found }}</td>
                <td class="num">{{ r.share }}</td>
                <td class="num">{{ r.elsewhere }}</td>
                <td class="num">
                  × {{ r.ratio }} <small>({{ r.interval }})</small>
                </td>
              </tr>
            }
          </tbody>
        </nz-table>
      </section>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: var(--gap);
      grid-template-columns: minmax(0, 1fr);
    }
    p {
      margin: 0;
    }
  `,
})
export class FaultsPanel {
  readonly looked = input.required<Looked>();
  protected readonly option = computed(() =>
    funnelOption(this.looked().shopPoints, 'fitting faults expected of the workshop', 'found'),
  );
  protected readonly table = computed(() =>
    pointTable(this.looked().shopPoints, 'workshop', 'returns', 'faults'),
  );
  protected readonly tables = computed(() =>
    [
      { name: 'Workshops', first: 'Workshop', rows: this.looked().shops.slice(0, SHOWN).map(lineOf) },
      { name: 'Steps', first: 'Kit and step', rows: this.looked().steps.slice(0, SHOWN).map(lineOf) },
    ].filter((t) => t.rows.length > 0),
  );
}

const lineOf = (r: FaultLine) => ({
  key: `${r.shop ?? r.kit ?? ''} ${r.code} ${r.step}`,
  alarm: isAlarm(r),
  who: r.shop ?? `${r.kit ?? ''} · ${r.step}`,
  fault: faultWording(r.code),
  found: `${r.faults} of ${r.of}`,
  share: percent(r.share),
  elsewhere: percent(r.otherShare),
  ratio: formatNumber(r.shrunk.ratio, 1),
  interval: intervalWords(r.shrunk.interval),
});
