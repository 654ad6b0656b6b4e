import type { ChartSpan } from '@core/patterns/charts';
import { monthWords } from '../messages/bulletins';
import { ROOM } from './paper';

const HIGH = 150;
const LEFT = 30;
const [TOP, BOTTOM] = [8, 26];
/** Names under the columns at most. */
const NAMES = 12;

/**
 * Counts by spans of time for paper: a column each, a dash where it was to be expected, a bracket for what chance brings, a
 * triangle over what lies above that. Black and white keep its meaning.
 */
export function spanSvg(spans: readonly ChartSpan[], width: number = ROOM.width): string {
  const most = Math.max(1, ...spans.flatMap((s) => [s.k, Number.isFinite(s.high) ? s.high : 0]));
  const each = (width - LEFT) / Math.max(1, spans.length);
  const y = (v: number): number => TOP + (HIGH - TOP - BOTTOM) * (1 - v / most);
  const n = (v: number): string => v.toFixed(1);
  const every = Math.ceil(spans.length / NAMES);
  const line = (x1: number, x2: number, y1: number, y2: number, wide: number) =>
    `<line x1="${n(x1)}" x2="${n(x2)}" y1="${n(y1)}" y2="${n(y2)}" stroke="#1e2a2b" stroke-width="${wide}"/>`;
  const text = (x: number, at: number, anchor: string, words: string) =>
    `<text x="${n(x)}" y="${n(at)}" font-size="8" text-anchor="${anchor}" fill="#1e2a2b">${words}</text>`;
  const columns = spans.flatMap((s, i) => {
    const [from, middle] = [LEFT + each * i, LEFT + each * (i + 0.5)];
    const wide = Math.min(18, each * 0.5);
    return [
      `<rect x="${n(middle - wide / 2)}" y="${n(y(s.k))}" width="${n(wide)}" height="${n(y(0) - y(s.k))}" fill="#c9d6cf" stroke="#1f6f5f" stroke-width="0.8"/>`,
      line(from + each * 0.12, from + each * 0.88, y(s.expected), y(s.expected), 1.4),
      line(middle, middle, y(s.low), y(s.high), 0.7),
      line(middle - 3, middle + 3, y(s.high), y(s.high), 0.7),
      ...(s.out === 'above'
        ? [`<path d="M${n(middle - 4)} ${n(y(s.k) - 2)}h8l-4 -6z" fill="#764e00"/>`]
        : []),
      ...(i % every === 0 ? [text(middle, HIGH - 12, 'middle', monthWords(s.from))] : []),
    ];
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${HIGH}" width="${width}" height="${HIGH}">`,
    line(LEFT, width, y(0), y(0), 0.8),
    text(LEFT - 4, y(0) + 3, 'end', '0'),
    text(LEFT - 4, y(most) + 6, 'end', String(most)),
    ...columns,
    '</svg>',
  ].join('');
}
