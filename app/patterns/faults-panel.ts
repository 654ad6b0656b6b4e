import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzTableModule } from 'ng-zorro-antd/table';
import type { FaultLine, Looked } from '@core/patterns/look';
import { isAlarm } from '@core/patterns/scan';
import { formatNumber } from '@core/quantity/format-quantity';
import { PatternPapers } from '../commands/pattern-papers';
import { Bulletins } from '../data/bulletins';
import { PopulationDesk } from '../data/population';
import { percent } from '../messages/answers';
import { bulletinWords } from '../messages/bulletins';
import { faultWording } from '../messages/fitting';
import { intervalWords, shopWords } from '../messages/patterns';
import { ChartBox } from './chart-box';
import { funnelOption, pointTable } from './chart-options';
import { FaultDetail } from './fault-detail';

/** Rows of a table. */
const SHOWN = 15;

/** Installation faults: of each workshop against all others, of each step of a kit against all others. */
@Component({
  selector: 'hs-faults-panel',
  imports: [ChartBox, FaultDetail, NzButtonComponent, NzTableModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="lists">
      <section class="card" aria-label="Workshops">
        <h2>Workshops</h2>
        @if (looked().shopPoints.length) {
          <hs-chart-box
            label="Funnel of workshops: fitting faults against what was expected of each"
            note="Of returns alone: how many a workshop fitted in all is not known. Press a point for its workshop."
            [option]="option()"
            name="workshops"
            (pressed)="press($event)"
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
                  <td>
                    <button
                      nz-button
                      nzType="text"
                      nzSize="small"
                      [attr.aria-pressed]="chosen() === r.row"
                      (click)="chosen.set(r.row)"
                    >
                      {{ r.alarm ? '▲ ' : '' }}{{ r.who }}
                    </button>
                  </td>
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
    </div>
    <div class="side">
      @if (chosen(); as c) {
        <hs-fault-detail [row]="c" />
      } @else if (tables().length > 0) {
        <p class="quiet">Press a workshop or a step: by quarters, with its letter or its bulletin.</p>
      }
      @for (b of bulletins(); track b) {
        <p class="caution">{{ b }}</p>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: var(--gap);
      grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
      align-items: start;
    }
    .lists,
    .side {
      display: grid;
      gap: var(--gap);
      grid-template-columns: minmax(0, 1fr);
    }
    nz-table {
      display: block;
      overflow-x: auto;
    }
    td button {
      height: auto;
      white-space: normal;
      text-align: left;
    }
    @media (max-width: 860px) {
      :host {
        grid-template-columns: minmax(0, 1fr);
      }
    }
    p {
      margin: 0;
    }
  `,
})
export class FaultsPanel {
  readonly looked = input.required<Looked>();
  private readonly desk = inject(PopulationDesk);
  private readonly standing = inject(Bulletins);
  private readonly papers = inject(PatternPapers);
  /** The line that was pressed. */
  protected readonly chosen = signal<FaultLine | undefined>(undefined);
  protected readonly bulletins = computed(() =>
    this.standing
      .standing(this.desk.source() === 'invented')
      .map((b) => bulletinWords(b, this.papers.step(b.kit, b.step)?.sheet)),
  );
  /** A point is the workshop that it stands for: its plainest fault is shown. */
  protected press(name: string): void {
    const row = this.looked().shops.find((r) => r.shop === name);
    if (row) this.chosen.set(row);
  }

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
  row: r,
  key: `${r.shop ?? r.kit ?? ''} ${r.code} ${r.step}`,
  alarm: isAlarm(r),
  who: r.shop === undefined ? `${r.kit ?? ''} · ${r.step}` : shopWords(r.shop),
  fault: faultWording(r.code),
  found: `${r.faults} of ${r.of}`,
  share: percent(r.share),
  elsewhere: percent(r.otherShare),
  ratio: formatNumber(r.shrunk.ratio, 1),
  interval: intervalWords(r.shrunk.interval),
});
