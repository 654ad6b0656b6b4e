import { nth } from '@core/quantity/must';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import type { EChartsCoreOption, EChartsType } from 'echarts/core';
import { type CaptureArea, type CaptureLine, captureOption, type CaptureRuler } from './capture-option';
import { chartInHost } from './chart-in-host';
import { pressedOnCapture } from './capture-keys';

/** Crank and cams over one cycle or over time: zoomed by wheel, drag and the bar below; a cursor moves by keys or a press, from edge to edge too. */
@Component({
  selector: 'hs-capture-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'slider',
    tabindex: '0',
    'aria-orientation': 'horizontal',
    '[attr.aria-label]': 'label()',
    '[attr.aria-valuemin]': 'range()[0]',
    '[attr.aria-valuemax]': 'range()[1]',
    '[attr.aria-valuenow]': 'cursor() ?? range()[0]',
    '[attr.aria-valuetext]': 'said()',
    '(keydown)': 'press($event)',
  },
  template: '',
  styles: ':host { display: block; height: 320px; }',
})
export class CaptureChart {
  readonly label = input.required<string>();
  readonly lines = input.required<readonly CaptureLine[]>();
  /** From and to, in what the axis counts; its name. */
  readonly range = input.required<readonly [number, number]>();
  readonly axis = input.required<string>();
  /** Where the cursor jumps to, growing, each with its text. */
  readonly stops = input<readonly { at: number; text: string }[]>([]);
  readonly areas = input<readonly CaptureArea[]>([]);
  readonly ruler = input<CaptureRuler>();
  /** What the cursor says, for those who do not see it. */
  readonly said = input('');
  /** How far a key moves the cursor. */
  readonly step = input.required<number>();
  readonly cursor = signal<number | undefined>(undefined);
  readonly mark = signal<number | undefined>(undefined);
  readonly moved = output<{ at: number | undefined; mark: number | undefined }>();
  /** What is seen of the range, when it changes. */
  readonly seen = output<readonly [number, number]>();
  private chart: EChartsType | undefined;
  private window: [number, number] = [0, 100];
  private paper = '';

  constructor() {
    chartInHost(
      ({ ink }) => {
        this.paper = ink('--paper');
        return captureOption(
          {
            lines: this.lines(),
            range: this.range(),
            axis: this.axis(),
            stops: this.stops(),
            areas: this.areas(),
            ruler: this.ruler(),
            cursor: this.cursor(),
            mark: this.mark(),
            window: untracked(() => this.window),
          },
          ink,
        );
      },
      (chart) => this.made(chart),
    );
    // Another range is another picture: where the cursor stood says nothing there.
    effect(() => {
      this.range();
      untracked(() => {
        this.window = [0, 100];
        this.place(undefined, undefined);
      });
    });
    const ends = inject(DestroyRef);
    ends.onDestroy(() => (this.chart = undefined));
    afterNextRender(() => this.seen.emit(this.range()));
  }

  private made(chart: EChartsType): void {
    this.chart = chart;
    chart.on('datazoom', () => {
      const zoom = nth(
        (chart.getOption() as EChartsCoreOption & { dataZoom: { start: number; end: number }[] }).dataZoom,
        0,
      );
      if (zoom.start === this.window[0] && zoom.end === this.window[1]) return;
      this.window = [zoom.start, zoom.end];
      this.tellSeen();
    });
    chart.getZr().on('click', (e) => {
      const at = chart.convertFromPixel({ xAxisIndex: 0 }, e.offsetX);
      if (Number.isFinite(at)) this.place(at, this.mark());
    });
  }

  private tellSeen(): void {
    const [from, to] = this.range();
    const wide = (to - from) / 100;
    this.seen.emit([from + this.window[0] * wide, from + this.window[1] * wide]);
  }

  private place(at: number | undefined, mark: number | undefined): void {
    const [from, to] = this.range();
    const held = at === undefined ? undefined : Math.max(from, Math.min(to, at));
    this.cursor.set(held);
    this.mark.set(mark);
    this.moved.emit({ at: held, mark });
  }

  /** The chart as a picture. */
  png(): string | undefined {
    return this.chart?.getDataURL({ type: 'png', pixelRatio: 2, backgroundColor: this.paper });
  }

  async svg(): Promise<string | undefined> {
    const { chartSvg } = await import('./chart-library');
    return this.chart && chartSvg(this.chart, this.paper);
  }

  protected press(e: KeyboardEvent): void {
    const now = {
      at: this.cursor(),
      mark: this.mark(),
      window: this.window,
      range: this.range(),
      step: this.step(),
      stops: this.stops().map((s) => s.at),
    };
    const next = pressedOnCapture(now, e);
    if (!next) return;
    e.preventDefault();
    e.stopPropagation();
    this.place(next.at, next.mark);
    const [start, end] = next.window;
    if (start !== this.window[0] || end !== this.window[1]) {
      this.window = [start, end];
      this.chart?.dispatchAction({ type: 'dataZoom', start, end });
      this.tellSeen();
    }
  }
}
