import { floatAt } from '@core/quantity/must';
import type { EChartsCoreOption } from 'echarts/core';
import type { Inks } from './chart-in-host';

/** A line: least and most of each step in turn, from the start of the axis or from a place. */
export type CaptureLine = {
  name: string;
  values: Float32Array;
  from: number;
  step: number;
  lift: number;
  look: 'crank' | 'mine' | 'other';
};
/** A stretch that is shaded: a gap of the wheel over the crank, or how far an edge stands off, at a cam's height. */
export type CaptureArea = { from: number; to: number; look: 'gap' | 'off'; low?: number; high?: number };
/** Teeth of the crank wheel by their place, above its line. */
export type CaptureRuler = { at: number; teeth: readonly { at: number; n: number }[] };
export type CaptureShown = {
  lines: readonly CaptureLine[];
  range: readonly [number, number];
  axis: string;
  stops: readonly { at: number; text: string }[];
  areas: readonly CaptureArea[];
  ruler: CaptureRuler | undefined;
  cursor: number | undefined;
  mark: number | undefined;
  window: readonly [number, number];
};

/** Every so many teeth one has its number. */
const NUMBERED = 5;

/** What the library draws of a capture. */
export function captureOption(s: CaptureShown, ink: Inks['ink']): EChartsCoreOption {
  const colours = { crank: ink('--ink-2'), mine: ink('--verdigris'), other: ink('--brass-ink') };
  const quiet = { color: colours.crank };
  const zoom = { filterMode: 'none', start: s.window[0], end: s.window[1] };
  return {
    grid: { left: 12, right: 12, top: 46, bottom: 62 },
    legend: { top: 0, type: 'scroll', textStyle: { color: ink('--ink') }, data: s.lines.map((l) => l.name) },
    xAxis: {
      type: 'value',
      min: s.range[0],
      max: s.range[1],
      name: s.axis,
      nameLocation: 'middle',
      nameGap: 20,
      nameTextStyle: quiet,
      axisLabel: quiet,
      splitLine: { show: false },
    },
    yAxis: { type: 'value', show: false, scale: true },
    dataZoom: [
      { type: 'inside', ...zoom },
      {
        type: 'slider',
        ...zoom,
        height: 18,
        bottom: 8,
        brushSelect: false,
        showDataShadow: false,
        textStyle: quiet,
      },
    ],
    series: [
      ...s.lines.map((l) => ({
        type: 'line',
        name: l.name,
        showSymbol: false,
        lineStyle: {
          color: colours[l.look],
          width: l.look === 'crank' ? 1 : 2,
          type: l.look === 'other' ? 'dashed' : 'solid',
        },
        itemStyle: { color: colours[l.look] },
        dimensions: ['x', 'y'],
        data: pointsOf(l),
      })),
      ...(s.ruler ? [rulerOf(s.ruler, quiet.color)] : []),
      {
        type: 'line',
        name: '',
        data: [],
        markLine: marked(s, quiet.color, ink),
        markArea: shaded(s.areas, ink),
      },
    ],
  };
}

/** The points of a line one behind the other, as the library takes many at once. */
function pointsOf({ values, from, step, lift }: CaptureLine): Float64Array {
  const out = new Float64Array(2 * values.length);
  for (let k = 0; k < values.length; k++) {
    out[2 * k] = from + (k >> 1) * step;
    out[2 * k + 1] = floatAt(values, k) + lift;
  }
  return out;
}

const rulerOf = ({ at, teeth }: CaptureRuler, color: string) => ({
  type: 'scatter',
  name: 'teeth of the crank wheel',
  silent: true,
  symbol: 'rect',
  symbolSize: [1, 7],
  itemStyle: { color },
  data: teeth.map((t) => ({
    value: [t.at, at],
    label: {
      show: t.n === 1 || t.n % NUMBERED === 0,
      formatter: String(t.n),
      position: 'top',
      fontSize: 9,
      color,
    },
  })),
});

function marked(s: CaptureShown, quiet: string, ink: Inks['ink']) {
  const text = ink('--ink');
  // What they say stands below the picture; above it edges have their degrees.
  const cursor = (at: number | undefined, type: string) =>
    at === undefined ? [] : [{ name: '', xAxis: at, lineStyle: { color: text, type, width: 1.5 } }];
  return {
    symbol: 'none',
    silent: true,
    lineStyle: { color: quiet, type: 'dotted' },
    label: { color: text, fontSize: 10, formatter: (p: { name: string }) => p.name },
    data: [
      ...s.stops.map((m) => ({ name: m.text, xAxis: m.at })),
      ...cursor(s.mark, 'dashed'),
      ...cursor(s.cursor, 'solid'),
    ],
  };
}

function shaded(areas: readonly CaptureArea[], ink: Inks['ink']) {
  return {
    silent: true,
    data: areas.map((a) => [
      {
        xAxis: a.from,
        ...(a.low === undefined ? {} : { yAxis: a.low }),
        itemStyle: {
          color: ink(a.look === 'gap' ? '--rule' : '--brass'),
          opacity: a.look === 'gap' ? 0.5 : 0.35,
        },
      },
      { xAxis: a.to, ...(a.high === undefined ? {} : { yAxis: a.high }) },
    ]),
  };
}
