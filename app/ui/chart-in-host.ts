import { afterNextRender, DestroyRef, effect, ElementRef, inject, Injector } from '@angular/core';
import type { EChartsCoreOption, EChartsType } from 'echarts/core';

/** What a chart is painted with: the palette's colours by name, and its typeface. */
export type Inks = { ink: (name: string) => string; font: string };

/**
 * Paints a chart in the component's own element, and again whenever what it shows changes; the library is fetched with the first one. Called where things are injected.
 * @param option what it shows; only its series are replaced as a whole
 * @param made told of the chart once it is there
 */
export function chartInHost(
  option: (inks: Inks) => EChartsCoreOption,
  made?: (chart: EChartsType) => void,
): void {
  const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  const injector = inject(Injector);
  const ends = inject(DestroyRef);
  let ended = false;
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
    made?.(chart);
    const style = getComputedStyle(host);
    const inks = { ink: (name: string) => style.getPropertyValue(name).trim(), font: style.fontFamily };
    effect(
      () => {
        const shown = option(inks);
        const textStyle = { color: inks.ink('--ink'), fontFamily: inks.font };
        chart.setOption({ animation: false, textStyle, ...shown }, { replaceMerge: ['series'] });
      },
      { injector },
    );
  };
  afterNextRender(() => void paint());
}
