import type { PicturePoint } from '@core/examination/photo';
import type { Colour, Patch } from '@core/simulate/photograph';

/** What lies on the bench of a photograph: patches, what is in view, and where something can be measured. Millimetres, y downwards. */
export type PhotoScene = {
  view: { x: number; y: number; w: number; h: number };
  patches: Patch[];
  /** Corners of the card that gives the scale, in order; its sides. */
  card: readonly PicturePoint[];
  /** Spots of the measure that the scene offers. */
  spots: readonly PicturePoint[];
};

export const CARD = { width: 80, height: 50 };
export const BENCH: Colour = [206, 200, 190];
export const INK: Colour = [38, 38, 40];
export const STEEL: Colour = [138, 144, 150];
export const DARK: Colour = [84, 88, 94];
export const RUBBER: Colour = [48, 46, 44];
export const CORD: Colour = [214, 196, 150];
export const PLASTIC: Colour = [112, 92, 66];
export const BURNT: Colour = [58, 40, 28];
export const PAPER: Colour = [248, 247, 242];
export const RUST: Colour = [150, 84, 44];
export const WET: Colour = [96, 130, 120];

export const patchRect = (x: number, y: number, w: number, h: number): PicturePoint[] => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + h },
  { x, y: y + h },
];
export const round = (x: number, y: number, r: number, n = 64): PicturePoint[] =>
  Array.from({ length: n }, (_, i) => ({
    x: x + r * Math.cos((2 * Math.PI * i) / n),
    y: y + r * Math.sin((2 * Math.PI * i) / n),
  }));
export const patchAt = (r: number, deg: number): PicturePoint => ({
  x: r * Math.cos((deg * Math.PI) / 180),
  y: r * Math.sin((deg * Math.PI) / 180),
});
export const patch = (outline: readonly PicturePoint[], colour: Colour): Patch => ({ outline, colour });

/** A card of known sides with a ruler of ticks along its lower edge, below what is shown. */
export function withCard(
  own: Patch[],
  box: { x: number; y: number; w: number; h: number },
  spots: readonly PicturePoint[],
): PhotoScene {
  const [x, y] = [box.x, box.y + box.h + 12];
  const ticks = Array.from({ length: CARD.width / 5 + 1 }, (_, i) =>
    patch(patchRect(x + i * 5 - 0.3, y + CARD.height - (i % 2 === 0 ? 7 : 4), 0.6, i % 2 === 0 ? 7 : 4), INK),
  );
  return {
    view: { x: box.x - 8, y: box.y - 8, w: Math.max(box.w, CARD.width) + 16, h: box.h + CARD.height + 28 },
    patches: [...own, patch(patchRect(x, y, CARD.width, CARD.height), PAPER), ...ticks],
    card: patchRect(x, y, CARD.width, CARD.height),
    spots,
  };
}
