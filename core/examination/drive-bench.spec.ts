import { demoPack } from '../../demo/catalogue';
import { demoFacts } from '../../demo/cases';
import { SEED } from '../../demo/scenario';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { fileFact } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { applies } from '@core/answer/applies';
import { answersFor } from '@core/answer/answers';
import { registryFor, worldOf } from '@core/answer/world';
import type { State } from '@core/facts/state';
import type { Stage } from '@core/drive/stages';
import { elongationAnswers, elongationOf, extensionAnswers } from './extension';
import { marksAnswer } from './marks';

const cat = catalogueOf(demoPack());
const all = demoFacts(SEED);
const caseOf = (tag: string) => all.filter((f) => f.case === `demo-${tag}`);
let n = 0;
const author: Author = { by: 'T', now: () => '2026-11-25T10:00:00.000Z', newId: () => `b${++n}` };
const plus = (facts: readonly Fact[], key: string, value: number, u?: number) => [
  ...facts,
  fileFact(reduce(facts), facts[0]!.case, { key, value, how: 'reported', ...(u ? { u } : {}) }, author),
];
const elongationAnswer = (stages: readonly Stage[], state: State) =>
  elongationAnswers(stages, state, registry)[0];
const extensionAnswer = (stages: readonly Stage[], state: State) =>
  extensionAnswers(stages, state, registry, elongationAnswers(stages, state, registry))[0];
const opposed = stagesFor(cat, 'fletcher-a');
const registry = registryFor(worldOf(cat));
const seen = (offsets: Record<string, number>, u = 0.05) =>
  marksAnswer(
    opposed,
    reduce(
      Object.entries(offsets).reduce((facts, [id, v]) => plus(facts, `mark.${id}`, v, u), caseOf('2044')),
    ),
    registry,
  );

describe('marks against the drive', () => {
  it('say nothing before one was looked at', () => {
    expect(marksAnswer(opposed, reduce(caseOf('2044')), registry)).toBeUndefined();
  });

  it('are go where geometry brings the offset, no go where it does not, and wait when it cannot be told', () => {
    const all = { 'right-upper': 0.5, 'right-lower': 0, 'left-upper': 0, 'left-lower': 0 };
    expect(seen(all)!.go).toBe('go');
    // one of four is no go yet: it says how many were looked at
    expect(seen({ 'right-upper': 0.5 })).toEqual(jasmine.objectContaining({ go: 'so_far', of: 4 }));
    expect(seen({ 'left-upper': 0.5 })!.go).toBe('no_go');
    expect(seen({ 'left-upper': 0.25 }, 0.1)!.go).toBe('wait');
    // one sure fault outweighs an unsure reading
    expect(seen({ 'left-upper': 0.25, 'left-lower': 0.25, 'right-upper': 1.46 }, 0.1)!.go).toBe('no_go');
  });

  it('are told in laying order, whatever the order in which they were filed', () => {
    const answer = seen({ 'right-lower': 1.04, 'left-lower': 1, 'left-upper': 1, 'right-upper': 1.46 })!;
    expect(answer.marks.map((m) => opposed[0]!.layout.wheels[m.wheel]!.id)).toEqual([
      'left-lower',
      'left-upper',
      'right-upper',
      'right-lower',
    ]);
    expect(answer.patterns).toEqual([
      { stage: 0, pattern: { pattern: 'at_driver', teeth: 1, sense: 'advanced' } },
    ]);
  });

  it('keep the stages of a drive apart: one head a tooth out says nothing of the other', () => {
    const stages = stagesFor(cat, 'vasker-a');
    const facts = plus(plus(caseOf('2044'), 'mark.left-intake', 1, 0.05), 'mark.right-intake', 0, 0.05);
    const answer = marksAnswer(stages, reduce(facts), registry)!;
    expect(answer.patterns.map((p) => [stages[p.stage]!.layout.id, p.pattern.pattern])).toEqual([
      ['vasker-a-left', 'from_wheel'],
      ['vasker-a-right', 'as_predicted'],
    ]);
    expect(answer.go).toBe('no_go');
  });

  it('move the causes, and a fitting a tooth out proposes its fault with the facts behind it', () => {
    const facts = plus(plus(caseOf('2044'), 'mark.left-upper', 1, 0.05), 'mark.left-lower', 1, 0.05);
    const a = answersFor(worldOf(cat), reduce(facts));
    expect(a.ranking.causes[0]!.cause.key).toBe('tooth_out');
    const fault = a.faults.find((f) => f.fault.code === 'TIM-OFF')!;
    expect(fault.proposed).toBeTrue();
    expect([...fault.evidence].sort()).toEqual(
      facts
        .slice(-2)
        .map((f) => f.id)
        .sort(),
    );
  });
});

describe('extension against the chain', () => {
  const stages = stagesFor(cat, 'stoat-a');
  const facts = caseOf('2036');

  it('needs length, links and extension, and says which facts it stands on', () => {
    const answer = extensionAnswer(stages, reduce(facts))!;
    const length = elongationAnswer(stages, reduce(facts))!;
    expect(length.elongation.value).toBeCloseTo(320.9 / 320 - 1, 12);
    expect(length.long).toBe('within');
    expect(answer.rest!.verdict).toBe('more');
    expect(answer.facts.map((id) => facts.find((f) => f.id === id)!.key)).toEqual([
      'tensioner.extension',
      'chain.length',
      'chain.links_over',
    ]);
    for (const key of ['tensioner.extension', 'chain.length', 'chain.links_over'])
      expect(extensionAnswer(stages, reduce(facts.filter((f) => f.key !== key))))
        .withContext(key)
        .toBeUndefined();
  });

  it('calls a chain long only when two sigmas say so', () => {
    const long = (mm: number, u: number) =>
      elongationAnswer(stages, reduce(plus(facts, 'chain.length', mm, u)))!.long;
    expect(long(322.4, 0.1)).toBe('past');
    expect(long(321.7, 0.1)).toBeUndefined();
    expect(elongationOf(reduce(facts), registry, 8)!.u).toBeCloseTo(0.12 / 320, 12);
    // no uncertainty filed: the gauge's own, from the observable
    const bare = facts.map((f) => (f.key === 'chain.length' ? { ...f, u: undefined } : f));
    expect(elongationOf(reduce(bare), registry, 8)!.u).toBeCloseTo(0.15 / 320, 12);
  });

  it('leaves causes out that cannot occur on the drive, and still adds up to one', () => {
    const names = (tag: string) => {
      const { ranking } = answersFor(worldOf(cat), reduce(caseOf(tag)));
      const sum = ranking.causes.reduce((s, c) => s + c.probability, ranking.none);
      expect(sum).toBeCloseTo(1, 12);
      return ranking.causes.map((c) => c.cause.key);
    };
    expect(names('2036')).toContain('guide_worn');
    expect(names('2036')).not.toContain('pump_seized');
    expect(names('2027')).not.toContain('chain_worn');
    expect(names('2027')).toContain('tooth_out');
  });

  it('asks of a drive only what it has, whichever the drive', () => {
    const ask = (key: string, possible: ReturnType<typeof answersFor>['possible']) =>
      applies(registry.get(key)!, possible);
    const chain = answersFor(worldOf(cat), reduce(facts)).possible;
    const belt = answersFor(worldOf(cat), reduce(caseOf('2027'))).possible;
    const of = (engine: string, feature: string, value: string) =>
      answersFor(
        worldOf(cat),
        reduce([
          {
            id: '1',
            case: 'x',
            key: 'engine.code',
            value: engine,
            how: 'reported',
            by: 'T',
            at: '2026-01-01T00:00:00.000Z',
          },
          { id: '2', case: 'x', key: feature, value, how: 'seen', by: 'T', at: '2026-01-01T00:00:01.000Z' },
        ]),
      ).possible;
    const damper = of('BR19-SHAW', 'feature.head-bolt', 'm8');
    const manual = of('BR12-TARN', 'feature.cover-screws', 'five');
    const table = [
      // chain, automatic eccentric, damper with lever, manual eccentric
      ['tensioner.pointer', false, true, false, true],
      ['tensioner.extension', true, false, true, false],
      ['tensioner.key_turn', false, true, false, true],
      ['tensioner.spring', false, true, false, false],
      ['tensioner.bearing', false, true, true, true],
      ['guide.bearing', false, true, true, true],
      ['belt.edge_front', false, true, true, true],
      ['chain.length', true, false, false, false],
      ['belt.teeth_count', false, true, true, true],
    ] as const;
    for (const [key, ...wanted] of table)
      expect([chain, belt, damper, manual].map((p) => ask(key, p)))
        .withContext(key)
        .toEqual(wanted);
    // an engine that nobody named may have anything
    expect(ask('belt.edge_front', answersFor(worldOf(cat), reduce([])).possible)).toBeTrue();
  });
});
