import { ChangeDetectionStrategy, Component, DestroyRef, inject, input, output } from '@angular/core';
import type { EChartsCoreOption, EChartsType } from 'echarts/core';
import { chartInHost, type Inks } from '../ui/chart-in-host';

/** A chart of the patterns; every point may be pressed, and it goes out as a picture. */
@Component({
  selector: 'hs-pattern-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'img', '[attr.aria-label]': 'label()' },
  template: '',
  styles: ':host { display: block; height: 260px; }',
})
export class PatternChart {
  readonly label = input.required<string>();
  readonly option = input.required<(inks: Inks) => EChartsCoreOption>();
  /** Name of the point that was pressed. */
  readonly pressed = output<string>();
  private chart: EChartsType | undefined;
  private paper = '';

  constructor() {
    chartInHost(
      (inks) => {
        this.paper = inks.ink('--paper-2');
        return this.option()(inks);
      },
      (chart) => {
        this.chart = chart;
        chart.on('click', (e: { name?: string }) => {
          if (e.name) this.pressed.emit(e.name);
        });
      },
    );
    inject(DestroyRef).onDestroy(() => (this.chart = undefined));
  }

  png(): string | undefined {
    return this.chart?.getDataURL({ type: 'png', pixelRatio: 2, backgroundColor: this.paper });
  }

  async svg(): Promise<string | undefined> {
    const { chartSvg } = await import('../ui/chart-library');
    return this.chart && chartSvg(this.chart, this.paper);
  }
}
