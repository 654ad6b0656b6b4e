import type { Content } from 'pdfmake/interfaces';
import { allFiled } from '@core/facts/read';
import { meaningOf } from '@core/facts/meaning';
import { stationName } from '@core/facts/stations';
import { nameWords, valueWords } from '../messages/facts';
import type { CaseOnPaper } from './case-on-paper';

/** Every fact that is filed, with who filed it, when and how it is known. */
export function factTable({ state, voice: context, name }: CaseOnPaper): Content {
  const rows = allFiled(state).filter(
    (f) => context.registry.has(meaningOf(f).key) && f.key !== 'report.issue',
  );
  const body = rows.map((f) => {
    const o = context.registry.get(meaningOf(f).key);
    const value = valueWords(f, context, name);
    return [
      o ? stationName(o.station) : '',
      nameWords(f, context),
      value,
      f.how,
      f.by,
      f.at.slice(0, 16).replace('T', ' '),
    ];
  });
  return {
    fontSize: 8,
    layout: 'lightHorizontalLines',
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: [36, 112, '*', 50, 60, 78],
      body: [
        ['Station', 'What', 'Value', 'How known', 'By', 'When (UTC)'].map((text) => ({ text, bold: true })),
        ...body,
      ],
    },
  };
}
