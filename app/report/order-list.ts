import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { writeCsv } from './csv';
import type { JobLine } from '@core/match/job-list';
import { SOURCE_WORDS } from '../messages/jobs';

export type OrderHead = { tag: string; engine: string; variant: string; kit: string; today: string };

/** The order list as records, for a spreadsheet. */
export function orderCsv(head: OrderHead, lines: readonly JobLine[]): string {
  const rows = lines.map(({ item, source }) => [
    SOURCE_WORDS[source],
    item.item,
    item.part ?? '',
    item.quantity,
    item.why,
    item.check ?? '',
    item.costNow,
    item.costLater,
  ]);
  return writeCsv([
    [
      'case',
      'source',
      'item',
      'part',
      'quantity',
      'why',
      'check before reuse',
      'cost now (AC)',
      'cost later (AC)',
    ],
    [head.tag, 'kit', head.kit, head.kit, 1, `${head.engine}, ${head.variant}`, '', '', ''],
    ...rows.map((r) => [head.tag, ...r]),
  ]);
}

/** The same as a page to print and tick. */
export function orderDocument(head: OrderHead, lines: readonly JobLine[]): TDocumentDefinitions {
  const body: Content[][] = lines.map(({ item, source }) => [
    '[  ]',
    SOURCE_WORDS[source],
    `${item.quantity} × ${item.item}`,
    item.part ?? '',
    item.check ? `${item.why} Check: ${item.check}` : item.why,
    { text: `${item.costNow} / ${item.costLater}`, alignment: 'right' },
  ]);
  return {
    pageSize: 'A4',
    pageMargins: [46, 46, 46, 46],
    defaultStyle: { font: 'Plex', fontSize: 9.5 },
    content: [
      { text: `Order list, case ${head.tag}`, fontSize: 16, bold: true },
      { text: `${head.engine}, ${head.variant}. Kit ${head.kit}. ${head.today}.`, margin: [0, 2, 0, 8] },
      {
        layout: 'lightHorizontalLines',
        table: {
          headerRows: 1,
          widths: [18, 78, 110, 70, '*', 56],
          body: [
            ['', 'From', 'What', 'Part', 'Why', 'AC now / later'].map((text) => ({ text, bold: true })),
            ...body,
          ],
        },
      },
      { text: 'The vehicle maker’s service information comes first.', margin: [0, 8, 0, 0] },
    ],
  };
}
