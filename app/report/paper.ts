import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';

/** What stands on every page of a paper, and what a reader program is told of it. */
type PaperFrame = {
  title: string;
  /** Whom it comes from, as the house signs. */
  house: string;
  /** Stands at the foot of each page before its number. */
  foot: string;
};
/** A photograph that a paper shows, by the name that its content uses, with what was picked on it. Spots in pixels of the original. */
export type PaperPhoto = {
  id: string;
  blob: Blob;
  lines: { points: readonly { x: number; y: number }[]; is: 'scale' | 'outline' | 'count' }[];
};
/** A paper before it is set: plain data, so that a thread can set it; `photos` by the names that its content uses. */
export type Paper = { frame: PaperFrame; content: Content[]; photos: string[] };

/** Widths of an A4 page between its margins, points. */
export const ROOM = { width: 503, mm: 72 / 25.4 } as const;

/** A4 in the house's typeface, with language, title and author set and the page's number at its foot. */
export function paperDocument(
  { frame, content }: Paper,
  images: Readonly<Record<string, string>>,
): TDocumentDefinitions {
  return {
    content,
    images: { ...images },
    pageSize: 'A4',
    pageMargins: [46, 46, 46, 52],
    info: { title: frame.title, author: frame.house, subject: frame.foot },
    language: 'en-GB',
    displayTitle: true,
    defaultStyle: { font: 'Plex', fontSize: 9.5, lineHeight: 1.2 },
    styles: STYLES,
    footer: (page, pages) => ({
      text: `${frame.foot} · page ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 8,
      margin: [0, 16, 0, 0],
    }),
  };
}

const STYLES: NonNullable<TDocumentDefinitions['styles']> = {
  title: { fontSize: 17, bold: true },
  sub: { fontSize: 10.5, margin: [0, 0, 0, 8] },
  draft: { fontSize: 10.5, bold: true, color: '#764e00', margin: [0, 0, 0, 8] },
  h: { fontSize: 12, bold: true, margin: [0, 12, 0, 4] },
  verdict: { fontSize: 12, bold: true, margin: [0, 0, 0, 3] },
  quiet: { color: '#4f5a59' },
  caution: { color: '#764e00', bold: true },
  digest: { fontSize: 8, margin: [0, 6, 0, 0] },
  plain: { fontSize: 11, lineHeight: 1.35, margin: [0, 0, 0, 7] },
};
