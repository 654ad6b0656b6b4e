import { demoFacts } from '../demo/cases';
import { demoPack } from '../demo/catalogue';
import { SEED } from '../demo/scenario';
import { answersFor, settled } from '@core/answer/answers';
import { summaryOf } from '@core/answer/case-summary';
import { worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { fileFact } from '@core/facts/change';
import { reduce } from '@core/facts/state';
import { compare, type Row } from './measure';

/** All answers of one case: from nothing, and after one more fact. */
export function answerBench(): Row[] {
  const world = worldOf(catalogueOf(demoPack()));
  const rows: Row[] = [];
  for (const tag of ['2027', '2036']) {
    const facts = demoFacts(SEED).filter((f) => f.case === `demo-${tag}`);
    let n = 0;
    const author = { by: 'B', now: () => '2026-11-25T10:00:00.000Z', newId: () => `b${++n}` };
    const before = settled(answersFor(world, reduce(facts)));
    const entry = { key: 'belt.width', value: 25.1, how: 'measured' as const };
    const grown = [...facts, fileFact(reduce(facts), `demo-${tag}`, entry, author)];
    const base = () => reduce(grown);
    rows.push(
      compare(
        `All answers of case ${tag}, ${facts.length} facts`,
        () => settled(answersFor(world, reduce(grown))),
        'reducing its facts alone',
        base,
        '< 8 ms',
      ),
      compare(
        'The same after one more fact',
        () => settled(answersFor(world, reduce(grown), before)),
        'reducing its facts alone',
        base,
        '< 2 ms',
      ),
      compare(
        'Its head for the rack',
        () => summaryOf(facts[0]!.case, grown, world),
        'reducing its facts alone',
        base,
        '< 1 ms',
      ),
    );
  }
  return rows;
}
