import type { EChartsCoreOption } from 'echarts/core';
import type { ChartPoint, Life } from '@core/patterns/look';
import type { PlottedFailure } from '@core/patterns/plotted';
import { gammaQuantile } from '@core/quantity/incomplete';
import { failedBy } from '@core/patterns/weibull-bounds';
import type { Inks } from '../ui/chart-in-host';

export const chartAxis = ({ ink }: Inks, name: string) => ({
  name,
  nameLocation: 'middle' as const,
  nameGap: 26,
  nameTextStyle: { color: ink('--ink-2') },
  axisLabel: { color: ink('--ink-2') },
  axisLine: { lineStyle: { color: ink('--rule-strong') } },
  splitLine: { lineStyle: { color: ink('--rule') } },
});
export const CHART_ROOM = { left: 52, right: 14, top: 12, bottom: 40 };
/** Points of a limit line. */
const STEPS = 60;
/** Limits of a funnel: what chance brings to all but 1 in 20 points, and to all but 1 in 500. */
const LIMITS = [0.95, 0.998] as const;

/**
 * A funnel: what came back against what was expected, with the limits of chance round the diagonal (Poisson, made continuous by
 * its gamma tail). Points that are
 * alarms bear another shape and their name, so that no colour is needed to tell them.
 */
export function funnelOption(points: readonly ChartPoint[], x: string, y: string) {
  return (inks: Inks): EChartsCoreOption => {
    const { ink } = inks;
    const most = Math.max(1, ...points.map((p) => p.expected));
    const at = Array.from({ length: STEPS }, (_, i) => (most * (i + 1)) / STEPS);
    const limit = (q: number) => at.map((m) => [m, gammaQuantile(m + 0.5, q)]);
    const line = (data: number[][], type: string) => ({
      type: 'line',
      data,
      symbol: 'none',
      silent: true,
      lineStyle: { color: ink('--ink-2'), width: 1, type },
    });
    const dot = (p: ChartPoint) => ({ name: p.name, value: [p.expected, p.k] });
    return {
      grid: CHART_ROOM,
      xAxis: { type: 'value', min: 0, ...chartAxis(inks, x) },
      yAxis: { type: 'value', min: 0, ...chartAxis(inks, y), nameGap: 34 },
      series: [
        line(
          at.map((m) => [m, m]),
          'solid',
        ),
        ...LIMITS.flatMap((l) => [
          line(limit((1 - l) / 2), l === LIMITS[0] ? 'dashed' : 'dotted'),
          line(limit((1 + l) / 2), l === LIMITS[0] ? 'dashed' : 'dotted'),
        ]),
        {
          type: 'scatter',
          symbolSize: 6,
          itemStyle: { color: ink('--verdigris'), opacity: 0.55 },
          data: points.filter((p) => !p.alarm).map(dot),
        },
        {
          type: 'scatter',
          symbol: 'triangle',
          symbolSize: 13,
          itemStyle: { color: ink('--brass') },
          label: { show: true, position: 'left', formatter: '{b}', color: ink('--ink') },
          data: points.filter((p) => p.alarm).map(dot),
        },
      ],
    };
  };
}

/** A chart's points as a table. @param of what each is counted of, and what was counted */
export const pointTable = (
  points: readonly ChartPoint[],
  name: string,
  of: string,
  found: string,
): (string | number)[][] => [
  [name, of, 'expected', found, 'alarm'],
  ...points.map((p) => [p.name, p.n, Number(p.expected.toFixed(3)), p.k, p.alarm ? 'yes' : 'no']),
];

const depth = (share: number): number => Math.log(-Math.log1p(-share));
/** Shares that the paper has lines at, in percent. */
const PAPER = [0.01, 0.1, 1, 5, 10, 50, 90, 99];

/** Failures on probability paper: a Weibull life is a straight line, ln(−ln(1 − share)) over ln of the months. */
export function paperOption(life: Life, plotted: readonly PlottedFailure[]) {
  return (inks: Inks): EChartsCoreOption => {
    const { ink } = inks;
    const points = plotted.filter((p) => p.share > 0 && p.share < 1 && p.time > 0);
    const months = points.map((p) => p.time);
    const [from, to] = [Math.min(...months, 1), Math.max(...months, 2)];
    const line = life.fit
      ? Array.from({ length: STEPS }, (_, i) => from * (to / from) ** (i / (STEPS - 1))).map((m) => [
          m,
          depth(failedBy(life.fit ?? { shape: 1, scale: 1 }, m)),
        ])
      : [];
    const shares = points.flatMap((p) => [p.from, p.to]).filter((s) => s > 0 && s < 1);
    const ticks = PAPER.map((p) => p / 100);
    const [low, high] = [Math.min(...shares, 0.01), Math.max(...shares, 0.1)];
    return {
      grid: CHART_ROOM,
      xAxis: { type: 'log', min: from, max: to, ...chartAxis(inks, 'months of running') },
      yAxis: {
        type: 'value',
        ...chartAxis(inks, 'came back'),
        nameGap: 38,
        min: depth(ticks.filter((t) => t <= low).at(-1) ?? 0.0001),
        max: depth(ticks.find((t) => t >= high) ?? 0.99),
        axisLabel: { show: false },
        splitLine: { show: false },
      },
      series: [
        {
          type: 'line',
          data: line,
          symbol: 'none',
          silent: true,
          lineStyle: { color: ink('--verdigris'), width: 2 },
          markLine: {
            symbol: 'none',
            silent: true,
            lineStyle: { color: ink('--rule'), type: 'solid' },
            label: { position: 'start', color: ink('--ink-2'), formatter: '{b}' },
            data: ticks.map((t) => ({ yAxis: depth(t), name: `${100 * t} %` })),
          },
        },
        {
          type: 'scatter',
          symbolSize: 7,
          itemStyle: { color: ink('--ink') },
          data: points.map((p) => [p.time, depth(p.share)]),
        },
      ],
    };
  };
}
