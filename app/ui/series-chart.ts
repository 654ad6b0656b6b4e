import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { chartInHost } from './chart-in-host';

type Point = { t: number; x: number };
export type Curve = { name: string; points: readonly Point[]; dashed?: boolean };

/** Points that a curve is drawn with at most; more than the chart has columns show nothing more. */
const MOST = 800;

/** Readings over time, with curves through them. The library is fetched with the first chart. */
@Component({
  selector: 'hs-series-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'img', '[attr.aria-label]': 'label()' },
  template: '',
  styles: ':host { display: block; height: 190px; }',
})
export class SeriesChart {
  readonly label = input.required<string>();
  /** Title of the upright axis, with its unit. */
  readonly axis = input.required<string>();
  readonly points = input.required<readonly Point[]>();
  readonly curves = input<readonly Curve[]>([]);

  constructor() {
    chartInHost(({ ink }) => ({
      grid: { left: 56, right: 12, top: 22, bottom: 34 },
      xAxis: axisOf('s', ink('--ink-2')),
      yAxis: { ...axisOf(this.axis(), ink('--ink-2')), nameLocation: 'end', scale: true },
      series: [
        {
          type: 'scatter',
          symbolSize: 3,
          itemStyle: { color: ink('--brass-ink') },
          data: thin(this.points()).map((p) => [p.t, p.x]),
        },
        ...this.curves().map((c) => ({
          type: 'line',
          name: c.name,
          showSymbol: false,
          lineStyle: { color: ink('--verdigris'), width: 2, type: c.dashed ? 'dashed' : 'solid' },
          data: c.points.map((p) => [p.t, p.x]),
        })),
      ],
    }));
  }
}

const axisOf = (name: string, color: string) => ({
  type: 'value',
  name,
  nameLocation: 'middle',
  nameGap: 20,
  nameTextStyle: { color },
  axisLabel: { color },
  axisLine: { lineStyle: { color } },
  splitLine: { show: false },
});

const thin = (points: readonly Point[]): readonly Point[] => {
  const step = Math.ceil(points.length / MOST);
  return step <= 1 ? points : points.filter((_, i) => i % step === 0);
};
