import type { Wheel } from '@core/drive/layout';
import type { PartAppearance } from './appearance';

/** A line or shape of a thing, in its own millimetres, y downwards. `found` is what the facts show on it, `ghost` what is expected. */
export type DrawnShape = {
  d: string;
  look: 'body' | 'fine' | 'found' | 'ghost' | 'window' | 'hatch';
  title?: string;
};
/** A place on a thing that inspections are made at. */
export type Zone = { key: string; x: number; y: number };
type Word = { x: number; y: number; text: string };
export type ThingPicture = {
  box: { x: number; y: number; w: number; h: number };
  shapes: DrawnShape[];
  zones: Zone[];
  words: Word[];
};

const n = (v: number): string => (Math.round(v * 100) / 100).toString();

/** How a kind of thing is drawn, and the wheel of the drive that it is on, for what no catalogue says of it. */
export type Drawings = Readonly<
  Record<string, { draw: (appearance: PartAppearance) => ThingPicture; wheel?: (w: Wheel) => boolean }>
>;

/** A circle, or an arc of it from `a` to `b` degrees, anticlockwise from the right as drawn. */
export function circle(x: number, y: number, r: number): string {
  return `M${n(x - r)} ${n(y)}a${n(r)} ${n(r)} 0 1 0 ${n(2 * r)} 0a${n(r)} ${n(r)} 0 1 0 ${n(-2 * r)} 0`;
}

export const pointAt = (x: number, y: number, r: number, deg: number): { x: number; y: number } => ({
  x: x + r * Math.cos((deg * Math.PI) / 180),
  y: y - r * Math.sin((deg * Math.PI) / 180),
});

export function arc(x: number, y: number, r: number, a: number, b: number): string {
  const [from, to] = [pointAt(x, y, r, a), pointAt(x, y, r, b)];
  const sweep = (((b - a) % 360) + 360) % 360;
  return `M${n(from.x)} ${n(from.y)}A${n(r)} ${n(r)} 0 ${sweep > 180 ? 1 : 0} 0 ${n(to.x)} ${n(to.y)}`;
}

export const line = (...points: readonly (readonly [number, number])[]): string =>
  `M${points.map(([x, y]) => `${n(x)} ${n(y)}`).join('L')}`;

export const rectPath = (x: number, y: number, w: number, h: number): string =>
  `${line([x, y], [x + w, y], [x + w, y + h], [x, y + h])}Z`;

/** A box around a drawing of this size with room for its places. */
export const framed = (x: number, y: number, w: number, h: number, edge = 0.12) => ({
  x: x - w * edge,
  y: y - h * edge,
  w: w * (1 + 2 * edge),
  h: h * (1 + 2 * edge),
});
