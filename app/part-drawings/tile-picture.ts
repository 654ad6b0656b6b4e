import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { KINDS } from '@core/facts/kinds';
import type { TilePicture } from '../ui/tile-drawing';
import shapes from './shapes.json';

const MarkSchema = z.strictObject({
  d: z.string().optional(),
  /** line, bold, solid, soft: how it is drawn; hole: cut out of the base; dashed, faint: how the base is drawn. */
  style: z.enum(['line', 'bold', 'solid', 'soft', 'hole', 'dashed', 'faint']),
});
const ShapesSchema = z.strictObject({
  bases: z.record(z.string(), z.string()),
  marks: z.record(z.string(), MarkSchema),
});
/** Bases and marks that grades are drawn with, in a box of 64 by 40. */
export const SHAPES = ShapesSchema.parse(shapes);
/** How the grades of each observable are drawn: a base, then marks on it, by name. */
export const TILES: Readonly<Record<string, Readonly<Record<string, string>>>> = Object.fromEntries(
  [...KINDS.values()].flatMap((k) => Object.entries(k.tiles ?? {})),
);

/** The drawing of one grade; none where it has no look of its own. */
export function tilePicture(observable: string, grade: string): TilePicture | undefined {
  const [name, ...marks] = TILES[observable]?.[grade]?.split(' ') ?? [];
  const base = name === undefined ? undefined : SHAPES.bases[name];
  if (base === undefined) return undefined;
  const of = marks.flatMap((m) => SHAPES.marks[m] ?? []);
  return {
    base,
    dashed: of.some((m) => m.style === 'dashed'),
    faint: of.some((m) => m.style === 'faint'),
    marks: of.flatMap((m) => (m.d === undefined ? [] : [{ d: m.d, style: m.style }])),
  };
}
