import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzTableModule } from 'ng-zorro-antd/table';
import type { Looked } from '@core/patterns/look';
import { isAlarm } from '@core/patterns/scan';
import { formatNumber } from '@core/quantity/format-quantity';
import { DeskSettingsStore } from '../data/desk-settings';
import { PopulationDesk } from '../data/population';
import { StoppedLots } from '../data/stopped-lots';
import { intervalWords, stopWords } from '../messages/patterns';
import { StateCard } from '../ui/state';
import { ChartBox } from './chart-box';
import { funnelOption, pointTable } from './chart-options';
import { StopPanel } from './stop-panel';

/** Every lot against the others of its kit, and every kit by what came back of a thousand. */
@Component({
  selector: 'hs-lots-panel',
  imports: [ChartBox, NzButtonComponent, NzTableModule, StateCard, StopPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (looked().kits.length === 0) {
      <hs-state kind="empty" title="It is not known how many were sold.">
        <p>Bring that table in under “Sold”: each lot is then held against the others of its kit.</p>
      </hs-state>
    } @else {
      <div class="two">
        <section class="card" aria-label="Lots">
          <h2>Lots</h2>
          <hs-chart-box
            label="Funnel of all lots: returns against what was expected of each"
            note="A young lot expects less: each is held against its kit’s own life. Press a point for its lot."
            [option]="option()"
            name="lots"
            [table]="table()"
            (pressed)="press($event)"
          />
          <nz-table nzTemplateMode nzSize="small">
            <thead>
              <tr>
                <th>Lot</th>
                <th class="num">Sold</th>
                <th class="num">Back</th>
                <th class="num">Expected</th>
                <th class="num">Times as often</th>
              </tr>
            </thead>
            <tbody>
              @for (r of rows(); track r.key) {
                <tr>
                  <td>
                    <button
                      nz-button
                      nzType="text"
                      nzSize="small"
                      class="code"
                      [attr.aria-pressed]="chosen()?.kit === r.kit && chosen()?.lot === r.lot"
                      (click)="chosen.set(r)"
                    >
                      {{ r.alarm ? '▲ ' : '' }}{{ r.kit }} {{ r.lot }}
                    </button>
                  </td>
                  <td class="num">{{ r.sold }}</td>
                  <td class="num">{{ r.returns }}</td>
                  <td class="num">{{ r.expected }}</td>
                  <td class="num">
                    {{ r.ratio }} <small>({{ r.interval }})</small>
                  </td>
                </tr>
              }
            </tbody>
          </nz-table>
        </section>
        <div class="side">
          @if (chosen(); as c) {
            <hs-stop-panel [kit]="c.kit" [lot]="c.lot" />
          }
          @for (s of stopped(); track s) {
            <p class="caution">{{ s }}</p>
          }
          <section class="card" aria-label="Kits">
            <h2>Kits</h2>
            <nz-table nzTemplateMode nzSize="small">
              <thead>
                <tr>
                  <th>Kit</th>
                  <th class="num">Sold</th>
                  <th class="num">Back</th>
                  <th class="num">Of a thousand</th>
                </tr>
              </thead>
              <tbody>
                @for (k of kits(); track k.kit) {
                  <tr>
                    <td class="code">{{ k.kit }}</td>
                    <td class="num">{{ k.sold }}</td>
                    <td class="num">{{ k.returns }}</td>
                    <td class="num">
                      {{ k.per }} <small>({{ k.interval }})</small>
                    </td>
                  </tr>
                }
              </tbody>
            </nz-table>
          </section>
        </div>
      </div>
    }
  `,
  styles: `
    .two {
      display: grid;
      grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
      gap: var(--gap);
      align-items: start;
    }
    .side {
      display: grid;
      gap: var(--gap);
    }
    nz-table {
      display: block;
      overflow-x: auto;
    }
    p {
      margin: 0;
    }
    @media (max-width: 860px) {
      .two {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class LotsPanel {
  readonly looked = input.required<Looked>();
  private readonly stops = inject(StoppedLots);
  private readonly desk = inject(PopulationDesk);
  private readonly settings = inject(DeskSettingsStore);
  /** The lot that was pressed. */
  protected readonly chosen = signal<{ kit: string; lot: string } | undefined>(undefined);
  protected readonly stopped = computed(() =>
    this.stops
      .standing(this.desk.source() === 'invented')
      .map((s) => stopWords(s, this.settings.settings().dateOrder)),
  );
  protected readonly option = computed(() =>
    funnelOption(this.looked().lotPoints, 'returns expected of the lot', 'came back'),
  );
  /** A point is the lot that it stands for. */
  protected press(name: string): void {
    const point = this.looked().lotPoints.find((p) => p.name === name);
    if (point) this.chosen.set(point);
  }

  protected readonly table = computed(() => pointTable(this.looked().lotPoints, 'lot', 'sold', 'returns'));
  protected readonly rows = computed(() =>
    this.looked()
      .lots.slice(0, SHOWN)
      .map((r) => ({
        key: `${r.kit} ${r.lot}`,
        kit: r.kit,
        lot: r.lot,
        alarm: isAlarm(r),
        sold: formatNumber(r.sold, 0),
        returns: r.returns,
        expected: formatNumber(r.expected, 1),
        ratio: Number.isFinite(r.ratio) ? formatNumber(r.ratio, 1) : '–',
        interval: intervalWords(r.interval),
      })),
  );
  protected readonly kits = computed(() =>
    this.looked().kits.map((k) => ({
      kit: k.kit,
      sold: formatNumber(k.sold, 0),
      returns: k.returns,
      per: formatNumber(k.per, 1),
      interval: intervalWords(k.interval),
    })),
  );
}

/** Lots that are shown: those that stand out the most. */
const SHOWN = 20;
