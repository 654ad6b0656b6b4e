import type { Content, TableCell } from 'pdfmake/interfaces';
import type { Answers } from '@core/answer/answers';
import type { CostLine } from '@core/claim/costs';
import { percent } from '../messages/answers';
import { COST_KIND_WORDS, costLineWords, ROUNDING } from '../messages/costs';
import { moneyWords } from '../messages/money';

/** What is asked for line by line, who bears it, and how it was rounded; nothing where nothing was asked for. */
export function costPart({ costs }: Answers, heading: (text: string) => Content): Content[] {
  if (costs.lines.length === 0) return [];
  const num = (text: string, bold = false): TableCell => ({ text, bold, alignment: 'right' });
  const ours = (l: CostLine) =>
    l.ours === undefined
      ? '—'
      : `${moneyWords(l.ours)}${l.share === undefined ? '' : ` (${percent(l.share)})`}`;
  return [
    heading('Costs'),
    {
      layout: 'lightHorizontalLines',
      table: {
        headerRows: 1,
        dontBreakRows: true,
        widths: ['*', 62, 56, 62, 92],
        body: [
          [{ text: 'What', bold: true }, ...['Net', 'Tax', 'Gross', 'Borne by us'].map((t) => num(t, true))],
          ...costs.lines.map((l): TableCell[] => [
            `${l.what || COST_KIND_WORDS[l.kind]}${l.quantity === 1 && l.tax === 0 ? '' : `: ${costLineWords(l)}`}`,
            num(moneyWords(l.net)),
            num(moneyWords(l.taxed)),
            num(moneyWords(l.gross)),
            num(ours(l)),
          ]),
          [
            { text: 'All', bold: true },
            ...[costs.net, costs.taxed, costs.gross].map((v) => num(moneyWords(v), true)),
            num(costs.ours === undefined ? '—' : moneyWords(costs.ours), true),
          ],
        ],
      },
    },
    {
      text:
        costs.theirs === undefined || costs.ours === undefined
          ? ROUNDING
          : `We bear ${moneyWords(costs.ours)}, they bear ${moneyWords(costs.theirs)}. ${ROUNDING}`,
      margin: [0, 3, 0, 0],
      style: 'quiet',
    },
  ];
}
