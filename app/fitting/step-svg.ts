import { fixed } from '../ui/drive-shapes';
import type { StepShape, StepPicture } from './step-shape';

/** How each kind of shape is painted on paper and on a phone. */
const PAINT: Readonly<Record<string, string>> = {
  wheel: 'fill:#f4f1ea;stroke:#1e2a2b;stroke-width:2',
  smooth: 'fill:#fbfaf6;stroke:#1e2a2b;stroke-width:1.1',
  shoe: 'fill:none;stroke:#6b7675;stroke-width:6;stroke-linecap:round',
  mark: 'fill:none;stroke:#1e2a2b;stroke-width:1.6',
  loop: 'fill:none;stroke:#1e2a2b;stroke-width:3.4',
  slack: 'stroke-dasharray:9 5;stroke-width:2.2',
  lit: 'fill:none;stroke:#8a5a00;stroke-width:3.2',
  arrow: 'fill:none;stroke:#1f6f5f;stroke-width:3',
  thin: 'stroke-width:1.8',
  word: 'fill:#1f6f5f;font-weight:600',
  look: 'fill:#8a5a00',
  name: 'fill:#1e2a2b',
};
/** The same as a stylesheet for pictures within `svg.p`. */
export const PICTURE_CSS = [
  ...Object.entries(PAINT).map(([is, css]) => `.p .${is}{${css}}`),
  '.p text{text-anchor:middle;font-family:sans-serif}',
].join('');

const esc = (s: string) => s.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');

/** Shapes as SVG. `inline`: with their paint, for paper; else by class, for a page that has the stylesheet. */
export function shapesSvg(shapes: readonly StepShape[], textMm: number, inline: boolean): string {
  return shapes
    .map((s) => {
      const style = s.is
        .split(' ')
        .map((k) => PAINT[k] ?? '')
        .filter(Boolean)
        .join(';');
      const look = inline ? paintOf(style) : `class="${s.is}"`;
      if (s.tag === 'circle')
        return `<circle ${look} cx="${fixed(s.x)}" cy="${fixed(s.y)}" r="${fixed(s.r)}"/>`;
      if (s.tag === 'path') return `<path ${look} d="${s.d}"/>`;
      return `<text ${look} x="${fixed(s.x)}" y="${fixed(s.y)}" font-size="${fixed(textMm)}"${inline ? ' text-anchor="middle"' : ''}>${esc(s.text)}</text>`;
    })
    .join('');
}

/** Paint as attributes: what sets the PDF knows no style. */
const paintOf = (css: string): string =>
  [...new Map(css.split(';').map((p) => p.split(':') as [string, string]))]
    .map(([k, v]) => `${k}="${v}"`)
    .join(' ');

/** Words of a picture as one letter each, for drawings as small as a stamp; what each means stands beside them once. */
export const LETTERS: Readonly<Record<string, string>> = {
  locked: 'L',
  stop: 'S',
  loose: 'F',
  pinned: 'P',
  'let go': 'R',
  key: 'K',
};
/** How much larger such a letter is than a name. */
const LARGER = 2.3;

/** A picture for paper, as small as a stamp: no names, letters for words, lines strong enough to be seen. */
export function stampSvg(p: StepPicture, widthPt: number): string {
  const { x, y, width, height } = p.box;
  const shapes = [...p.base.filter((s) => s.tag !== 'text'), ...p.loop, ...p.over].map(
    (s): StepShape =>
      s.tag === 'text' ? { ...s, y: s.y + p.textMm * 0.45, text: LETTERS[s.text] ?? s.text } : s,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPt}" height="${fixed((widthPt * height) / width)}" viewBox="${fixed(x)} ${fixed(y)} ${fixed(width)} ${fixed(height)}">${shapesSvg(shapes, p.textMm * LARGER, true)}</svg>`;
}

/** A whole picture for paper, with its names. */
export function stepSvg(p: StepPicture, widthPt: number): string {
  const { x, y, width, height } = p.box;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPt}" height="${fixed((widthPt * height) / width)}" viewBox="${fixed(x)} ${fixed(y)} ${fixed(width)} ${fixed(height)}">${shapesSvg([...p.base, ...p.loop, ...p.over], p.textMm, true)}</svg>`;
}
