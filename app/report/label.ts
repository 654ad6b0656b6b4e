import type { Due } from '@core/catalogue/interval';
import { roundDown } from '@core/catalogue/interval';
import { writtenDay, type Notation, onPaper } from '@core/facts/read-value';
import { formatMonth } from '@core/quantity/dates';
import { formatNumber } from '@core/quantity/format-quantity';
import { fromBase } from '@core/quantity/units';
import { fitText, type Measure, PAPER_FONT } from './measure-text';

export type LabelModel = {
  engine: string;
  vehicle: string;
  fittedDay: string;
  /** Only its month is known: no day is printed. */
  monthOnly?: boolean;
  fittedKm: number;
  parts: string[];
  due: Due;
  step: number;
};

/** The label, mm: its size, the margin that text keeps, and the width left for it. */
export const LABEL = { width: 74, height: 44, margin: 4 };
const ROOM = LABEL.width - 2 * LABEL.margin;

/** A line of a label: mm from its upper edge, sizes that it may be set in, the largest first. */
export type TextLine = {
  top: number;
  sizes: readonly number[];
  text: string;
  weight: 400 | 600;
  lines: number;
};

/**
 * A service label as SVG: what was changed, when, at what distance, and when next. Every text is measured and set smaller,
 * broken or, at last, cut, so that nothing runs over the box whatever the names; days name their month.
 */
export function labelSvg(m: LabelModel, notation: Notation, measure: Measure): string {
  const paper = onPaper(notation);
  const unit = notation.units['distance'] ?? 'km';
  const show = (km: number, step = 1) =>
    `${formatNumber(roundDown(fromBase('distance', km, unit), step), 0).replace(/\u202f/g, '\u00a0')}\u00a0${unit}`;
  const day = (iso: string) => writtenDay(iso, paper).replace(/ /g, '\u00a0');
  const month = (iso: string) => formatMonth(iso).replace(/ /g, '\u00a0');
  const rows: TextLine[] = [
    {
      top: 2.6,
      sizes: [4.4, 4, 3.6, 3.2, 2.8],
      weight: 600,
      lines: 1,
      text: `Timing drive changed ${m.monthOnly ? month(m.fittedDay) : day(m.fittedDay)}`,
    },
    {
      top: 8.2,
      sizes: [3.4, 3, 2.7, 2.4],
      weight: 400,
      lines: 2,
      text: `at ${show(m.fittedKm, m.step)} · ${m.engine} ${m.vehicle}`,
    },
    { top: 15.6, sizes: [3, 2.7, 2.4], weight: 400, lines: 2, text: m.parts.join(', ') },
    { top: 25.6, sizes: [3.4, 3], weight: 400, lines: 1, text: 'Next, whichever comes first' },
    {
      top: 29.8,
      sizes: [5.4, 5, 4.5, 4, 3.5, 3],
      weight: 600,
      lines: 1,
      text: `${show(m.due.dueKm, m.step)} or ${m.monthOnly ? month(m.due.dueDay) : day(m.due.dueDay)}`,
    },
    {
      top: 37,
      sizes: [2.6, 2.4, 2.2, 2, 1.8],
      weight: 400,
      lines: 1,
      text: 'The vehicle maker’s schedule comes first where it is shorter.',
    },
  ];
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="74mm" height="44mm" viewBox="0 0 74 44" font-family="${PAPER_FONT}" fill="#1d2829">`,
    '<rect x="0.5" y="0.5" width="73" height="43" rx="2.5" fill="#ffffff" stroke="#1d2829" stroke-width="0.6"/>',
    ...rows.flatMap((r) => paintedText(r, { left: LABEL.margin, room: ROOM }, measure)),
    '<line x1="4" x2="70" y1="23.6" y2="23.6" stroke="#1d2829" stroke-width="0.4"/>',
    '</svg>',
  ].join('');
}

const escaped = (s: string) => s.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** A line, set as large as its room allows, as SVG. */
export function paintedText(
  row: TextLine,
  { left, room }: { left: number; room: number },
  measure: Measure,
): string[] {
  const { size, lines } = fitText(row.text, { ...row, width: room }, measure);
  return lines.map(
    (text, i) =>
      `<text x="${left}" y="${(row.top + size * (1 + 1.15 * i)).toFixed(2)}" font-size="${size}" font-weight="${row.weight}">${escaped(text)}</text>`,
  );
}
