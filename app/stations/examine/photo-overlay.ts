import * as z from 'zod';
import type { PhotoMeasure, PhotoScale, Spot } from '@core/bench/photo';

z.config({ jitless: true });
const SpotSchema = z.strictObject({ x: z.number(), y: z.number() });
/** What was picked on a picture: data beside the untouched original. Lengths mm, spots pixels of the original. */
export const OverlaySchema = z.strictObject({
  /** SHA-256 of the picture, and the observable that was measured on it. */
  hash: z.string(),
  key: z.string(),
  scale: z.enum(['ruler', 'rectangle']),
  /** Between the marks of a ruler; or width and height of a rectangle. */
  sides: z.array(z.number().positive()).min(1).max(2),
  sideU: z.number().nonnegative(),
  marks: z.array(SpotSchema).max(4),
  spots: z.array(SpotSchema).max(20),
});
export type Overlay = z.infer<typeof OverlaySchema>;

/** An overlay as lines that a person can read: "ruler 100 ± 0.1", "mark 12 40", "spot 300 41". */
export const overlayLines = (o: Overlay): string[] => [
  `picture ${o.hash}`,
  `of ${o.key}`,
  `${o.scale} ${o.sides.join(' ')} ± ${o.sideU}`,
  ...o.marks.map((m) => `mark ${m.x} ${m.y}`),
  ...o.spots.map((m) => `spot ${m.x} ${m.y}`),
];

/** Reads such lines; none when they are none. */
export function readOverlay(lines: unknown): Overlay | undefined {
  if (!Array.isArray(lines)) return undefined;
  const all = lines.map(String);
  const after = (word: string) =>
    all.filter((l) => l.startsWith(`${word} `)).map((l) => l.slice(word.length + 1));
  const spots = (word: string) =>
    after(word).map((l) => {
      const [x, y] = l.split(' ').map(Number);
      return { x, y };
    });
  const scale = (['ruler', 'rectangle'] as const).find((k) => after(k).length > 0);
  const [sides, u] = (after(scale ?? '')[0] ?? '').split(' ± ');
  return OverlaySchema.safeParse({
    hash: after('picture')[0],
    key: after('of')[0],
    scale,
    sides: (sides ?? '').split(' ').map(Number),
    sideU: Number(u),
    marks: spots('mark'),
    spots: spots('spot'),
  }).data;
}

export const MARKS = { ruler: 2, rectangle: 4 } as const;

/** The scale of an overlay, once all its marks are set. */
export function scaleOf(o: Pick<Overlay, 'scale' | 'sides' | 'sideU' | 'marks'>): PhotoScale | undefined {
  if (o.marks.length < MARKS[o.scale] || o.sides.length < (o.scale === 'ruler' ? 1 : 2)) return undefined;
  return o.scale === 'ruler'
    ? { kind: 'ruler', points: o.marks as unknown as [Spot, Spot], mm: o.sides[0]!, u: o.sideU }
    : {
        kind: 'rectangle',
        corners: o.marks as unknown as [Spot, Spot, Spot, Spot],
        width: o.sides[0]!,
        height: o.sides[1]!,
        u: o.sideU,
      };
}

/** Spots that a measure of this dimension wants. */
export const wantedFor = (what: PhotoMeasure['what']): number => (what === 'length' ? 2 : 3);

/** What the next press on the picture sets. */
export function nextSpot(o: Pick<Overlay, 'scale' | 'marks' | 'spots'>, what: PhotoMeasure['what']): string {
  const mark = o.marks.length;
  if (mark < MARKS[o.scale])
    return o.scale === 'ruler'
      ? `${mark === 0 ? 'One' : 'The other'} mark of the ruler`
      : `Corner ${mark + 1} of the rectangle${mark === 0 ? ', going around; the first side is its width' : ''}`;
  const spot = o.spots.length;
  if (spot >= wantedFor(what)) return '';
  if (what === 'angle') return ['One leg', 'The corner of the angle', 'The other leg'][spot]!;
  return spot === 0 ? 'Where the length begins' : 'Where it ends';
}
