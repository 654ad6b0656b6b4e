import { num } from '@core/quantity/must';
import { asStructured, MOST_SPOTS, OverlaySchema, type StructuredAs } from '@core/facts/value';
import type { Observable } from '@core/facts/observable';
import type { PhotoMeasure, PhotoScale, PicturePoint } from './photo';

/** What was picked on a picture: data beside the untouched original. Lengths mm, spots pixels of the original. */
export type PhotoOverlay = StructuredAs<'overlay'>;

/** The overlay that a fact holds; undefined when it holds none. Earlier makes kept it as lines: "ruler 100 ± 0.1", "mark 12 40", "spot 300 41". */
export function readOverlay(value: unknown): PhotoOverlay | undefined {
  if (!Array.isArray(value)) return asStructured('overlay', value);
  const all = value.map(String);
  const after = (word: string) =>
    all.filter((l) => l.startsWith(`${word} `)).map((l) => l.slice(word.length + 1));
  const spots = (word: string) =>
    after(word).map((l) => {
      const [x, y] = l.split(' ').map(Number);
      return { x, y };
    });
  const scale = (['ruler', 'rectangle', 'counted'] as const).find((k) => after(k).length > 0);
  const [sides, u] = (after(scale ?? '')[0] ?? '').split(' ± ');
  return OverlaySchema.safeParse({
    is: 'overlay',
    hash: after('picture')[0],
    key: after('of')[0],
    scale,
    sides: sides === '-' ? [] : (sides ?? '').split(' ').map(Number),
    sideU: Number(u),
    marks: spots('mark'),
    spots: spots('spot'),
  }).data;
}

export const MARKS = { ruler: 2, rectangle: 4, counted: 0 } as const;

/** The scale of an overlay, once all its marks are set. */
export function scaleOf(
  o: Pick<PhotoOverlay, 'scale' | 'sides' | 'sideU' | 'marks'>,
): PhotoScale | undefined {
  if (
    o.scale === 'counted' ||
    o.marks.length < MARKS[o.scale] ||
    o.sides.length < (o.scale === 'ruler' ? 1 : 2)
  )
    return undefined;
  return o.scale === 'ruler'
    ? {
        kind: 'ruler',
        points: o.marks as unknown as [PicturePoint, PicturePoint],
        mm: num(o.sides, 0),
        u: o.sideU,
      }
    : {
        kind: 'rectangle',
        corners: o.marks as unknown as [PicturePoint, PicturePoint, PicturePoint, PicturePoint],
        width: num(o.sides, 0),
        height: num(o.sides, 1),
        u: o.sideU,
      };
}

/** What a picture can tell of an observable: a measure in the plane of its scale, or a number of things; none of anything else. */
export type OnPhoto = PhotoMeasure['what'] | 'count';
export function onPhoto({ type, how, place }: Observable): OnPhoto | undefined {
  if (how !== 'measured' || (place !== undefined && place !== 'piece')) return undefined;
  if (type.kind === 'count') return 'count';
  if (type.kind !== 'number') return undefined;
  return (['length', 'angle', 'area'] as const).find((d) => d === type.dimension);
}

/** Least and most spots of each. */
const SPOTS: Readonly<Record<OnPhoto, readonly [least: number, most: number]>> = {
  length: [2, 2],
  angle: [3, 3],
  area: [3, MOST_SPOTS],
  count: [1, MOST_SPOTS],
};
export const hasEnough = (o: Pick<PhotoOverlay, 'spots'>, what: OnPhoto): boolean =>
  o.spots.length >= SPOTS[what][0];
export const takesMore = (o: Pick<PhotoOverlay, 'spots'>, what: OnPhoto): boolean =>
  o.spots.length < SPOTS[what][1];
