import { BarChart, LineChart, ScatterChart } from 'echarts/charts';
import {
  DataZoomComponent,
  GridComponent,
  LegendComponent,
  MarkAreaComponent,
  MarkLineComponent,
} from 'echarts/components';
import { init, use, type EChartsType } from 'echarts/core';
import { CanvasRenderer, SVGRenderer } from 'echarts/renderers';

use([
  BarChart,
  LineChart,
  ScatterChart,
  GridComponent,
  DataZoomComponent,
  LegendComponent,
  MarkAreaComponent,
  MarkLineComponent,
  CanvasRenderer,
  SVGRenderer,
]);

/** A chart in a box. */
export const makeChart = (box: HTMLElement): EChartsType => init(box, undefined, { renderer: 'canvas' });

/** What a chart shows, as an SVG of its size. */
export function chartSvg(chart: EChartsType, paper: string): string {
  const [width, height] = [chart.getWidth(), chart.getHeight()];
  const drawn = init(null, undefined, { renderer: 'svg', ssr: true, width, height });
  drawn.setOption({ ...chart.getOption(), animation: false, backgroundColor: paper });
  const svg = drawn.renderToSVGString();
  drawn.dispose();
  return svg;
}
