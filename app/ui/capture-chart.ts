import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { EChartsCoreOption, EChartsType } from 'echarts/core';
import { chartInHost, type Inks } from './chart-in-host';

/** A line over degrees: a value every step, least and most in turn. */
export type CaptureLine = {
  name: string;
  values: Float32Array;
  lift: number;
  look: 'crank' | 'mine' | 'other';
};
export type CaptureMark = { deg: number; text: string };

/** Crank and cams over one cycle of the crank, zoomed by wheel, drag and the bar below; arrows pan, plus and minus zoom. */
@Component({
  selector: 'hs-capture-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'img',
    tabindex: '0',
    '[attr.aria-label]': 'label()',
    '(keydown)': 'press($event)',
  },
  template: '',
  styles: ':host { display: block; height: 300px; }',
})
export class CaptureChart {
  readonly label = input.required<string>();
  readonly lines = input.required<readonly CaptureLine[]>();
  readonly marks = input<readonly CaptureMark[]>([]);
  /** Degrees from one value pair to the next. */
  readonly step = input.required<number>();
  private chart: EChartsType | undefined;
  private window: [number, number] = [0, 100];
  private paper = '';

  constructor() {
    chartInHost(
      ({ ink }) => this.option(ink),
      (chart) => (this.chart = chart),
    );
  }

  private option(ink: Inks['ink']): EChartsCoreOption {
    this.paper = ink('--paper');
    const colours = { crank: ink('--ink-2'), mine: ink('--verdigris'), other: ink('--brass-ink') };
    const quiet = { color: colours.crank };
    return {
      grid: { left: 12, right: 12, top: 46, bottom: 62 },
      legend: { top: 0, textStyle: { color: ink('--ink') } },
      xAxis: {
        type: 'value',
        min: 0,
        max: 720,
        name: '° of the crank',
        nameLocation: 'middle',
        nameGap: 20,
        nameTextStyle: quiet,
        axisLabel: quiet,
        splitLine: { show: false },
      },
      yAxis: { type: 'value', show: false, scale: true },
      dataZoom: [
        { type: 'inside', filterMode: 'none' },
        { type: 'slider', filterMode: 'none', height: 18, bottom: 8, brushSelect: false, textStyle: quiet },
      ],
      series: this.lines().map((l, i) => ({
        type: 'line',
        name: l.name,
        showSymbol: false,
        lineStyle: {
          color: colours[l.look],
          width: l.look === 'crank' ? 1 : 2,
          type: l.look === 'other' ? 'dashed' : 'solid',
        },
        itemStyle: { color: colours[l.look] },
        data: Array.from(l.values, (v, k) => [Math.floor(k / 2) * this.step(), v + l.lift]),
        ...(i === 0 ? { markLine: this.marked(colours.crank, ink('--ink')) } : {}),
      })),
    };
  }

  private marked(line: string, text: string) {
    return {
      symbol: 'none',
      silent: true,
      lineStyle: { color: line, type: 'dotted' },
      label: { color: text, fontSize: 10, formatter: (p: { name: string }) => p.name },
      data: this.marks().map((m) => ({ name: m.text, xAxis: m.deg })),
    };
  }

  /** The chart as a picture. */
  picture(): string | undefined {
    return this.chart?.getDataURL({ type: 'png', pixelRatio: 2, backgroundColor: this.paper });
  }

  protected press(e: KeyboardEvent): void {
    const [from, to] = this.window;
    const wide = to - from;
    const pan = { ArrowLeft: -0.2, ArrowRight: 0.2 }[e.key];
    const zoom = { '+': 0.5, '-': 2 }[e.key];
    if (pan === undefined && zoom === undefined) return;
    e.preventDefault();
    e.stopPropagation();
    const next = Math.min(100, zoom === undefined ? wide : wide * zoom);
    const middle = (from + to) / 2 + (pan ?? 0) * wide;
    const start = Math.max(0, Math.min(100 - next, middle - next / 2));
    this.window = [start, start + next];
    this.chart?.dispatchAction({ type: 'dataZoom', start, end: start + next });
  }
}
