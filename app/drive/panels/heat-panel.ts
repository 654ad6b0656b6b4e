import { must, nth } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { heatEffect } from '@core/drive/heat';
import { tensionerIndex } from '@core/drive/layout';
import { CoolingWait } from '../../entry/cooling-wait';
import { DialField } from '../../ui/dial-field';
import { readingWords, settingsSentence } from '../../messages/drive';
import { DriveStore } from '../drive-store';

/** Warmth moves the setting; two readings of a cooling engine say how long to wait. */
@Component({
  selector: 'hs-heat-panel',
  imports: [CoolingWait, DialField],
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
      (turned)="store.set({ temperatureC: $event })"
    />
    @for (w of words(); track $index) {
      <div>{{ w }}</div>
    } @empty {
      <p class="quiet">Enter a temperature to see what it does to this drive.</p>
    }
    <p class="caution">Set it at ambient temperature. Hot parts and fluids burn.</p>
    <h3>How long to wait</h3>
    <hs-cooling-wait />
  `,
  styles: ':host { display: grid; gap: 6px; align-content: start; grid-template-columns: minmax(0, 1fr); }',
})
export class DriveHeatPanel {
  protected readonly store = inject(DriveStore);
  protected readonly at = computed(() => this.store.what().temperatureC);
  protected readonly words = computed(() => {
    const layout = this.store.layout();
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
    const c = must(nth(layout.wheels, tensionerIndex(layout)).carrier);
    const { drawn, warm } = h.value.reading;
    const mm = h.value.slackWhenColdMm;
    return [
      `Drawn for ${must(layout.heat).drawnAtC} °C: ${readingWords(c, drawn)}. At ${at} °C a tensioner that follows stands at ${readingWords(c, warm)}.`,
      mm > 0.005
        ? `▲ A setting made at ${at} °C and held leaves ${mm.toFixed(2)} mm slack when cold.`
        : mm < -0.005
          ? `A setting made at ${at} °C and held is ${(-mm).toFixed(2)} mm too tight at ${must(layout.heat).drawnAtC} °C.`
          : 'That is the temperature it is drawn for.',
    ];
  });
}
