import { demoPack } from '../../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { carrierKind, readingAt } from '@core/drive/carrier';
import { tensionerIndex } from '@core/drive/layout';
import { solveDrive } from '@core/drive/solve-drive';
import { turnedBy } from '@core/drive/turned';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { makeSheet } from './sheet';
import { beforeStep, motionFrame, stepMotion } from './step-motion';

const cat = catalogueOf(demoPack());
const moved = [...cat.variants.values()].flatMap((v) => {
  const stages = stagesFor(cat, v.layout!);
  const sheet = makeSheet(cat, v, stages, SHIPPED_POLICY);
  return sheet.steps.flatMap((step) => {
    const before = beforeStep(sheet, step, stages.length);
    const motion = stepMotion(step, before, stages, SHIPPED_POLICY);
    const stage = stages[step.spot.stage]!;
    return motion ? [{ at: `${v.id} ${step.id}`, step, before, motion, stage }] : [];
  });
});

describe('what a step moves, on every design of the catalogue', () => {
  it('is there for every turn, every tensioner that is set or held back, and every belt or chain that goes on or off', () => {
    expect(moved.length).toBeGreaterThan(200);
    const kinds = new Set(
      moved.flatMap(({ motion, stage }) => {
        const carrier = stage.layout.wheels[tensionerIndex(stage.layout)]?.carrier;
        return motion.carrier && carrier ? [carrierKind(carrier)] : [];
      }),
    );
    expect([...kinds].sort()).toEqual(['automatic_eccentric', 'manual_eccentric', 'plunger']);
    for (const { at, step, motion } of moved) {
      const turned = step.does?.some((e) => e[0] === 'turned' && e[2] === 'turns') ?? false;
      expect(motion.turns !== undefined)
        .withContext(at)
        .toBe(turned);
    }
  });

  it('turns wheels by whole cycles: after the turns of the crank each mark is where it was', () => {
    let cams = 0;
    for (const { at, motion, stage } of moved.filter((m) => m.motion.turns !== undefined)) {
      const { layout } = stage;
      const { circles } = motionFrame(layout, asSet, motion, 1);
      const by = turnedBy(layout, circles, motion.driver!.toDeg).wheelDeg;
      layout.wheels.forEach((w, i) => {
        if (w.role !== 'cam' && w.role !== 'crank') return;
        cams++;
        // two turns of the crank are one of a cam
        expect(Math.abs(Math.round(by[i]! / 360) - by[i]! / 360))
          .withContext(`${at} ${w.id}`)
          .toBeLessThan(1e-9);
      });
    }
    expect(cams).toBeGreaterThan(50);
  });

  it('takes up slack in the tensioner’s own sense, without a jump, and ends where belt and tensioner agree', () => {
    for (const { at, step, motion, stage } of moved) {
      const [c, now] = [motion.carrier, step.now.stages[step.spot.stage]!];
      if (!c) continue;
      const { layout } = stage;
      const carrier = layout.wheels[c.wheel]!.carrier!;
      const sign = carrier.turn === 'ccw' ? 1 : -1;
      const tightens = now.tensioner === 'nominal';
      expect(Math.sign(c.toDeg - c.fromDeg))
        .withContext(at)
        .toBe(tightens ? sign : -sign);
      const centre = (share: number) => motionFrame(layout, now, motion, share).circles[c.wheel]!;
      const way = Math.abs(c.toDeg - c.fromDeg) * (Math.PI / 180) * carrier.arm;
      for (let k = 0; k < 20; k++) {
        const [p, q] = [centre(k / 20), centre((k + 1) / 20)];
        expect(Math.hypot(p.x - q.x, p.y - q.y))
          .withContext(`${at} ${k}`)
          .toBeLessThanOrEqual(way / 20 + 1e-6);
      }
      const solved = solveDrive(layout);
      const set = solved.ok ? solved.value.setting : undefined;
      if (tightens && set) expect(readingAt(carrier, c.toDeg)).withContext(at).toBeCloseTo(set.reading, 9);
    }
  });

  it('shows at its end what every still picture of the step shows, and at its start what the step before left', () => {
    for (const { at, step, before, motion, stage } of moved) {
      const now = step.now.stages[step.spot.stage]!;
      const was = before.stages[step.spot.stage]!;
      const [end, start] = [1, 0].map((s) => motionFrame(stage.layout, now, motion, s));
      expect(end!.loop)
        .withContext(at)
        .toBe(now.loop === 'off' ? 0 : 1);
      expect(start!.loop)
        .withContext(at)
        .toBe(was.loop === 'off' ? 0 : 1);
      expect(end!.tensioner)
        .withContext(at)
        .toBe(now.tensioner === 'off' ? 0 : 1);
      expect(start!.tensioner)
        .withContext(at)
        .toBe(was.tensioner === 'off' ? 0 : 1);
      expect(end!.slack)
        .withContext(at)
        .toBe(now.loop === 'slack');
      if (motion.driver && motion.turns === undefined) expect(end!.driverDeg).withContext(at).toBe(0);
    }
  });
});

const asSet = { loop: 'taut', tensioner: 'nominal', cam: 'tight' } as const;
