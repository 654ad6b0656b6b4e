import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Looked, Signal } from '@core/patterns/look';
import { percent } from '../messages/answers';
import { signalReadingWords, signalWords } from '../messages/patterns';
import { funnelOption, pointTable } from './chart-options';
import { ChartBox } from './chart-box';
import { FaultDetail } from './fault-detail';
import { StopPanel } from './stop-panel';

/** Cases that are named at once. */
const MOST_CASES = 24;

/** One signal: the three ways to read it held against each other, where it lies among all, and the cases behind it. */
@Component({
  selector: 'hs-signal-detail',
  imports: [ChartBox, FaultDetail, RouterLink, StopPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" [attr.aria-label]="says()">
      <h2>Which of the three</h2>
      @for (r of readings(); track r.kind) {
        <div class="reading">
          <b>{{ r.name }}</b>
          <span class="mono">{{ r.share }}</span>
          <span class="bar"><span [style.width.%]="r.percent"></span></span>
          <small>{{ r.lies }} {{ $first ? r.parts : '' }}</small>
        </div>
      }
      @if (points().length) {
        <hs-chart-box
          [label]="'Funnel: ' + says()"
          [note]="note"
          [option]="option()"
          [name]="'funnel'"
          [table]="table()"
        />
      }
      <h3>Cases</h3>
      <p class="cases">
        @for (c of cases(); track c.id) {
          @if (linked()) {
            <a class="code" [routerLink]="['/case', c.id, 'cause']">{{ c.tag }}</a>
          } @else {
            <span class="code">{{ c.tag }}</span>
          }
        }
        @if (more() > 0) {
          <span class="quiet">and {{ more() }} more</span>
        }
      </p>
    </section>
    @if (lot(); as l) {
      <hs-stop-panel [kit]="l.kit" [lot]="l.lot" />
    }
    @if (fault(); as f) {
      <hs-fault-detail [row]="f" />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: var(--gap);
      grid-template-columns: minmax(0, 1fr);
    }
    section {
      display: grid;
      gap: 6px;
    }
    p {
      margin: 0;
    }
    .reading {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 52px;
      gap: 0 8px;
    }
    .reading .mono {
      text-align: right;
    }
    .bar,
    small {
      grid-column: 1 / -1;
    }
    .bar {
      height: 5px;
      background: var(--paper-3);
    }
    .bar span {
      display: block;
      height: 100%;
      background: var(--verdigris);
    }
    .cases {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 10px;
    }
  `,
})
export class SignalDetail {
  readonly signal = input.required<Signal>();
  readonly looked = input.required<Looked>();
  /** True where the cases are of this desk and can be opened. */
  readonly linked = input(false);
  protected readonly note = 'Lines: as expected; what chance brings to 19 of 20, and to 499 of 500.';
  protected readonly says = computed(() => signalWords(this.signal()));
  protected readonly readings = computed(() =>
    this.signal().readings.map((r) => ({
      kind: r.kind,
      ...signalReadingWords(r),
      share: percent(r.share),
      percent: 100 * r.share,
    })),
  );
  protected readonly lot = computed(() => {
    const s = this.signal();
    return s.kind === 'lot' ? s.row : undefined;
  });
  protected readonly fault = computed(() => {
    const s = this.signal();
    return s.kind === 'lot' ? undefined : s.row;
  });
  /** Lots round a lot, workshops round a workshop; a step has its kit's faults in the table. */
  protected readonly points = computed(() => {
    const kind = this.signal().kind;
    return kind === 'lot' ? this.looked().lotPoints : kind === 'shop' ? this.looked().shopPoints : [];
  });
  protected readonly option = computed(() =>
    this.signal().kind === 'lot'
      ? funnelOption(this.points(), 'returns expected of the lot', 'came back')
      : funnelOption(this.points(), 'fitting faults expected of the workshop', 'found'),
  );
  protected readonly table = computed(() =>
    this.signal().kind === 'lot'
      ? pointTable(this.points(), 'lot', 'sold', 'returns')
      : pointTable(this.points(), 'workshop', 'returns', 'faults'),
  );
  protected readonly cases = computed(() => this.signal().row.cases.slice(0, MOST_CASES));
  protected readonly more = computed(() => this.signal().row.cases.length - this.cases().length);
}
