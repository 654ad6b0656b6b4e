import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { limitsOf } from '@core/drive/carrier';
import { tensionerIndex } from '@core/drive/layout';
import { tensionerSettings } from '@core/drive/tensioner';
import { roomAt } from '@core/fitting/recover';
import { sheetFor } from '@core/fitting/sheet';
import { must } from '@core/quantity/must';
import { demoPack } from '../../demo/catalogue';
import { choicesAt, type TrapFigure, gatesHeld, spring, toolsAt, trapsOf } from './fitting';

const cat = catalogueOf(demoPack());
const sheets = cat.pack.variants.flatMap((v) => {
  const stages = v.layout === undefined ? [] : stagesFor(cat, v.layout);
  const sheet = sheetFor(cat, v, stages);
  return sheet.status === 'ready' ? [{ id: v.id, stages, sheet }] : [];
});

describe('traps of a procedure', () => {
  it('can each be sprung at their step on every drive of the catalogue, and say what follows', () => {
    const kinds = new Set<string>();
    for (const { id, stages, sheet } of sheets)
      for (const trap of trapsOf(sheet, stages)) {
        kinds.add(trap.kind);
        const at = sheet.steps.findIndex((s) => s.id === trap.step);
        const before = sheet.steps.slice(0, at).map((s) => s.id);
        const r = spring(sheet, stages, trap, before);
        const where = `${id} ${trap.kind} ${trap.step}`;
        if (trap.kind === 'early') {
          expect(r.broken.some((b) => b.gate === trap.gate))
            .withContext(where)
            .toBeTrue();
          expect(must(trap.gate).why.length + (trap.gate?.fault?.length ?? 0))
            .withContext(where)
            .toBeGreaterThan(0);
        } else {
          expect(r.broken).withContext(where).toEqual([]);
          const says = r.figures.length + (r.step.fault?.length ?? 0) + (r.step.tool?.name.length ?? 0);
          expect(says).withContext(where).toBeGreaterThan(0);
        }
        // what is undone was done, or is the step itself
        for (const u of r.undo)
          expect([...before, trap.step])
            .withContext(where)
            .toContain(u);
      }
    expect([...kinds].sort()).toEqual(['against', 'early', 'far_side', 'otherwise', 'tool']);
  });

  it('lead nowhere in the order of the sheet: every other choice breaks a gate, the right one none', () => {
    const figures = new Map<TrapFigure['is'], number>();
    for (const { id, stages, sheet } of sheets) {
      const done: string[] = [];
      for (let c = choicesAt(sheet, done, 5); c; c = choicesAt(sheet, done, 5)) {
        expect(gatesHeld(sheet.gates, c.right.id, done))
          .withContext(`${id} ${c.right.id}`)
          .toEqual([]);
        expect(choicesAt(sheet, done, 5)).toEqual(c);
        for (const x of c.all) {
          if (x === c.right) continue;
          const gate = must(gatesHeld(sheet.gates, x.id, done)[0]);
          const r = spring(sheet, stages, { kind: 'early', step: x.id, gate }, done);
          expect(r.broken.length).withContext(`${id} ${x.id}`).toBeGreaterThan(0);
          for (const f of r.figures) {
            figures.set(f.is, (figures.get(f.is) ?? 0) + 1);
            holds(f, stages);
          }
        }
        done.push(c.right.id);
      }
      expect(done.length).toBe(sheet.steps.length);
    }
    expect(figures.get('runs_out')).toBeGreaterThan(10);
    expect(figures.get('valves_meet')).toBeGreaterThan(10);
  });

  /** Each figure against the drive itself, by another way than it was made. */
  function holds(f: TrapFigure, stages: (typeof sheets)[number]['stages']): void {
    if (f.is === 'valves_meet') {
      const g = must(stages.find((s) => s.layout.valves)?.layout.valves);
      expect(roomAt(g, { crankDeg: f.crankDeg, cams: {} }).mm).toBeLessThanOrEqual(0);
      const inside = f.crankDeg - Math.sign(f.crankDeg);
      for (const side of [inside, -inside])
        expect(roomAt(g, { crankDeg: side, cams: {} }).mm).toBeGreaterThan(0);
    }
    if (f.is === 'runs_out') {
      const ends = stages.flatMap((s) => {
        const c = s.layout.wheels[tensionerIndex(s.layout)]?.carrier;
        return c ? [limitsOf(c).end] : [];
      });
      expect(ends).toContain(f.to);
    }
  }

  it('show the other root of the length on the far side, and what a tensioner gives when turned back', () => {
    for (const { id, stages, sheet } of sheets)
      for (const trap of trapsOf(sheet, stages)) {
        if (trap.kind !== 'far_side' && trap.kind !== 'against') continue;
        const r = spring(sheet, stages, trap, []);
        const { layout } = must(stages[r.step.spot.stage]);
        const settings = tensionerSettings(layout);
        const readings = settings.ok ? settings.value.found.map((s) => s.reading) : [];
        for (const f of r.figures) {
          if (f.is === 'other_setting') {
            expect(readings.some((x) => Math.abs(x - f.other) < 1e-6))
              .withContext(id)
              .toBeTrue();
            expect(Math.abs(f.other - f.right))
              .withContext(id)
              .toBeGreaterThan(5);
          }
          if (f.is === 'slack_moves') {
            expect(f.teeth * layout.pitchMm)
              .withContext(id)
              .toBeCloseTo(f.mm, 9);
            expect(f.crankDeg)
              .withContext(id)
              .toBeCloseTo((360 * f.teeth) / must(must(layout.wheels[0]).teeth), 9);
          }
        }
      }
  });

  it('offer the step’s own tool among others of the sheet, each once', () => {
    for (const { sheet } of sheets)
      for (const s of sheet.steps) {
        const tools = toolsAt(sheet, s, 3);
        expect(tools.length > 0).toBe(s.tool !== undefined);
        expect(new Set(tools).size).toBe(tools.length);
        if (s.tool) expect(tools).toContain(s.tool.name);
      }
  });
});
