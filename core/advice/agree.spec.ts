import { demoPack } from '../../demo/catalogue';
import { answersFor } from '@core/answer/answers';
import { registryFor, worldOf } from '@core/answer/world';
import { CAUSES } from '@core/cause/cause-data';
import { predictedPhases } from '@core/examination/found-drive';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { featureKey } from '@core/catalogue/feature-observables';
import { AS_MADE, driveState } from '@core/drive/what-if';
import { isMarked } from '@core/drive/judge-marks';
import { judgeOffset } from '@core/drive/judge-offset';
import type { Fact, FactValue } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { bankThing } from '@core/facts/thing';
import { agreedMarksOf, predictedMarks } from './marks';

const cat = catalogueOf(demoPack());
let n = 0;
const fact = (key: string, value: FactValue, about?: string, how: Fact['how'] = 'seen'): Fact => ({
  id: `g${++n}`,
  case: 'agree',
  key,
  value,
  how,
  ...(about === undefined ? {} : { about }),
  by: 'T',
  at: new Date(Date.UTC(2026, 0, 1) + n * 1000).toISOString(),
});

describe('a mark', () => {
  it('is no go wherever within its uncertainty it lies outside, though nobody can say by how much', () => {
    const straight = { teeth: 0 };
    // 0.9 of a tooth, read to a quarter: a fraction or a tooth, in no case right.
    expect(judgeOffset(0.9, 0.25, straight, 0.25)).toEqual(
      jasmine.objectContaining({ verdict: 'outside', sense: 'advanced' }),
    );
    expect(judgeOffset(-0.9, 0.25, straight, 0.25).verdict).toBe('outside');
    expect(judgeOffset(0.4, 0.1, straight, 0.25).verdict).toBe('cannot_tell');
    // The solver's rounding decides nothing: one and a half is one and a half on either side of it.
    for (const off of [1.5, 1.5 + 1e-7, 1.5 - 1e-7, -1.5 + 1e-7, -1.5 - 1e-7]) {
      const v = judgeOffset(off, 0, straight, 0.25);
      expect(v.verdict === 'teeth_and_rest' && v.teeth)
        .withContext(String(off))
        .toBe(1);
    }
  });

  it('is predicted of the drive as it is built: a machined head moves it in every station alike', () => {
    let moved = 0;
    for (const v of cat.variants.values()) {
      const stages = stagesFor(cat, v.layout!);
      for (const { layout } of stages) {
        const bank = layout.banks?.[0];
        if (!bank) continue;
        const state = reduce([fact('bank.nearer', 0.8, bankThing(bank.id), 'measured')]);
        // second method: the drive bench, told the same
        const bench = driveState(layout, { ...AS_MADE, nearerMm: { [bank.id]: 0.8 } });
        if (!bench.ok) return fail(v.id);
        const mine = predictedPhases(state, layout);
        expect(mine.map((p) => p.teeth))
          .withContext(v.id)
          .toEqual(bench.value.phases.map((p) => p.teeth));
        for (const m of predictedMarks([{ layout, ratio: 1 }], state)) {
          const p = mine.find((x) => `wheel:${layout.wheels[x.wheel]!.id}` === m.about)!;
          expect(m.teeth).toBe(p.teeth);
        }
        const before = predictedPhases(reduce([]), layout);
        const shifted = mine.some(
          (p, i) => isMarked(layout.wheels[p.wheel]!) && Math.abs(p.teeth - before[i]!.teeth) > 0.01,
        );
        if (shifted) moved++;
      }
    }
    expect(moved).toBeGreaterThan(10);
  });

  it('of two designs that differ is not silently that of the first', () => {
    const of = (id: string) => stagesFor(cat, cat.variants.get(id)!.layout!);
    const none = reduce([]);
    expect(agreedMarksOf([of('OL25-FLET/A'), of('OL25-FLET/B')], none)?.length).toBe(4);
    const [a, b] = [of('BR24-PELL/A'), of('BR24-PELL/B')];
    expect(predictedMarks(a, none).length).not.toBe(predictedMarks(b, none).length);
    expect(agreedMarksOf([a, b], none)).toBeUndefined();
  });
});

describe('until causes weigh what is seen first', () => {
  const world = worldOf(cat);
  const registry = registryFor(world);
  const base = [fact('engine.code', 'QU13-STOA'), fact(featureKey('plunger-cap'), 'screw')];
  const shareOf = (key: string, facts: readonly Fact[]) =>
    answersFor(world, reduce([...base, ...facts])).ranking.causes.find((c) => c.cause.key === key)!
      .probability;

  it('no fault found is nothing beside any abnormal look that weighs', () => {
    expect(shareOf('no_fault', [])).toBeGreaterThan(0.01);
    let looked = 0;
    for (const f of CAUSES.findings) {
      const o = registry.get(f.finding);
      if (o?.type.kind !== 'choice') continue;
      for (const grade of Object.keys(f.off)) {
        // what ordinary use comes to needs no fault, and that a noise comes from elsewhere is none of the drive
        if (f.ordinary?.includes(grade) || f.finding.startsWith('noise.')) continue;
        const { ranking } = answersFor(world, reduce([...base, fact(f.finding, grade)]));
        if (ranking.weighed === 0) continue;
        const share = ranking.causes.find((c) => c.cause.key === 'no_fault')!.probability;
        expect(share).withContext(`${f.finding} ${grade}`).toBeLessThan(0.001);
        looked++;
      }
    }
    console.log(`no fault found: barred by ${looked} abnormal looks`);
    expect(looked).toBeGreaterThan(100);
  });

  it('an engine that never overheated did not fail by it', () => {
    const hot = [fact('guide.colour', 'dark')];
    expect(shareOf('overheated_guides', [...hot, fact('cooling.overheat', 'never')])).toBeLessThan(0.001);
    expect(shareOf('overheated_guides', [...hot, fact('engine.heat', 'none')])).toBeLessThan(0.001);
    expect(shareOf('overheated_guides', [...hot, fact('cooling.overheat', 'unknown')])).toBeGreaterThan(
      0.001,
    );
  });
});
