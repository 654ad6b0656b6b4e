import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { readText } from '@core/intake/read-text';
import { scoreOf } from '@core/intake/score';
import { tokensOf } from '@core/intake/text';
import { demoPack } from '../demo/catalogue';
import messages from '../demo/data/messages.json';
import { compare, type Row } from './measure';

const catalogue = catalogueOf(demoPack());
const ctx = {
  catalogue,
  registry: registryFor(worldOf(catalogue)),
  notation: { dateOrder: 'dmy' as const, units: {} },
  today: '2026-11-25',
};

/** How well messages are read, on the half that the reader was tuned on and on the half that it was not; and how fast. */
export function intakeBench(): Row[] {
  const share = (a: number, b: number) => `${((100 * a) / b).toFixed(1)} %`;
  const rows = (['held', 'tuned'] as const).flatMap((set): Row[] => {
    const own = messages.filter((m) => m.set === set);
    const total = { right: 0, proposed: 0, wanted: 0 };
    for (const m of own) {
      const read = readText(m.text, ctx);
      const score = scoreOf('code' in read ? [] : read.proposals, m.facts);
      total.right += score.right;
      total.proposed += score.proposed;
      total.wanted += score.wanted;
    }
    const of = `${own.length} messages ${set === 'held' ? 'not tuned on' : 'tuned on'}`;
    return [
      {
        name: `Facts proposed that are right, ${of}`,
        value: share(total.right, total.proposed),
        target: set === 'held' ? '>= 95 %' : '—',
        ratio: `${total.right}`,
        baseline: `${total.proposed} proposed`,
      },
      {
        name: `Facts told that are proposed, ${of}`,
        value: share(total.right, total.wanted),
        target: set === 'held' ? '>= 85 %' : '—',
        ratio: `${total.right}`,
        baseline: `${total.wanted} told`,
      },
    ];
  });
  const long = messages
    .map((m) => m.text)
    .join(' ')
    .slice(0, 2000);
  return [
    ...rows,
    compare(
      'Reading a message of 2,000 signs',
      () => readText(long, ctx),
      'cutting it into words',
      () => tokensOf(long),
      '< 30 ms',
    ),
  ];
}
