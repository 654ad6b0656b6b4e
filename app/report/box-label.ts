import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { LABEL_SHEET } from '@core/claim/box-code';
import { LABEL, paintedText, type TextLine } from './label';
import { type Measure, PAPER_FONT } from './measure-text';
import { squareCode } from './square-code';

/** What the label of a box or a part says; `code` is what its square says. */
export type BoxLabelModel = {
  tag: string;
  what: string;
  claim: string;
  engine: string;
  day: string;
  code: string;
};

/** Side of the square and where text begins beside it, mm. */
const [SQUARE, TEXT] = [34, 38];
const POINTS = 72 / 25.4;
/** A sheet of labels is A4, mm; they are centred on it. */
const SHEET = { width: 210, height: 297 };

/** A label as SVG: the code to scan, and beside it what a hand reads without one. */
export function boxLabelSvg(m: BoxLabelModel, measure: Measure): string {
  const rows: TextLine[] = [
    { top: 3, sizes: [8, 7, 6, 5, 4], weight: 600, lines: 1, text: m.tag },
    { top: 13, sizes: [4.4, 4, 3.4, 3, 2.6], weight: 600, lines: 2, text: m.what },
    {
      top: 23.6,
      sizes: [3.4, 3, 2.6],
      weight: 400,
      lines: 2,
      text: m.claim === '' ? 'no claim number' : `Claim ${m.claim}`,
    },
    { top: 31, sizes: [3.4, 3, 2.6], weight: 400, lines: 1, text: m.engine },
    { top: 36, sizes: [3.4, 3, 2.6], weight: 400, lines: 1, text: m.day },
  ];
  const square = squareCode(m.code).replace('<svg ', `<svg x="2.5" y="${(LABEL.height - SQUARE) / 2}" `);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${LABEL.width}mm" height="${LABEL.height}mm" viewBox="0 0 ${LABEL.width} ${LABEL.height}" font-family="${PAPER_FONT}" fill="#000000">`,
    `<rect x="0.5" y="0.5" width="${LABEL.width - 1}" height="${LABEL.height - 1}" rx="2.5" fill="#ffffff" stroke="#000000" stroke-width="0.3"/>`,
    square.replace(/width="\d+" height="\d+">/, `width="${SQUARE}" height="${SQUARE}">`),
    ...rows.flatMap((r) => paintedText(r, { left: TEXT, room: LABEL.width - TEXT - LABEL.margin }, measure)),
    '</svg>',
  ].join('');
}

/** Where the label of a place lies on its sheet, mm from the upper left corner; places are counted along the rows, from 0. */
function placeOnSheet(place: number): { x: number; y: number } {
  const [left, top] = [
    (SHEET.width - LABEL_SHEET.across * LABEL.width) / 2,
    (SHEET.height - LABEL_SHEET.down * LABEL.height) / 2,
  ];
  const at = place % LABEL_SHEET.places;
  return {
    x: left + (at % LABEL_SHEET.across) * LABEL.width,
    y: top + Math.floor(at / LABEL_SHEET.across) * LABEL.height,
  };
}

/**
 * Labels as a document: one to a page of its own size for a roll, else on sheets, from a place on.
 * @param from place of the first, from 0: those before it are used up
 */
export function boxLabels(svgs: readonly string[], on: 'roll' | 'sheet', from = 0): TDocumentDefinitions {
  const size = { width: LABEL.width * POINTS, height: LABEL.height * POINTS };
  const base = { pageMargins: 0, defaultStyle: { font: 'Plex' } } satisfies Partial<TDocumentDefinitions>;
  if (on === 'roll')
    return {
      ...base,
      pageSize: size,
      content: svgs.map((svg, i) => ({ svg, ...size, ...(i > 0 ? { pageBreak: 'before' as const } : {}) })),
    };
  return {
    ...base,
    pageSize: 'A4',
    content: svgs.map((svg, i) => {
      const { x, y } = placeOnSheet(from + i);
      const first = i > 0 && (from + i) % LABEL_SHEET.places === 0;
      return {
        svg,
        ...size,
        absolutePosition: { x: x * POINTS, y: y * POINTS },
        ...(first ? { pageBreak: 'before' as const } : {}),
      };
    }),
  };
}
