import { answersFor } from '@core/answer/answers';
import { likelyCause } from '@core/answer/verdict';
import { weighsCauses } from '@core/answer/case-kind';
import { worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { fileFacts, type NewFact } from '@core/facts/change';
import { numberOf } from '@core/facts/read';
import { reduce } from '@core/facts/state';
import { demoPack } from '../../demo/catalogue';
import type { Reason } from './advice';
import { advise } from './advise';

const world = worldOf(catalogueOf(demoPack()));
let ids = 0;
const author = { by: 'T', now: () => '2026-11-25T08:00:00.000Z', newId: () => `w${++ids}` };
const stateOf = (...facts: [string, NewFact['value']][]) =>
  reduce(
    fileFacts(
      reduce([]),
      'c',
      facts.map(([key, value]): NewFact => ({ key, value, how: 'reported' })),
      author,
    ),
  );
const why = (...facts: [string, NewFact['value']][]) => {
  const state = stateOf(['call.asked', ['why']], ...facts);
  const a = answersFor(world, state);
  return { state, a, advice: advise('why', { world, state, a, today: '2026-11-25' }) };
};
const reason = <C extends Reason['code']>(list: readonly Reason[], code: C) =>
  list.find((r): r is Extract<Reason, { code: C }> => r.code === code);

const ENGINES = [
  ['BR12-TARN', 'belt.edge_front', 'frayed'],
  ['TE16-CORM', 'pump.bearing', 'seized'],
  ['QU13-STOA', 'oil.look', 'sludge'],
  ['OL25-FLET', 'belt.edge_rear', 'frayed'],
] as const;

describe('why did it fail, asked on the phone', () => {
  it('is answered by the leader of the ranking, with the next look, on a belt, a chain and an opposed engine', () => {
    let judged = 0;
    for (const [code, key, value] of ENGINES) {
      const { a, advice } = why(['engine.code', code], ['symptom', 'noise'], [key, value]);
      expect(a.kind).toBe('question');
      const leader = likelyCause(a)!;
      expect(advice.lead)
        .withContext(code)
        .toEqual(
          jasmine.objectContaining({
            code: 'why',
            cause: leader.leader.wording,
            share: a.ranking.causes[0]!.probability,
          }),
        );
      expect(advice.missing.length).withContext(code).toBeGreaterThan(0);
      for (const m of advice.missing) expect(m.minutes).toBeGreaterThan(0);
      // what an outcome would mean is what leads once it is filed
      const [look] = advice.missing.filter((m) => m.outcomes !== undefined);
      for (const x of look?.outcomes ?? []) {
        const after = why(['engine.code', code], ['symptom', 'noise'], [key, value], [look!.key, x.value]).a;
        if (look!.about === undefined) expect(x.leaves).toEqual([after.ranking.causes[0]!.cause.wording]);
        judged++;
      }
      // less likely than not is not told as an answer
      expect(advice.standing).toBe(leader.open ? 'cannot' : 'if');
    }
    expect(judged).toBeGreaterThan(4);
  });

  it('weighs the guess of the caller against what was found, and judges nothing of an empty case', () => {
    const { a, advice } = why(
      ['engine.code', 'BR12-TARN'],
      ['call.about', 'tensioner'],
      ['belt.edge_front', 'frayed'],
      ['tensioner.bearing', 'quiet'],
    );
    const guess = reason(advice.because, 'guess')!;
    const own = a.ranking.causes.filter(
      (r) => r.cause.family === 'product' && r.cause.key.startsWith('tensioner'),
    );
    expect(guess.share).toBeCloseTo(
      own.reduce((n, r) => n + r.probability, 0),
      12,
    );
    expect(guess.against.map((f) => f.finding)).toContain('tensioner.bearing');
    expect(reason(advice.because, 'send')!.parts.length).toBeGreaterThan(0);
    const nothing = why(['engine.code', 'BR12-TARN']).advice;
    expect([nothing.lead.code, nothing.standing, nothing.because.length]).toEqual(['why_open', 'open', 0]);
    expect(why().advice.lead.code).toBe('no_engine');
  });

  it('makes a question one whose causes are weighed; another question is not', () => {
    expect(weighsCauses(stateOf(['call.asked', ['why']]))).toBeTrue();
    expect(weighsCauses(stateOf(['call.asked', ['kit']]))).toBeFalse();
    expect(weighsCauses(stateOf(['parts.sent', ['belt']]))).toBeTrue();
  });
});

describe('what contradicts itself', () => {
  it('is asked first, before anything that stands on it is said; other answers go on', () => {
    const state = stateOf(
      ['engine.code', 'TE16-CORM'],
      ['kit.fitted', '2026-05-01'],
      ['kit.fitted_odometer', 90_000],
      ['vehicle.odometer', 41_000],
    );
    const c = { world, state, a: answersFor(world, state), today: '2026-11-25' };
    const due = advise('due', c);
    expect([due.lead.code, due.standing]).toEqual(['at_odds', 'open']);
    expect(due.missing.map((m) => m.key).sort()).toEqual(['kit.fitted_odometer', 'vehicle.odometer']);
    expect(advise('kit', c).lead.code).not.toBe('at_odds');
  });
});

describe('the part that is asked for', () => {
  it('is answered alone where the drive has it, else all of them', () => {
    const parts = (engine: string, about?: string) => {
      const state = stateOf(
        ['engine.code', engine],
        ...(about ? [['call.about', about] as [string, string]] : []),
      );
      const { lead } = advise('reuse', { world, state, a: answersFor(world, state), today: '2026-11-25' });
      return lead.code === 'reuse' ? lead.parts.map((p) => p.part) : [];
    };
    expect(new Set(parts('BR19-SHAW'))).toEqual(new Set(['plunger', 'belt']));
    expect(parts('BR19-SHAW', 'tensioner')).toEqual(['plunger']);
    expect(parts('BR19-SHAW', 'belt')).toEqual(['belt']);
    expect(parts('TE16-CORM', 'chain')).toEqual(parts('TE16-CORM'));
  });
});

describe('a distance that was told without an odometer', () => {
  it('is how far it ran, and gives way to two readings', () => {
    const run = (...facts: [string, NewFact['value']][]) =>
      answersFor(world, stateOf(['engine.code', 'TE16-CORM'], ['kit.run', 4000], ...facts)).usage.distance;
    expect(run()?.km).toBe(4000);
    expect(run(['vehicle.odometer', 90_000], ['kit.fitted_odometer', 80_000])?.km).toBe(10_000);
  });

  it('and belt teeth of a file of before are read under the name of today', () => {
    expect(numberOf(stateOf(['belt.tooth_count', 121]), 'belt.teeth_count')).toBe(121);
  });
});

describe('links counted between the marks', () => {
  const marks = (...facts: [string, NewFact['value']][]) => {
    const state = stateOf(...facts);
    return advise('marks', { world, state, a: answersFor(world, state), today: '2026-11-25' });
  };
  const pellet: [string, string][] = [
    ['engine.code', 'BR24-PELL'],
    ['feature.plate-letter', 'k'],
  ];

  it('are no go where they differ from the chain’s own, by a tooth of the crank’s wheel each', () => {
    const off = marks(...pellet, ['chain.between', 11]);
    expect(off.standing).toBe('no');
    const z = world.catalogue.layouts.get('pellet-a')!.wheels[0]!.teeth!;
    const { lead } = off;
    expect(lead).toEqual(
      jasmine.objectContaining({ code: 'links_off', counted: 11, right: 12, teeth: -1, crankDeg: 360 / z }),
    );
  });

  it('are said to be right where they are, and nothing is said where chains of one design differ', () => {
    const right = marks(...pellet, ['chain.between', 12]);
    expect([right.standing, right.because[0]?.code]).toEqual(['open', 'links_right']);
    const several = marks(
      ['engine.code', 'QU30-VASK'],
      ['feature.tensioner-house', 'iron'],
      ['chain.between', 11],
    );
    expect(several.lead.code).toBe('marks_unseen');
    expect(several.because.map((r) => r.code)).not.toContain('links_right');
  });
});
