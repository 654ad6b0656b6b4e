import { demoFacts } from '../../demo/cases';
import { demoPack } from '../../demo/catalogue';
import { SEED } from '../../demo/scenario';
import { catalogueOf } from '@core/catalogue/find-records';
import { CAUSES } from '@core/cause/cause-data';
import { type Change, knowledgeWith } from '@core/cause/changes';
import { fileFact } from '@core/facts/change';
import type { Author } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { answersFor } from './answers';
import { rejudged } from './rejudge';
import { knowledgeOf, worldOf } from './world';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const caseOf = (tag: string) => demoFacts(SEED).filter((f) => f.case === `demo-${tag}`);
let n = 0;
const author: Author = { by: 'T', now: () => '2027-01-01T10:00:00.000Z', newId: () => `d${++n}` };
describe('a case judged again', () => {
  const otherwise = (place: string, value: number) => {
    const change: Change = { place, value, ground: 'x', by: 'T', at: '2027-01-01T10:00:00.000Z' };
    return worldOf(cat, { knowledge: knowledgeOf(knowledgeWith(CAUSES, [change])) });
  };
  it('reads as it did by the same numbers, and tells the leader that other numbers bring', () => {
    const state = reduce(caseOf('2036'));
    expect(rejudged(state, world, world)).toBeUndefined();
    const [first, second] = answersFor(world, state).ranking.causes;
    const moved = rejudged(state, world, otherwise(`causes/${second!.cause.key}/prior`, 0.8))!;
    expect([moved.before.cause, moved.after.cause]).toEqual([first!.cause.key, second!.cause.key]);
    expect(moved.before.share).toBeCloseTo(first!.probability, 12);
    expect(moved.after.share).toBeGreaterThan(moved.before.share);
    expect(
      rejudged(state, world, otherwise(`causes/${second!.cause.key}/prior`, second!.cause.prior * 1.01)),
    ).toBeUndefined();
  });

  it('is nobody’s before anything was weighed: no fault is proposed, on any drive', () => {
    const empty = answersFor(worldOf(cat), reduce([]));
    expect(empty.faults.filter((f) => f.proposed)).toEqual([]);
    for (const e of cat.pack.engines) {
      const facts = [
        fileFact(reduce([]), 'c', { key: 'engine.code', value: e.code, how: 'reported' }, author),
      ];
      const a = answersFor(worldOf(cat), reduce(facts));
      expect(a.faults.filter((f) => f.proposed))
        .withContext(e.code)
        .toEqual([]);
    }
  });

  it('is none where it is a mere question', () => {
    const question = caseOf('2041');
    const state = reduce(question);
    expect(answersFor(world, state).kind).toBe('question');
    expect(rejudged(state, world, otherwise('causes/set_hot/prior', 0.9))).toBeUndefined();
  });
});
