import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { chartInHost } from './chart-in-host';

export type Bar = { name: string; value: number };
/** Height of a bar with its name, and of what stands around, px. */
const [BAR_PX, AROUND_PX] = [22, 12];

/** Counts side by side, each with its name and figure; what it shows is told in words as well. */
@Component({
  selector: 'hs-bar-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'img',
    '[attr.aria-label]': 'said()',
    '[style.height.px]': 'bars().length * BAR + AROUND',
  },
  template: '',
  styles: ':host { display: block; }',
})
export class BarChart {
  readonly label = input.required<string>();
  readonly bars = input.required<readonly Bar[]>();
  protected readonly BAR = BAR_PX;
  protected readonly AROUND = AROUND_PX;
  protected said = (): string =>
    `${this.label()}: ${this.bars()
      .map((b) => `${b.name} ${b.value}`)
      .join(', ')}`;

  constructor() {
    chartInHost(({ ink }) => ({
      grid: { left: 4, right: 40, top: 4, bottom: 4, containLabel: true },
      xAxis: { type: 'value', show: false },
      yAxis: {
        type: 'category',
        inverse: true,
        data: this.bars().map((b) => b.name),
        axisTick: { show: false },
        axisLine: { lineStyle: { color: ink('--rule-strong') } },
        axisLabel: { color: ink('--ink'), width: 130, overflow: 'truncate' },
      },
      series: [
        {
          type: 'bar',
          barWidth: 12,
          itemStyle: { color: ink('--verdigris') },
          label: { show: true, position: 'right', color: ink('--ink') },
          data: this.bars().map((b) => b.value),
        },
      ],
    }));
  }
}
