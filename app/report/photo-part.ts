import type { Column, Content, ContentStack } from 'pdfmake/interfaces';
import type { Fact } from '@core/facts/fact';
import { allStanding } from '@core/facts/read';
import { readOverlay, type PhotoOverlay } from '@core/examination/photo-overlay';
import type { State } from '@core/facts/state';
import { factWords } from '../messages/facts';
import type { CaseOnPaper } from './case-on-paper';
import { type PaperPhoto, ROOM } from './paper';

const OVERLAY = 'photo.overlay';
const GAP = 14;
const FIT: [number, number] = [(ROOM.width - GAP) / 2, 180];

const isPhoto = (type: string): boolean => type.startsWith('image/') && type !== 'image/svg+xml';
const standingFacts = (state: State): Fact[] =>
  allStanding(state)
    .flatMap((s) => s.facts)
    .filter((f) => f.key !== OVERLAY);

/** Hashes of the photographs that facts point to, once each. */
export const photosOf = (facts: readonly Fact[]): string[] => [
  ...new Set(facts.flatMap((f) => (f.files ?? []).filter((x) => isPhoto(x.type)).map((x) => x.hash))),
];
/** All photographs of what stands. */
export const allPhotos = (state: State): string[] => photosOf(standingFacts(state));

/** Photographs two a row, each with what it shows or what was measured on it. */
export function photoPart({ state, voice, name }: CaseOnPaper, photos: readonly string[]): Content[] {
  const facts = standingFacts(state);
  const shown = photos.map((hash): ContentStack => {
    const of = facts.filter((f) => f.files?.some((x) => x.hash === hash));
    const file = of.flatMap((f) => f.files ?? []).find((x) => x.hash === hash);
    const words = [
      ...new Set(of.filter((f) => !f.key.startsWith('photo.')).map((f) => factWords(f, voice, name))),
    ];
    return {
      stack: [
        { image: hash, fit: FIT },
        { text: words.length > 0 ? words.join('; ') : (file?.name ?? ''), margin: [0, 2, 0, 0] },
      ],
    };
  });
  const rows: Content[] = [];
  for (let i = 0; i < shown.length; i += 2)
    rows.push({
      unbreakable: true,
      columns: shown.slice(i, i + 2).map((s): Column => ({ ...s, width: FIT[0] })),
      columnGap: GAP,
      margin: [0, 0, 0, 8],
    });
  return rows;
}

/** What was picked on a photograph: its scale, outlines and lengths, numbered counts. */
export function linesOn(state: State, hash: string): PaperPhoto['lines'] {
  return allStanding(state)
    .flatMap((s) => s.facts)
    .filter((f) => f.key === OVERLAY)
    .flatMap((f) => readOverlay(f.value) ?? [])
    .filter((o) => o.hash === hash)
    .flatMap((o) => [
      ...(o.marks.length > 0
        ? [{ points: closed(o.marks, o.scale === 'rectangle'), is: 'scale' as const }]
        : []),
      ...(o.spots.length > 0
        ? [{ points: o.spots, is: o.scale === 'counted' ? ('count' as const) : ('outline' as const) }]
        : []),
    ]);
}
const closed = (marks: PhotoOverlay['marks'], around: boolean): PhotoOverlay['marks'] =>
  around && marks[0] ? [...marks, marks[0]] : marks;
