import { demoScenario } from '../../demo/scenario';
import { catalogueOf } from '@core/catalogue/find-records';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { answersFor } from './answers';
import { toldOffset } from '@core/trace/told-offset';
import { isOffset, toldFacts, traceAnswer, traceFacts } from './trace-answer';
import { worldOf } from './world';

const scenario = demoScenario();
const world = worldOf(catalogueOf(scenario.pack));
let n = 0;
const fact = (key: string, value: Fact['value'], u?: number): Fact => ({
  id: `t${++n}`,
  case: 'c',
  key,
  value,
  how: 'measured',
  by: 'me',
  at: `2026-11-30T08:00:${String(n).padStart(2, '0')}.000Z`,
  ...(u === undefined ? {} : { u }),
});
const of = (id: string, ...more: Fact[]) =>
  answersFor(world, reduce([...scenario.facts.filter((f) => f.case === id), ...more]));
const traced = (deg: number, u = 0.2) => [fact('trace.offset', deg, u), fact('trace.wheel', '60-2')];

describe('a capture held against the drive', () => {
  it('is one tooth where the drive has twenty at the crank, on a chain and on a belt, and weighs in the causes of it', () => {
    for (const id of ['demo-2036', 'demo-2027']) {
      const { trace, findings, ranking } = of(id, ...traced(18));
      expect(trace?.said?.verdict === 'whole' && trace.said.at[0]).toEqual({ wheel: 'crank', teeth: 1 });
      expect(trace!.wheels).toEqual({ zCrank: 20, zCam: 40, sensorSlots: 60 });
      const found = findings.find((f) => f.finding === 'trace.shift');
      expect(found?.value).toBe('whole');
      expect(found?.facts).toEqual(trace!.facts);
      const p = (a: typeof ranking) => a.causes.find((c) => c.cause.key === 'tooth_out')!.probability;
      expect(p(ranking)).toBeGreaterThan(p(of(id).ranking));
    }
  });

  it('in tolerance speaks against a tooth out, a fraction for a worn chain, and what may be any of them hardly speaks', () => {
    const p = (key: string, ...more: Fact[]) =>
      of('demo-2036', ...more).ranking.causes.find((c) => c.cause.key === key)!.probability;
    expect(p('tooth_out', ...traced(0.4))).toBeLessThan(p('tooth_out'));
    expect(p('chain_worn', ...traced(8))).toBeGreaterThan(p('chain_worn'));
    const moves = (...more: Fact[]) => Math.abs(Math.log(p('tooth_out', ...more) / p('tooth_out')));
    expect(moves(...traced(9, 6))).toBeGreaterThan(0);
    expect(moves(...traced(9, 6))).toBeLessThan(moves(...traced(0.4)) / 5);
  });

  it('is filed as it was computed: what was read back of it says the same', () => {
    const shift = { deg: 18.04, low: 17.9, high: 18.18 };
    const files = [{ hash: 'a'.repeat(64), name: 'c.csv', type: 'text/csv', bytes: 3 }];
    const [offset, wheel] = traceFacts(shift, '60-2', files, 'against c.csv');
    const { said } = of(
      'demo-2036',
      fact(offset!.key, offset!.value, offset!.u),
      fact(wheel!.key, wheel!.value),
    ).trace!;
    expect(said!.spoken.crankDeg).toBe(18.04);
    expect(said!.spoken.low).toBeCloseTo(17.9, 9);
    expect(said!.spoken.high).toBeCloseTo(18.18, 9);
    expect(offset!.files).toEqual(files);
    expect(isOffset(said!)).toBeTrue();
    expect(
      isOffset({ verdict: 'cannot_tell', why: 'no_gap', spoken: said!.spoken, couldBe: [] }),
    ).toBeFalse();
  });

  it('says of an open design what all that are left have alike, nothing where they differ, and nothing of no drive', () => {
    const state = reduce([fact('engine.code', 'TE16-CORM'), ...traced(18)]);
    const open = answersFor(world, state);
    expect(open.variant).toBeUndefined();
    expect(open.trace?.said?.verdict).toBe('whole');
    const [a, b] = open.possible.designs.map((stages) => stages.map((s) => s.layout));
    const other = b!.map((l) => ({
      ...l,
      wheels: l.wheels.map((w) => (w.role === 'crank' ? { ...w, teeth: w.teeth! + 2 } : w)),
    }));
    const differing = traceAnswer(state, open.registry, [a!, other], open.policy);
    expect(differing).toEqual({ facts: jasmine.any(Array) as unknown as string[] });
    expect(traceAnswer(state, open.registry, [a!, b!], open.policy)).toEqual(open.trace);
    expect(answersFor(world, reduce([])).trace).toBeUndefined();
  });
});

describe('before and after a repair', () => {
  it('are two states: the one after proves the repair, and the fault is named as before it was there', () => {
    const was = traced(18);
    const before = of('demo-2036', ...was);
    const both = of('demo-2036', ...was, fact('trace.offset_after', 0.3, 0.2));
    expect(both.trace).toEqual(before.trace);
    expect(both.traceAfter?.said?.verdict).toBe('in_tolerance');
    expect(before.traceAfter).toBeUndefined();
    const ranks = (a: typeof both) => a.ranking.causes.map((c) => [c.cause.key, c.probability]);
    expect(ranks(both)).toEqual(ranks(before));
    // another cam read after the repair is another reading, and leaves the first one's cam alone
    const files = traceFacts({ deg: 0.3, low: 0, high: 0.6 }, '60-2', [], 'x', 'other', 'repaired');
    expect(files.map((f) => f.key)).toEqual(['trace.offset_after', 'trace.wheel', 'trace.cam_after']);
    // alone it says nothing of what was wrong
    const after = of('demo-2036', fact('trace.offset_after', 0.3, 0.2));
    expect(ranks(after)).toEqual(ranks(of('demo-2036')));
  });

  it('can be told without a file: with the teeth of the drive’s own wheel, judged as a capture is', () => {
    const told = toldOffset('3 teeth of the 60 wheel late', '60-2');
    if (!told.ok) return fail(told.error.code);
    const facts = toldFacts(told.value, 'on the telephone', 'came');
    expect(facts.every((f) => f.how === 'reported' && f.files === undefined)).toBeTrue();
    const { trace } = of('demo-2036', ...facts.map((f) => fact(f.key, f.value, f.u)));
    expect(trace?.said?.verdict === 'whole' && trace.said.at[0]).toEqual({ wheel: 'crank', teeth: 1 });
    expect(trace!.said!.spoken.sensorTeeth).toBeCloseTo(3, 9);
    // degrees alone are judged too: the drive says its wheel
    const { trace: bare } = of('demo-2036', fact('trace.offset', 18, 0.5));
    expect(bare?.said?.verdict).toBe('whole');
  });
});
