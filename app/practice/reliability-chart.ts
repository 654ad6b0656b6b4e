import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { SureBand } from '@core/practice/record';
import { chartInHost } from '../ui/chart-in-host';

/** Stated confidence against the share that was right, with what chance alone allows; on the diagonal both agree. */
@Component({
  selector: 'hs-reliability-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'img', '[attr.aria-label]': 'said()' },
  template: '',
  styles: ':host { display: block; height: 240px; }',
})
export class ReliabilityChart {
  readonly bands = input.required<readonly SureBand[]>();
  protected readonly said = (): string =>
    `Stated against right: ${this.bands()
      .map((b) => `at ${Math.round(100 * b.mean)} % ${b.right} of ${b.n}`)
      .join(', ')}`;

  constructor() {
    chartInHost(({ ink }) => {
      const line = ink('--rule-strong');
      const axis = (name: string) => ({
        type: 'value' as const,
        min: 0,
        max: 100,
        name,
        nameLocation: 'middle' as const,
        nameGap: 26,
        axisLabel: { color: ink('--ink') },
        nameTextStyle: { color: ink('--ink') },
        splitLine: { lineStyle: { color: ink('--rule') } },
      });
      return {
        grid: { left: 44, right: 14, top: 10, bottom: 40 },
        xAxis: axis('stated, %'),
        yAxis: axis('right, %'),
        series: [
          {
            type: 'line',
            data: [
              [0, 0],
              [100, 100],
            ],
            symbol: 'none',
            silent: true,
            lineStyle: { color: line, type: 'dashed' },
          },
          ...this.bands().map((b) => ({
            type: 'line',
            data: [
              [100 * b.mean, 100 * b.low],
              [100 * b.mean, 100 * b.high],
            ],
            symbol: 'rect',
            symbolSize: [9, 2],
            itemStyle: { color: ink('--verdigris') },
            lineStyle: { color: ink('--verdigris'), width: 2 },
          })),
          {
            type: 'scatter',
            symbolSize: 10,
            itemStyle: { color: ink('--verdigris') },
            label: {
              show: true,
              position: 'right',
              color: ink('--ink'),
              formatter: (p: { dataIndex: number }) => `n ${this.bands()[p.dataIndex]?.n ?? ''}`,
            },
            data: this.bands().map((b) => [100 * b.mean, (100 * b.right) / b.n]),
          },
        ],
      };
    });
  }
}
