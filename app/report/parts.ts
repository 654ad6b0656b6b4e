import type { Content } from 'pdfmake/interfaces';
import { dayOf, formatDay } from '@core/quantity/dates';
import { sealText } from '@core/claim/seal-text';
import { plainText } from '@core/facts/value';
import { fingerprintWords } from '../messages/seal';
import { type CaseOnPaper, issueOf } from './case-on-paper';
import { squareCode } from './square-code';

export const heading = (text: string): Content => ({ text, style: 'h' });

/** Names with their values, a row each. */
export function pairs(rows: [string, string][]): Content {
  return {
    layout: 'lightHorizontalLines',
    table: { widths: [80, '*'], body: rows.map(([k, v]) => [{ text: k, bold: true }, v]) },
  };
}

/** Head of a letter: the house, whom it goes to, the day, and what it is about. */
export function letterHead(
  c: Pick<CaseOnPaper, 'house' | 'today'>,
  to: string,
  about: [string, string][],
): Content {
  const [name = '', ...address] = c.house.split('\n').filter(Boolean);
  return {
    columns: [
      {
        width: '*',
        stack: [
          { text: name, bold: true, fontSize: 11 },
          ...address.map((text) => ({ text, style: 'quiet' })),
          { text: to, margin: [0, 14, 0, 0] },
        ],
      },
      {
        width: 190,
        stack: [
          { text: formatDay(c.today, 'named'), margin: [0, 0, 0, 4] },
          ...about
            .filter(([, v]) => v !== '—')
            .map(([k, v]) => ({ text: [{ text: `${k} `, style: 'quiet' }, v] })),
        ],
      },
    ],
    columnGap: 14,
    margin: [0, 0, 0, 14],
  };
}

/** What a paper ends with: how to object, that it is no legal advice, and the seal with what it proves. */
export function closingPart(c: CaseOnPaper): Content[] {
  const issue = issueOf(c);
  const seal = issue && plainText(issue.seal.value);
  return [
    {
      unbreakable: true,
      margin: [0, 12, 0, 0],
      columns: [
        {
          width: '*',
          stack: [
            {
              text: 'If you see it differently, write to us with the case number and what you measured or saw. Parts and facts are kept and will be looked at again by another person. This is a technical finding and no legal advice; consumer and warranty law is local.',
            },
            ...(seal === undefined || issue === undefined
              ? [{ text: 'This is a draft: it is not sealed and binds nobody.', style: 'caution' }]
              : [
                  {
                    text: `Issue ${issue.issue}, sealed ${formatDay(dayOf(issue.seal.at), 'named')} by ${issue.seal.by}. Seal ${fingerprintWords(seal)}. The seal proves that nothing was changed since; whoever has the case’s file can check it by the code.`,
                    style: 'quiet',
                    margin: [0, 4, 0, 0] as [number, number, number, number],
                  },
                ]),
          ],
        },
        ...(seal === undefined || issue === undefined
          ? []
          : [
              {
                width: 76,
                svg: squareCode(sealText({ case: issue.seal.case, issue: issue.issue, digest: seal })),
              },
            ]),
      ],
      columnGap: 14,
    },
  ];
}
