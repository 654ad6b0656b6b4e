import type { Point } from '@core/drive/path';
import { fixed } from '../ui/drive-shapes';
import type { StepShape } from './step-shape';

const RAD = Math.PI / 180;

/** An arc of three quarters of a turn with a head, in a sense seen from the front. */
export function turnArrow(
  c: Point,
  r: number,
  sense: 'cw' | 'ccw',
  is: string,
  word: string,
  textMm: number,
): StepShape[] {
  const sign = sense === 'ccw' ? 1 : -1;
  const [from, to] = [90 - sign * 120, 90 + sign * 120];
  const at = (deg: number, q = r) => ({
    x: c.x + q * Math.cos(deg * RAD),
    y: -(c.y + q * Math.sin(deg * RAD)),
  });
  const [a, b] = [at(from), at(to)];
  const head = textMm * 0.7;
  const back = to - sign * ((head / r) * 57.3);
  const [h1, h2] = [at(back, r + head * 0.6), at(back, r - head * 0.6)];
  const d =
    `M${fixed(a.x)} ${fixed(a.y)}A${fixed(r)} ${fixed(r)} 0 1 ${sign === 1 ? 0 : 1} ${fixed(b.x)} ${fixed(b.y)}` +
    `M${fixed(h1.x)} ${fixed(h1.y)}L${fixed(b.x)} ${fixed(b.y)}L${fixed(h2.x)} ${fixed(h2.y)}`;
  const top = at(90, r + textMm * 0.9);
  return [
    { tag: 'path', is, d },
    ...(word ? [{ tag: 'text' as const, is: 'word', x: top.x, y: top.y, text: word }] : []),
  ];
}
