import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { coolingWait, heatEffect } from '@core/drive/heat';
import { tensionerIndex } from '@core/drive/layout';
import { DialField } from '../../ui/dial-field';
import { readingWords, settingsSentence } from '../../words/drive';
import { coolingSentence } from '../../words/drive-bench';
import { BenchStore } from '../bench-store';

/** Warmth moves the setting; two readings of a cooling engine say how long to wait. */
@Component({
  selector: 'hs-heat-panel',
  imports: [DialField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-dial-field
      label="Engine at"
      unit="°C"
      [min]="-20"
      [max]="130"
      [step]="1"
      [digits]="0"
      [value]="at()"
      (turned)="bench.set({ temperatureC: $event })"
    />
    @for (w of words(); track $index) {
      <div>{{ w }}</div>
    } @empty {
      <p class="quiet">Enter a temperature to see what it does to this drive.</p>
    }
    <p class="caution">Set it at ambient temperature. Hot parts and fluids burn.</p>
    <h3>How long to wait</h3>
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
    <p>
      <b>{{ wait() }}</b>
    </p>
  `,
  styles: ':host { display: grid; gap: 6px; align-content: start; grid-template-columns: minmax(0, 1fr); }',
})
export class HeatPanel {
  protected readonly bench = inject(BenchStore);
  private readonly first = signal<number | undefined>(undefined);
  private readonly second = signal<number | undefined>(undefined);
  private readonly minutes = signal<number | undefined>(undefined);
  private readonly air = signal<number | undefined>(undefined);
  private readonly within = signal(5);
  protected readonly dials = [
    { label: 'First reading', unit: '°C', min: 0, max: 130, digits: 1, value: this.first },
    { label: 'Second reading', unit: '°C', min: 0, max: 130, digits: 1, value: this.second },
    { label: 'Minutes between', unit: 'min', min: 1, max: 180, digits: 0, value: this.minutes },
    { label: 'Air', unit: '°C', min: -20, max: 45, digits: 1, value: this.air },
    { label: 'Cold enough within', unit: 'K', min: 1, max: 15, digits: 0, value: this.within },
  ];
  protected readonly at = computed(() => this.bench.what().temperatureC);
  protected readonly words = computed(() => {
    const layout = this.bench.layout();
    if (!layout) return [];
    const at = this.at();
    if (at === undefined) return [];
    const h = heatEffect(layout, at);
    if (!h.ok)
      return [
        h.error.code === 'no_heat_data'
          ? 'The catalogue gives no growth for this drive.'
          : settingsSentence(layout, h.error),
      ];
    const c = layout.wheels[tensionerIndex(layout)]!.carrier!;
    const { drawn, warm } = h.value.reading;
    const mm = h.value.slackWhenColdMm;
    return [
      `Drawn for ${layout.heat!.drawnAtC} °C: ${readingWords(c, drawn)}. At ${at} °C a tensioner that follows stands at ${readingWords(c, warm)}.`,
      mm > 0.005
        ? `▲ A setting made at ${at} °C and held leaves ${mm.toFixed(2)} mm slack when cold.`
        : mm < -0.005
          ? `A setting made at ${at} °C and held is ${(-mm).toFixed(2)} mm too tight at ${layout.heat!.drawnAtC} °C.`
          : 'That is the temperature it is drawn for.',
    ];
  });
  protected readonly wait = computed(() => {
    const [first, second, minutes, air] = [this.first(), this.second(), this.minutes(), this.air()];
    if (first === undefined || second === undefined || minutes === undefined || air === undefined)
      return 'Two readings of the cooling engine, the minutes between them and the air give the wait.';
    const r = coolingWait({ s: 0, c: first }, { s: minutes * 60, c: second }, air, this.within());
    if (!r.ok) return coolingSentence(r.error);
    const min = r.value.waitS / 60;
    if (min === 0) return 'Cold enough now.';
    return `Wait ${min.toFixed(0)} min more, then within ${this.within()} K of the air (time constant ${(r.value.tauS / 60).toFixed(0)} min).`;
  });
}
