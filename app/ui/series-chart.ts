import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  Injector,
  input,
} from '@angular/core';

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
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const injector = inject(Injector);
    let ended = false;
    const ends = inject(DestroyRef);
    ends.onDestroy(() => (ended = true));
    const paint = async () => {
      const { makeChart } = await import('./chart-library');
      if (ended) return;
      const chart = makeChart(host);
      const fit = new ResizeObserver(() => chart.resize());
      fit.observe(host);
      ends.onDestroy(() => {
        fit.disconnect();
        chart.dispose();
      });
      const style = getComputedStyle(host);
      const [ink, quiet, found, line] = ['--ink', '--ink-2', '--brass-ink', '--verdigris'].map((v) =>
        style.getPropertyValue(v).trim(),
      );
      effect(
        () => {
          chart.setOption(
            {
              animation: false,
              textStyle: { color: ink, fontFamily: style.fontFamily },
              grid: { left: 56, right: 12, top: 22, bottom: 34 },
              xAxis: axisOf('s', quiet!),
              yAxis: { ...axisOf(this.axis(), quiet!), nameLocation: 'end', scale: true },
              series: [
                {
                  type: 'scatter',
                  symbolSize: 3,
                  itemStyle: { color: found },
                  data: thin(this.points()).map((p) => [p.t, p.x]),
                },
                ...this.curves().map((c) => ({
                  type: 'line',
                  name: c.name,
                  showSymbol: false,
                  lineStyle: { color: line, width: 2, type: c.dashed ? 'dashed' : 'solid' },
                  data: c.points.map((p) => [p.t, p.x]),
                })),
              ],
            },
            { replaceMerge: ['series'] },
          );
        },
        { injector },
      );
    };
    afterNextRender(() => void paint());
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
