import type { Content } from 'pdfmake/interfaces';
import { factsOf, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { plainText } from '@core/facts/value';
import { formatDay } from '@core/quantity/dates';

/** What this desk told them, when, and on which question: all that was not taken back, also what was told anew later. @param outside without who told it */
export function toldPart(state: State, heading: (text: string) => Content, outside = false): Content[] {
  const told = factsOf(state, 'call.told');
  if (told.length === 0) return [];
  const weighed = textOf(state, 'claim.told_weighed');
  return [
    heading('What we told them'),
    ...told.map((f) => ({
      margin: [0, 0, 0, 4] as [number, number, number, number],
      text: [
        {
          text: outside
            ? `${formatDay(f.at.slice(0, 10), 'named')}: `
            : `${f.at.slice(0, 16).replace('T', ' ')} UTC, ${f.by}, ${f.note ?? 'told'}. `,
          bold: true,
        },
        plainText(f.value).replace(/\n/g, ' '),
      ],
    })),
    ...(weighed === undefined ? [] : [{ text: `How it bears on the finding: ${weighed}` }]),
  ];
}
