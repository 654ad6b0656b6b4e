import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { heatEffect } from '@core/drive/heat';
import { readyTime } from '@core/fitting/cooling';
import { formatNumber } from '@core/quantity/format-quantity';
import { DialField } from '../../ui/dial-field';
import { coolingSentence } from '../../words/drive-bench';
import { FitStore } from './fit-store';

/** Two readings of a cooling engine give the time when it is cold; and what setting it now would cost on this drive. */
@Component({
  selector: 'hs-heat-helper',
  imports: [DialField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Two readings">
      <h2>Two readings of the cooling block</h2>
      @for (d of dials; track d.label) {
        <hs-dial-field
          [label]="d.label"
          [unit]="d.unit"
          [min]="d.min"
          [max]="d.max"
          [step]="1"
          [digits]="d.digits"
          [value]="d.value()"
          (turned)="d.value.set($event)"
        />
      }
    </section>
    <section class="card" aria-label="When it is cold">
      <h2>When it is cold</h2>
      <p class="lead" aria-live="polite">{{ wait() }}</p>
      @for (line of cost(); track line) {
        <p>{{ line }}</p>
      }
      <p class="caution">Hot parts and fluids burn. Set it when engine and air agree.</p>
    </section>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 6px;
    }
    .lead {
      font-size: 1.2em;
      font-weight: 600;
    }
    p {
      margin: 0;
    }
  `,
})
export class HeatPanel {
  private readonly store = inject(FitStore);
  private readonly first = signal<number | undefined>(undefined);
  private readonly second = signal<number | undefined>(undefined);
  private readonly minutes = signal<number | undefined>(undefined);
  private readonly air = signal<number | undefined>(undefined);
  private readonly u = signal<number | undefined>(0.5);
  protected readonly dials = [
    { label: 'First reading', unit: '°C', min: 0, max: 130, digits: 1, value: this.first },
    { label: 'Second reading', unit: '°C', min: 0, max: 130, digits: 1, value: this.second },
    { label: 'Minutes between', unit: 'min', min: 1, max: 180, digits: 0, value: this.minutes },
    { label: 'Air', unit: '°C', min: -20, max: 45, digits: 1, value: this.air },
    { label: 'Each reading ±', unit: 'K', min: 0, max: 5, digits: 1, value: this.u },
  ];
  private readonly within = computed(() => this.store.answers()?.rules.coldWithinK ?? 5);
  protected readonly wait = computed(() => {
    const [first, second, minutes, air] = [this.first(), this.second(), this.minutes(), this.air()];
    if (first === undefined || second === undefined || minutes === undefined || air === undefined)
      return 'Two readings, the minutes between them and the air give the wait.';
    const r = readyTime(
      { s: 0, c: first },
      { s: minutes * 60, c: second },
      air,
      this.within(),
      this.u() ?? 0,
    );
    if (!r.ok) return coolingSentence(r.error);
    const { waitS, uS, tauS } = r.value;
    if (waitS === 0) return `Cold enough now: within ${this.within()} K of the air.`;
    const n = (s: number) => formatNumber(s / 60, 0);
    return `Wait ${n(waitS)} ± ${n(2 * uS)} min more, then it is within ${this.within()} K of the air (time constant ${n(tauS)} min).`;
  });
  /** What a setting made at the second reading would cost, stage by stage. */
  protected readonly cost = computed(() => {
    const at = this.second();
    if (at === undefined) return [];
    return this.store.stages().flatMap(({ layout }) => {
      const h = heatEffect(layout, at);
      if (!h.ok) return [];
      const mm = h.value.slackWhenColdMm;
      const { drawn, warm, unit } = h.value.reading;
      const n = (v: number) => `${formatNumber(v, 1)}${unit === '°' ? '°' : ' mm'}`;
      return [
        `${layout.name ?? `This ${layout.kind}`}: set at ${formatNumber(at, 0)} °C and held, it is ${formatNumber(Math.abs(mm), 2)} mm ${mm >= 0 ? 'slack' : 'too tight'} at ${formatNumber(layout.heat!.drawnAtC, 0)} °C; a tensioner that follows goes from ${n(warm)} to ${n(drawn)}.`,
      ];
    });
  });
}
