import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { type Result, err, ok } from '@core/quantity/result';

/** What a place is counted in: belt teeth and chain links from 1 at the paint, degrees, millimetres along a guide, tracks, pieces by number. */
export const PLACED_ON = ['tooth', 'link', 'degree', 'station', 'track', 'edge', 'piece'] as const;
export type PlacedOn = (typeof PLACED_ON)[number];

/** A place on a thing: one spot, or from–to; of an edge the side alone may do. */
export const PlaceSchema = z
  .strictObject({
    on: z.enum(PLACED_ON),
    from: z.number().min(-1e6).max(1e6).optional(),
    to: z.number().min(-1e6).max(1e6).optional(),
    edge: z.enum(['front', 'rear']).optional(),
  })
  .refine((p) => p.on === 'edge' || p.from !== undefined, 'a place needs where it is')
  .refine((p) => p.on !== 'edge' || p.edge !== undefined, 'an edge is the front or the rear one')
  .refine(
    (p) => p.to === undefined || (p.from !== undefined && p.to >= p.from),
    'a place runs from less to more',
  );
export type Place = Readonly<z.infer<typeof PlaceSchema>>;

/** One text for one place. @example placeKey({ on: 'tooth', from: 41 }) // "tooth 41" */
export function placeKey(p: Place): string {
  const span =
    p.from === undefined ? '' : p.to === undefined || p.to === p.from ? ` ${p.from}` : ` ${p.from}–${p.to}`;
  return `${p.on}${p.edge ? ` ${p.edge}` : ''}${span}`;
}

const UNIT: Record<PlacedOn, string> = {
  tooth: '',
  link: '',
  degree: '°',
  station: '\u00a0mm',
  track: '',
  edge: '',
  piece: '',
};

/** A place as a person reads it. @example placeWords({ on: 'link', from: 3, to: 5 }) // "links 3–5" */
export function placeWords(p: Place): string {
  const many = p.to !== undefined && p.to !== p.from;
  const span = p.from === undefined ? '' : ` ${p.from}${many ? `–${p.to}` : ''}`;
  switch (p.on) {
    case 'tooth':
      return `${many ? 'teeth' : 'tooth'}${span}`;
    case 'edge':
      return `${p.edge} edge${span === '' ? '' : `, ${many ? 'teeth' : 'tooth'}${span}`}`;
    case 'degree':
      return `at${span}${UNIT.degree}`;
    case 'station':
      return `at${span}${UNIT.station}`;
    case 'link':
    case 'track':
    case 'piece':
      return `${p.on}${many ? 's' : ''}${span}`;
  }
}

/**
 * Reads the place that begins a text, for an observable placed so: "41", "41-44", "front 41". Returns the place and what is
 * left; undefined when the text does not begin with one.
 */
export function readPlace(on: PlacedOn, text: string): { place: Place; rest: string } | undefined {
  const m =
    /^(?:(front|rear)\b\s*)?(?:(-?\d+(?:[.,]\d+)?)(?:\s*[-–]\s*(\d+(?:[.,]\d+)?))?\s*(?:°|mm|deg)?(?=\s|$))?\s*(.*)$/i.exec(
      text.trim(),
    );
  if (!m) return undefined;
  const [, edge, from, to, rest = ''] = m;
  const number = (t: string | undefined) => (t === undefined ? undefined : Number(t.replace(',', '.')));
  const place = {
    on,
    ...(edge ? { edge: edge.toLowerCase() as 'front' | 'rear' } : {}),
    ...(from === undefined ? {} : { from: number(from) }),
    ...(to === undefined ? {} : { to: number(to) }),
  };
  const read = PlaceSchema.safeParse(place);
  return read.success ? { place: read.data, rest } : undefined;
}

/** Why a text does not begin with a place that there is. */
export type PlaceError =
  | { code: 'no_place'; wording: string; on: PlacedOn }
  | { code: 'beyond'; place: Place; most: number };

/** True when a counted place lies before the first or beyond the last. */
export const isBeyond = (place: Place, most: number): boolean =>
  place.from !== undefined && (place.from < 1 || (place.to ?? place.from) > most);

/** Place that begins a text, and what is left. @param most the highest number that there is, where it is counted and known */
export function placeAt(
  o: { wording: string; place: PlacedOn },
  text: string,
  most: number | undefined,
): Result<{ place: Place; rest: string }, PlaceError> {
  const read = readPlace(o.place, text);
  if (!read) return err({ code: 'no_place', wording: o.wording, on: o.place });
  return most !== undefined && isBeyond(read.place, most)
    ? err({ code: 'beyond', place: read.place, most })
    : ok(read);
}
