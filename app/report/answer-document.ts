import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { formatDay } from '@core/quantity/dates';

export type AnswerHead = { tag: string; engine: string; to: string; by: string; day: string };

/** One line over an answer that leaves the house. */
export const headLine = (h: AnswerHead): string =>
  [`Case ${h.tag}`, h.engine, h.to ? `for ${h.to}` : '', `by ${h.by}`].filter(Boolean).join(' · ');

/** An answer on one page: the question, what was told, the drawing that belongs to it. */
export function answerDocument(h: AnswerHead, text: string, svg: string | undefined): TDocumentDefinitions {
  const [first = '', ...rest] = text.split('\n');
  return {
    pageSize: 'A5',
    pageMargins: [34, 34, 34, 34],
    info: { title: `Answer ${h.tag}` },
    defaultStyle: { font: 'Plex', fontSize: 10.5, lineHeight: 1.25 },
    content: [
      { text: headLine(h), fontSize: 9 },
      { text: formatDay(h.day, 'named'), fontSize: 9, margin: [0, 0, 0, 8] },
      { text: first, bold: true, fontSize: 12.5, margin: [0, 0, 0, 6] },
      ...rest.map((line) => ({ text: line, margin: [0, 0, 0, 5] as [number, number, number, number] })),
      ...(svg === undefined
        ? []
        : [{ svg, width: 300, margin: [0, 6, 0, 0] as [number, number, number, number] }]),
    ],
  };
}
