import type { EChartsCoreOption } from 'echarts/core';
import type { ChartSpan, Watch } from '@core/patterns/charts';
import { monthWords } from '../messages/bulletins';
import type { Inks } from '../ui/chart-in-host';
import { chartAxis, CHART_ROOM } from './chart-options';

const months = (spans: readonly ChartSpan[], inks: Inks) => ({
  ...chartAxis(inks, ''),
  type: 'category',
  data: spans.map((s) => monthWords(s.from)),
});

/** Counts by spans of time with what was to be expected and the limits of chance; what lies outside bears a triangle. */
export function spanOption(spans: readonly ChartSpan[], found: string) {
  return (inks: Inks): EChartsCoreOption => {
    const { ink } = inks;
    // room for what stands over a column
    const top = 1 + Math.max(1, ...spans.flatMap((s) => [s.k, s.high]));
    const stair = (data: number[], type: string) => ({
      type: 'line',
      step: 'middle',
      data,
      symbol: 'none',
      silent: true,
      lineStyle: { color: ink('--ink-2'), width: 1, type },
    });
    return {
      grid: CHART_ROOM,
      xAxis: months(spans, inks),
      yAxis: { ...chartAxis(inks, found), type: 'value', min: 0, max: top, nameGap: 34, minInterval: 1 },
      series: [
        {
          type: 'bar',
          barMaxWidth: 18,
          itemStyle: { color: ink('--verdigris'), opacity: 0.45 },
          data: spans.map((s) => s.k),
        },
        stair(
          spans.map((s) => s.expected),
          'solid',
        ),
        stair(
          spans.map((s) => s.low),
          'dotted',
        ),
        stair(
          spans.map((s) => s.high),
          'dotted',
        ),
        {
          type: 'scatter',
          symbol: 'triangle',
          symbolSize: 12,
          silent: true,
          itemStyle: { color: ink('--brass') },
          data: spans.flatMap((s, i) => (s.out ? [[i, s.k]] : [])),
        },
      ],
    };
  };
}

/** What speaks for a raised rate, summed up month by month, and the line above which it is an alarm. */
export function watchOption(spans: readonly ChartSpan[], watch: Watch) {
  return (inks: Inks): EChartsCoreOption => {
    const { ink } = inks;
    return {
      grid: CHART_ROOM,
      xAxis: months(spans, inks),
      yAxis: {
        ...chartAxis(inks, 'speaks for it, nats'),
        type: 'value',
        min: 0,
        max: Math.ceil(Math.max(watch.limit, ...watch.sums) * 1.1),
        nameGap: 34,
      },
      series: [
        {
          type: 'line',
          data: watch.sums,
          symbol: 'none',
          lineStyle: { color: ink('--verdigris'), width: 2 },
          markLine: {
            symbol: 'none',
            silent: true,
            lineStyle: { color: ink('--brass'), type: 'dashed' },
            label: { position: 'insideEndTop', color: ink('--ink'), formatter: 'alarm' },
            data: [{ yAxis: watch.limit }],
          },
        },
      ],
    };
  };
}

/** The same as a table. */
export const spanTable = (spans: readonly ChartSpan[], watch?: Watch): (string | number)[][] => [
  ['from', 'of', 'found', 'expected', 'low', 'high', 'out', ...(watch ? ['watch'] : [])],
  ...spans.map((s, i) => [
    s.from,
    s.n ?? '',
    s.k,
    Number(s.expected.toFixed(3)),
    s.low,
    s.high,
    s.out ?? '',
    ...(watch ? [Number((watch.sums[i] ?? 0).toFixed(3))] : []),
  ]),
];
