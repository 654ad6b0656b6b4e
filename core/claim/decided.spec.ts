import { demoFacts } from '../../demo/cases';
import { demoPack } from '../../demo/catalogue';
import { SEED } from '../../demo/scenario';
import { catalogueOf } from '@core/catalogue/find-records';
import { fileFact } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { answersFor } from '@core/answer/answers';
import { decideCause } from '@core/answer/decide';
import { summaryOf } from '@core/answer/case-summary';
import { worldOf } from '@core/answer/world';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const caseOf = (tag: string) => demoFacts(SEED).filter((f) => f.case === `demo-${tag}`);
let n = 0;
const author: Author = { by: 'T', now: () => '2027-01-01T10:00:00.000Z', newId: () => `d${++n}` };
const decided = (facts: readonly Fact[], key: string, reason: string) => {
  const state = reduce(facts);
  const entry = decideCause(answersFor(world, state), key, reason);
  if (!entry.ok) return entry.error.code;
  return [...facts, fileFact(state, facts[0]!.case, entry.value, author)];
};
const warnings = (facts: readonly Fact[]) =>
  answersFor(world, reduce(facts)).decision.warnings.map((w) => w.code);

describe('what is decided', () => {
  it('may be that nothing can be, with a reason, which contradicts only a leader that is likely', () => {
    // of one box only that it came, and what was noticed
    const open = caseOf('2036').filter((f) =>
      /^(case|engine|vehicle|kit|symptom|parts|feature)\b/.test(f.key),
    );
    const sure = caseOf('2027').filter((f) => f.key !== 'cause.decided');
    expect(answersFor(world, reduce(open)).ranking.causes[0]!.probability).toBeLessThan(0.5);
    expect(answersFor(world, reduce(sure)).ranking.causes[0]!.probability).toBeGreaterThan(0.9);
    expect(decided(open, 'undecidable', ' ')).toBe('needs_reason');
    expect(decided(open, 'no_such', 'x')).toBe('no_such_cause');
    const [undecided, against] = [open, sure].map((f) => decided(f, 'undecidable', 'Too little came.'));
    expect(warnings(undecided as Fact[])).not.toContain('cause_overrules');
    expect(warnings(undecided as Fact[])).not.toContain('leader_weak');
    expect(warnings(against as Fact[])).toContain('cause_overrules');
    // it stands on what was weighed, proposes no fault, and is counted as decided
    expect((undecided as Fact[]).at(-1)!.basis!.length).toBeGreaterThan(2);
    const proposed = answersFor(world, reduce(against as Fact[])).faults.filter(
      (f) => f.proposed && !f.shown,
    );
    expect(proposed).toEqual([]);
    expect(summaryOf('x', undecided as Fact[], world).settled?.decided).toBe('undecidable');
  });
});
