import type { Due } from '@core/catalogue/interval';
import { roundDown } from '@core/catalogue/interval';
import { formatDay } from '@core/quantity/dates';
import { formatNumber } from '@core/quantity/format-quantity';
import { fromBase } from '@core/quantity/units';
import type { House } from '@core/facts/read-value';

export type LabelModel = {
  engine: string;
  vehicle: string;
  fittedDay: string;
  fittedKm: number;
  parts: string[];
  due: Due;
  step: number;
};

/** A service label of 74 × 44 mm as SVG: what was changed, when, at what distance, and when next. */
export function labelSvg(m: LabelModel, house: House): string {
  const unit = house.units['distance'] ?? 'km';
  const show = (km: number, step = 1) =>
    `${formatNumber(roundDown(fromBase('distance', km, unit), step), 0).replace(/\u202f/g, '\u00a0')} ${unit}`;
  const esc = (s: string) => s.replace(/&/g, '&amp;').replace(/</g, '&lt;');
  const cut = (s: string, n: number) => (s.length > n ? `${s.slice(0, n - 1)}…` : s);
  const line = (y: number, size: number, text: string, weight = 400) =>
    `<text x="4" y="${y}" font-size="${size}" font-weight="${weight}">${esc(text)}</text>`;
  return [
    '<svg xmlns="http://www.w3.org/2000/svg" width="74mm" height="44mm" viewBox="0 0 74 44" font-family="Plex, IBM Plex Sans, sans-serif" fill="#1d2829">',
    '<rect x="0.5" y="0.5" width="73" height="43" rx="2.5" fill="#ffffff" stroke="#1d2829" stroke-width="0.6"/>',
    line(7, 4.4, `Timing drive changed ${formatDay(m.fittedDay, house.dateOrder)}`, 600),
    line(12, 3.4, `at ${show(m.fittedKm)} · ${cut(`${m.engine} ${m.vehicle}`, 34)}`),
    line(17, 3, cut(m.parts.slice(0, 3).join(', '), 48)),
    line(21, 3, cut(m.parts.slice(3).join(', '), 48)),
    '<line x1="4" x2="70" y1="24" y2="24" stroke="#1d2829" stroke-width="0.4"/>',
    line(29.5, 3.4, 'Next, whichever comes first'),
    line(36, 5.4, `${show(m.due.dueKm, m.step)} or ${formatDay(m.due.dueDay, house.dateOrder)}`, 600),
    line(41, 2.6, 'The vehicle maker’s schedule comes first where it is shorter.'),
    '</svg>',
  ].join('');
}
