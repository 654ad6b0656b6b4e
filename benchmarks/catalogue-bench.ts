import Papa from 'papaparse';
import { catalogueOf } from '@core/catalogue/find-records';
import { buildSearch, search } from '@core/catalogue/search';
import { tableCells } from '@core/catalogue/tables';
import { reduce } from '@core/facts/state';
import { identify } from '@core/match/identify';
import { matchKits } from '@core/match/match-kits';
import { nextQuestions } from '@core/match/next-question';
import { readTableText } from '../app/workers/read-pack-files';
import { largePack } from '../demo/large-catalogue';
import { compare, type Row } from './measure';

/** 5,000 engines, 20,000 variants, 100,000 applications. */
export function catalogueBench(): Row[] {
  const pack = largePack(5000, 100_000);
  const cat = catalogueOf(pack);
  const empty = reduce([]);
  const engine = pack.engines[2500]!.code;
  const scan = () => pack.applications.filter((a) => a.variant.startsWith(engine)).length;
  const id = identify(cat, engine, empty);
  const csv = Papa.unparse(tableCells('applications', pack.applications));
  const index = buildSearch(pack);
  const typing = pack.engines
    .filter((_, i) => i % 100 === 0)
    .flatMap((e) => [2, 3, 5, 8, 11].map((n) => e.code.slice(0, n).toLowerCase()));
  typing.push('tess', 'tesarine', 'gk12', 'gp99', 'orchrd');
  const strokes: number[] = [];
  for (const t of typing) {
    const at = performance.now();
    search(index, t);
    strokes.push(performance.now() - at);
  }
  strokes.sort((a, b) => a - b);
  const p95 = strokes[Math.floor(strokes.length * 0.95)]!;
  const includes = () => index.entries.filter((e) => e.code.includes('ZZZZ')).length;
  const base = compare('', () => search(index, 'zzzz'), '', includes, '');
  const parser = () => {
    let n = 0;
    Papa.parse<string[]>(csv, { step: () => void n++ });
    return n;
  };
  return [
    compare(
      'Match, one engine, three features unknown',
      () => matchKits(cat, engine, identify(cat, engine, empty)),
      'scan of all application rows',
      scan,
      '< 5 ms',
    ),
    compare(
      'Next question for it',
      () => nextQuestions(cat, id, empty),
      'scan of all application rows',
      scan,
      '< 20 ms',
    ),
    {
      name: `Find, 95th percentile of ${strokes.length} keystrokes`,
      value: `${p95.toFixed(2)} ms`,
      target: '< 30 ms',
      baseline: 'includes() over all codes',
      ratio: `${base.ratio} (worst case)`,
    },
    compare(
      'Read and check 100,000 CSV rows',
      () => readTableText('applications', csv),
      'the CSV parser alone',
      parser,
      '≤ 2× parser',
    ),
  ];
}
