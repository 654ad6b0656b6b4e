import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { readText } from '@core/intake/read-text';
import { corpusFrom, scoreCorpus } from '@core/intake/corpus-score';
import { scoreOf } from '@core/intake/score';
import { stepNames } from '@core/fitting/named-steps';
import { readFileSync } from 'node:fs';
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
  steps: (engine: string) => stepNames(catalogue, engine),
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

/** How well messages of another hand are read, from a file of labelled messages. */
export function corpusBench(file: string): Row[] {
  const corpus = corpusFrom(JSON.parse(readFileSync(file, 'utf8')));
  const s = scoreCorpus(corpus, (text) => {
    const read = readText(text, { ...ctx, today: corpus.today });
    return 'code' in read ? [] : read.proposals;
  });
  const share = (a: number, b: number) => `${((100 * a) / b).toFixed(1)} %`;
  const row = (name: string, a: number, b: number, target: string, of: string): Row => ({
    name,
    value: share(a, b),
    target,
    ratio: String(a),
    baseline: `${b} ${of}`,
  });
  const words = corpus.messages
    .map((m) => m.text)
    .join('\n')
    .split(/\s+/)
    .slice(0, 300)
    .join(' ');
  return [
    row('Facts told that are proposed', s.found, s.wanted, '>= 88 %', 'told'),
    row('Facts ticked that are right', s.tickedRight, s.ticked, '>= 97 %', 'ticked'),
    row('Rules of what must not be read, broken', s.broken, s.rules, '<= 1 %', 'rules'),
    row('Questions found', s.asksFound, s.asks, '>= 90 %', 'asked'),
    row('Like parts, sides and vehicles told apart', s.toldRight, s.told, '>= 85 %', 'told'),
    compare(
      'Reading a message of 300 words',
      () => readText(words, ctx),
      'cutting it into words',
      () => tokensOf(words),
      '< 10 ms',
    ),
  ];
}
