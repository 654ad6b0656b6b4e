import { demoPack } from '../../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import type { Procedure } from '@core/catalogue/procedure';
import { markedWheels } from '@core/drive/judge-marks';
import { tensionerIndex } from '@core/drive/layout';
import { POLICY_QUESTIONS, SHIPPED_POLICY, policyWith } from '@core/policy/policy';
import { after, asFound, type DriveNow } from './drive-now';
import { STEP_PHASES } from '@core/catalogue/procedure';
import { NO_DESIGN } from './design-values';
import { makeSheet, sheetFor, verifyingSteps } from './sheet';
import { inSentence, valuesAt } from './values';

const cat = catalogueOf(demoPack());
const otherwise = policyWith(
  Object.fromEntries(POLICY_QUESTIONS.map((c) => [c.key, c.options.find((o) => o.key !== c.default)!.key])),
);
const all = [...cat.variants.values()].flatMap((v) =>
  [SHIPPED_POLICY, otherwise].map((policy) => {
    const stages = stagesFor(cat, v.layout!);
    return { id: v.id, v, stages, policy, sheet: makeSheet(cat, v, stages, policy) };
  }),
);

describe('the drive as it stands, step by step on every design', () => {
  it('begins as found, and ends whole: nothing locked, nothing pinned, every loop on and taut, every tensioner set', () => {
    for (const { id, stages, sheet } of all) {
      const last = sheet.steps.at(-1)!.now;
      expect([last.lockedCrank, last.lockedCams, last.located])
        .withContext(id)
        .toEqual([false, false, false]);
      expect(last.stages.length).toBe(stages.length);
      last.stages.forEach((s, i) => {
        const { layout } = stages[i]!;
        expect(s.pin).withContext(`${id} ${i}`).not.toBe('in');
        expect(s.cam).withContext(`${id} ${i}`).toBe('tight');
        if (tensionerIndex(layout) < 0) return;
        expect([s.loop, s.tensioner]).withContext(`${id} ${i}`).toEqual(['taut', 'nominal']);
      });
    }
  });

  it('never takes a loop off while the shafts are free, nor turns the engine while they are locked', () => {
    for (const { id, sheet } of all) {
      let before: DriveNow = asFound(sheet.steps[0]!.now.stages.length);
      for (const s of sheet.steps) {
        const where = `${id} ${s.id}`;
        const turnsOff = s.now.stages.some((x, i) => x.loop === 'off' && before.stages[i]!.loop !== 'off');
        if (turnsOff)
          expect(before.lockedCrank && before.lockedCams)
            .withContext(where)
            .toBeTrue();
        if (s.kind === 'rotate' && s.turns !== undefined)
          expect(before.lockedCrank || before.lockedCams || before.located)
            .withContext(where)
            .toBeFalse();
        before = s.now;
      }
    }
  });

  it('lays a loop on only round a tensioner that is there and held back, and sets it only on a loop that is on', () => {
    for (const { id, stages, sheet } of all) {
      let before = asFound(stages.length);
      for (const s of sheet.steps) {
        const i = s.spot.stage;
        const [was, is] = [before.stages[i]!, s.now.stages[i]!];
        const where = `${id} ${s.id}`;
        const carrier = stages[i]!.layout.wheels[tensionerIndex(stages[i]!.layout)]?.carrier;
        if (was.loop === 'off' && is.loop === 'slack' && carrier?.kind === 'eccentric')
          expect(was.tensioner).withContext(where).toBe('start');
        if (is.tensioner === 'nominal' && was.tensioner !== 'nominal')
          expect(was.loop).withContext(where).toBe('slack');
        if (is.pin === 'out' && was.pin !== 'out') expect(was.pin).withContext(where).toBe('in');
        before = s.now;
      }
    }
  });

  it('changes only the stage that a step is laid at', () => {
    const one = after(asFound(3), ['loop-off', 'pin-in', 'lock-crank'], 1);
    expect(one.stages.map((s) => s.loop)).toEqual(['fitted', 'off', 'fitted']);
    expect(one.stages.map((s) => s.pin)).toEqual([undefined, 'in', undefined]);
    expect(one.lockedCrank).toBeTrue();
    expect(after(one, ['unlock', 'show-key'], 0)).toEqual({ ...one, lockedCrank: false });
  });
});

describe('a sheet', () => {
  it('goes through its phases once, numbers its steps, and is one and the same for the same answers', () => {
    for (const { id, v, stages, policy, sheet } of all) {
      const at = sheet.steps.map((s) => STEP_PHASES.indexOf(s.phase));
      expect(at)
        .withContext(id)
        .toEqual([...at].sort((a, b) => a - b));
      expect(new Set(at).size).withContext(id).toBe(STEP_PHASES.length);
      expect(sheet.steps.map((s) => s.number)).toEqual(sheet.steps.map((_, i) => i + 1));
      expect(new Set(sheet.steps.map((s) => s.id)).size).toBe(sheet.steps.length);
      const once = sheetFor(cat, v, stages, policy);
      expect(sheetFor(cat, v, stages, policy)).toBe(once);
      expect(once).toEqual(sheet);
    }
  });

  it('gives every figure that it asks bounds that the drive can reach, each of its own kind in a step', () => {
    for (const { id, stages, sheet } of all)
      for (const s of sheet.steps) {
        const asks = s.proof?.asks ?? [];
        expect(new Set(asks.map((a) => a.quantity)).size)
          .withContext(`${id} ${s.id}`)
          .toBe(asks.length);
        for (const a of asks) {
          if (a.from !== undefined && a.to !== undefined) expect(a.from).toBeLessThanOrEqual(a.to);
          if (s.id.startsWith('new.count'))
            expect([a.from, a.to]).toEqual(Array(2).fill(stages[s.spot.stage]!.layout.count));
          const carrier =
            stages[s.spot.stage]!.layout.wheels[tensionerIndex(stages[s.spot.stage]!.layout)]?.carrier;
          const window =
            carrier?.kind === 'arm' && carrier.plunger ? carrier.plunger.window : carrier?.window;
          if (s.spot.wheel === undefined && (a.id === 'ptr' || a.id === 'ext'))
            expect([a.from, a.to]).withContext(`${id} ${s.id}`).toEqual([window!.from, window!.to]);
        }
      }
  });

  it('looks at everything that tells a tooth out before the covers: links, turns, tools, marks', () => {
    for (const { id, stages, sheet } of all) {
      const steps = verifyingSteps(sheet.steps);
      const covers = sheet.steps.find((s) => s.on === 'cover' && s.phase === 'close')!.number;
      for (const s of steps) expect(s.number).withContext(`${id} ${s.id}`).toBeLessThan(covers);
      expect(steps.some((s) => s.turns !== undefined))
        .withContext(id)
        .toBeTrue();
      const chains = stages.filter(
        (s) => s.layout.kind === 'chain' && markedWheels(s.layout).length > 0,
      ).length;
      const counted = steps.filter(
        (s) => s.proof?.by === 'count' && s.on === 'loop' && s.turns === undefined,
      ).length;
      expect(counted).withContext(id).toBeGreaterThanOrEqual(chains);
    }
  });

  it('of a whole drive names the marks of all its stages, of a stage only its own', () => {
    const { stages } = all.find((a) => a.id === 'QU30-VASK/A')!;
    const whole = valuesAt(stages, { stage: 0, whole: true }, SHIPPED_POLICY, NO_DESIGN).texts;
    const names = (i: number) =>
      markedWheels(stages[i]!.layout).map((w) => inSentence(stages[i]!.layout.wheels[w]!.name));
    for (const i of [0, 1, 2])
      for (const name of names(i)) {
        expect(whole.marked).toContain(name);
        const own = valuesAt(stages, { stage: i }, SHIPPED_POLICY, NO_DESIGN).texts.marked;
        expect(own).toContain(name);
      }
    for (const name of names(1))
      expect(valuesAt(stages, { stage: 2 }, SHIPPED_POLICY, NO_DESIGN).texts.marked).not.toContain(name);
  });

  it('is read from a pack of an older make: a proof that is a text, a torque that is a number', () => {
    const old: Procedure = {
      id: 'old',
      name: 'Old {drive}',
      steps: [
        { id: 'a', kind: 'prepare', text: 'Look at the {driver}.', proof: 'Seen.', fault: 'Else not.' },
        { id: 'b', kind: 'torque', text: 'Tighten.', torqueNm: 42 },
      ],
    };
    const pack = { ...demoPack(), procedures: [old] };
    const mine = catalogueOf(pack);
    const { v, stages } = all[0]!;
    const sheet = makeSheet(mine, { ...v, procedure: 'old' }, stages, SHIPPED_POLICY);
    expect(sheet.name).toBe('Old belt');
    expect(sheet.steps[0]!.text).toBe('Look at the crank sprocket.');
    expect(sheet.steps[0]!.proof).toEqual({ by: 'look', text: 'Seen.', asks: [] });
    expect(sheet.steps[1]!.torque!.stages.map((s) => (s.kind === 'torque' ? s.nm : 0))).toEqual([42]);
    expect(sheet.gates).toEqual([]);
  });
});
