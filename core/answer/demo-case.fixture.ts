import { demoPack } from '../../demo/catalogue';
import { demoFacts } from '../../demo/cases';
import { SEED } from '../../demo/scenario';
import { catalogueOf } from '@core/catalogue/find-records';
import { fileFact } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { answersFor } from './answers';
import { worldOf } from './world';

/** The demo's catalogue and cases for specs, and what a case comes to. */
export const cat = catalogueOf(demoPack());
const all = demoFacts(SEED);
export const caseOf = (tag: string): Fact[] => all.filter((f) => f.case === `demo-${tag}`);
export const answers = (facts: readonly Fact[]) => answersFor(worldOf(cat), reduce(facts));
let n = 0;
export const author: Author = {
  by: 'T',
  now: () => new Date(Date.UTC(2027, 0, 1) + ++n * 1000).toISOString(),
  newId: () => `t${++n}`,
};
/** A case with one more fact, seen. */
export const plus = (facts: readonly Fact[], key: string, value: Fact['value']): Fact[] => [
  ...facts,
  fileFact(reduce(facts), facts[0]!.case, { key, value, how: 'seen' }, author),
];
