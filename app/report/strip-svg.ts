import { highest, lowest } from '@core/quantity/judge';
import type { Strip } from '../ui/limit-strip';

const [WIDE, HIGH] = [300, 22];

/** A reading against its limits for paper: window as a box, nominal as a notch, end as a bar, the reading with its ± 2u as a pin. Black and white keep its meaning. @param width points */
export function stripSvg(s: Strip, width = WIDE): string {
  const at = (v: number): string =>
    Math.max(0, Math.min(WIDE, ((v - s.min) / (s.max - s.min)) * WIDE)).toFixed(1);
  const line = (x: string, from: number, to: number, width: number) =>
    `<line x1="${x}" x2="${x}" y1="${from}" y2="${to}" stroke="#1e2a2b" stroke-width="${width}"/>`;
  const { window: w, value, u } = s;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDE} ${HIGH}" width="${width}" height="${((HIGH * width) / WIDE).toFixed(1)}">`,
    `<line x1="0" x2="${WIDE}" y1="11" y2="11" stroke="#6b7675" stroke-width="1"/>`,
    ...(w
      ? [
          `<rect x="${at(w.from)}" y="4" width="${(Number(at(w.to)) - Number(at(w.from))).toFixed(1)}" height="14" fill="#e3ebe6" stroke="#1f6f5f" stroke-width="1"/>`,
        ]
      : []),
    ...(s.nominal === undefined ? [] : [line(at(s.nominal), 3, 19, 1)]),
    ...(s.end === undefined ? [] : [line(at(s.end), 1, 21, 3)]),
    ...(s.marks ?? []).map(
      (m) =>
        `<path d="M${Number(at(m.at)) - 4} 21h8l-4 -7z" fill="none" stroke="#764e00" stroke-width="1.2"/>`,
    ),
    ...(value === undefined
      ? []
      : [
          ...(u
            ? [
                `<line x1="${at(lowest({ value, u }))}" x2="${at(highest({ value, u }))}" y1="11" y2="11" stroke="#1e2a2b" stroke-width="4" stroke-opacity="0.4"/>`,
              ]
            : []),
          `<circle cx="${at(value)}" cy="11" r="4" fill="#1e2a2b"/>`,
        ]),
    '</svg>',
  ].join('');
}
