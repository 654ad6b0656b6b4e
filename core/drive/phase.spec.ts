import fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import { compensate } from './compensate';
import { judgeOffset, offsetPattern } from './judge-offset';
import type { Layout } from './layout';
import { carrierAt, limitsOf } from './carrier';
import { atCarrier, moveBanks } from './move';
import { inUnits, markPhases, realignTurns, seating } from './phase';
import { solveDrive, solveFixed } from './solve-drive';
import { estimateBanks, stackEffect } from './stack-height';
import { crankOffsets, stagesOf } from './stages';
import { wearState } from './wear';

const value = <T>(r: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!r.ok) throw new Error(JSON.stringify(r.error));
  return r.value;
};
const layouts = demoPack().layouts;
const opposed = layouts.find((l) => l.id === 'fletcher-a')!;
const seed = fc.readConfigureGlobal()?.seed ?? 11;

/** Closed form: cam retard Δθ = −e·L/r in wheel degrees, late is negative. */
const elongationRetard = (e: number, tightMm: number, radiusMm: number) =>
  (-e * tightMm * 180) / (Math.PI * radiusMm);

/** Two equal wheels side by side, marks up: the tight strand is straight, so everything has a closed form. */
function pair(distanceMm: number, markDeg = 90): Layout {
  return {
    id: 'pair',
    kind: 'belt',
    runs: 'ccw',
    pitchMm: 8,
    count: 60,
    backMm: 1,
    toothMm: 2,
    wheels: [
      { id: 'a', name: 'A', role: 'crank', x: 0, y: 0, teeth: 20, side: 1, rimMm: 0, markDeg: 90 },
      {
        id: 'b',
        name: 'B',
        role: 'cam',
        x: distanceMm,
        y: 0,
        teeth: 20,
        side: 1,
        rimMm: 0,
        markDeg,
        bank: 'h',
      },
    ],
    banks: [{ id: 'h', name: 'Head', dirDeg: 0 }],
  };
}

describe('marks', () => {
  it('agree with the closed form of two equal wheels: what does not come out whole of d/p, to 1e-12', () => {
    fc.assert(
      fc.property(fc.double({ min: 100, max: 400, noNaN: true }), (d) => {
        const l = pair(d);
        const [p] = markPhases(l, value(solveFixed(l)));
        // running anticlockwise the upper strand runs from B to A: both marks are where it touches
        expect(p!.distanceMm).toBeCloseTo(d, 9);
        expect(p!.teeth).toBeCloseTo(d / 8 - Math.round(d / 8), 9);
      }),
      { seed },
    );
  });

  it('say 360/z for a whole tooth at every wheel of every demo drive, exactly', () => {
    for (const l of layouts) {
      const z0 = l.wheels[0]!.teeth!;
      for (const w of l.wheels.filter((x) => x.teeth !== undefined)) {
        const one = inUnits(1, w.teeth!, z0, l.pitchMm);
        expect(one.wheelDeg).toBe(360 / w.teeth!);
        expect(one.driverDeg).toBe(360 / z0);
        // a cam at half speed: twice its own degrees, measured at the crank
        if (w.teeth === 2 * z0) expect(one.driverDeg).toBe(2 * one.wheelDeg);
      }
    }
  });

  it('move by one tooth when the belt is seated one tooth further on', () => {
    const solved = value(solveDrive(opposed));
    const phases = markPhases(opposed, solved);
    const seats = seating(phases);
    const jumped = new Map(
      [...seats].map(([wheel, seat]) => [wheel, { ...seat, between: seat.between - 1 }] as const),
    );
    markPhases(opposed, solved, 0, jumped).forEach((p, i) =>
      expect(p.teeth - phases[i]!.teeth).toBeCloseTo(p.route === 'tight' ? 1 : -1, 12),
    );
  });

  it('keep their offsets when the whole drive is turned and moved', () => {
    const phases = markPhases(opposed, value(solveFixed(opposed)));
    const turned = (deg: number): Layout => {
      const a = (deg * Math.PI) / 180;
      const at = (p: { x: number; y: number }) => ({
        x: 31 + p.x * Math.cos(a) - p.y * Math.sin(a),
        y: -7 + p.x * Math.sin(a) + p.y * Math.cos(a),
      });
      return {
        ...opposed,
        wheels: opposed.wheels.map((w) => ({
          ...w,
          carrier: undefined,
          ...at(w),
          ...(w.markDeg === undefined ? {} : { markDeg: w.markDeg + deg }),
          role: w.role === 'tensioner' ? ('idler' as const) : w.role,
        })),
      };
    };
    // without its tensioner every mark is counted on the tight side, as it was
    const l = turned(143);
    markPhases(l, value(solveFixed(l))).forEach((p, i) => expect(p.teeth).toBeCloseTo(phases[i]!.teeth, 9));
  });

  it('come back in line after lcm(belt, wheel)/wheel turns, by brute force', () => {
    for (const [belt, wheel] of [
      [121, 20],
      [120, 20],
      [211, 20],
      [98, 21],
    ] as const) {
      let turns = 1;
      while ((turns * wheel) % belt !== 0) turns++;
      expect(realignTurns(belt, wheel)).toBe(turns);
    }
  });

  it('are judged against what the layout predicts, with the uncertainty', () => {
    const half = { teeth: 0.46 };
    expect(judgeOffset(0.5, 0.05, half, 0.25).verdict).toBe('as_predicted');
    expect(judgeOffset(1, 0.05, { teeth: 0 }, 0.25)).toEqual(
      jasmine.objectContaining({ verdict: 'teeth_out', teeth: 1, sense: 'advanced' }),
    );
    expect(judgeOffset(-0.54, 0.05, half, 0.25)).toEqual(
      jasmine.objectContaining({ verdict: 'teeth_out', teeth: 1, sense: 'retarded' }),
    );
    expect(judgeOffset(-0.54, 0.05, { teeth: 0.48, alternative: -0.52 }, 0.25).verdict).toBe('as_predicted');
    expect(judgeOffset(0.5, 0.05, { teeth: 0 }, 0.25).verdict).toBe('fraction');
    expect(judgeOffset(0.3, 0.2, { teeth: 0 }, 0.25).verdict).toBe('cannot_tell');
    // the band's edges matter, not that the value is small against its uncertainty
    expect(judgeOffset(-0.05, 0.1, { teeth: 0 }, 0.3).verdict).toBe('as_predicted');
    expect(judgeOffset(0.5, 0.3, { teeth: 0 }, 0.25).verdict).toBe('cannot_tell');
    expect(judgeOffset(1.5, 0.05, { teeth: 0 }, 0.25)).toEqual(
      jasmine.objectContaining({ verdict: 'teeth_and_rest', teeth: 1, restTeeth: 0.5, sense: 'advanced' }),
    );
    expect(judgeOffset(-1.66, 0.02, { teeth: 0 }, 0.25)).toEqual(
      jasmine.objectContaining({ verdict: 'teeth_and_rest', teeth: 2, sense: 'retarded' }),
    );
  });

  it('together say where the belt sits wrong', () => {
    const at = (wheel: number, teeth: number) => ({
      wheel,
      verdict: judgeOffset(teeth, 0.02, { teeth: 0 }, 0.25),
    });
    expect(offsetPattern([at(6, 1), at(5, 1), at(3, 1)])).toEqual({
      pattern: 'at_driver',
      teeth: 1,
      sense: 'advanced',
    });
    expect(offsetPattern([at(6, 0), at(5, -1), at(3, -1)])).toEqual({ pattern: 'from_wheel', wheel: 5 });
    expect(offsetPattern([at(6, 0.4), at(5, 0)])).toEqual({ pattern: 'fractions' });
    expect(offsetPattern([at(6, 1), at(5, -1)])).toEqual({ pattern: 'inconsistent' });
    expect(offsetPattern([at(6, 0), at(5, 0)])).toEqual({ pattern: 'as_predicted' });
    expect(offsetPattern([at(6, 1.5), at(5, 0)])).toEqual({ pattern: 'teeth_and_rest' });
  });
});

describe('stack height', () => {
  it('retards a straight drive by the machined length over the radius', () => {
    const l = pair(240);
    const before = markPhases(l, value(solveFixed(l)));
    const moved = moveBanks(l, { h: 0.5 });
    const [after] = markPhases(moved, value(solveFixed(moved)), 0, seating(before));
    expect(after!.teeth - before[0]!.teeth).toBeCloseTo(-0.5 / 8, 12);
    expect(after!.wheelDeg - before[0]!.wheelDeg).toBeCloseTo(
      elongationRetard(0.5 / 240, 240, 160 / 2 / Math.PI),
      9,
    );
  });

  it('has opposite sense in the mirrored drive, and the same size', () => {
    const effect = value(stackEffect(opposed, { left: 0.4, right: 0.4 })).changeTeeth;
    const mirrored: Layout = {
      ...opposed,
      runs: opposed.runs === 'cw' ? 'ccw' : 'cw',
      banks: opposed.banks!.map((b) => ({ ...b, dirDeg: 180 - b.dirDeg })),
      wheels: opposed.wheels.map((w) => ({
        ...w,
        x: -w.x,
        ...(w.markDeg === undefined ? {} : { markDeg: 180 - w.markDeg }),
        ...(w.carrier?.kind === 'eccentric'
          ? {
              carrier: {
                ...w.carrier,
                pivot: { x: -w.carrier.pivot.x, y: w.carrier.pivot.y },
                startDeg: 180 - w.carrier.startDeg,
                turn: w.carrier.turn === 'cw' ? ('ccw' as const) : ('cw' as const),
              },
            }
          : {}),
      })),
    };
    const image = value(stackEffect(mirrored, { left: 0.4, right: 0.4 })).changeTeeth;
    // advanced is counted in each wheel's own running sense, so the mirror image shows the same offsets …
    image.forEach((c, i) => expect(c.teeth).toBeCloseTo(effect[i]!.teeth, 9));
    // … and a head moved out gives the opposite of one moved in, to first order
    const out = value(stackEffect(opposed, { left: -0.01, right: -0.01 })).changeTeeth;
    const into = value(stackEffect(opposed, { left: 0.01, right: 0.01 })).changeTeeth;
    out.forEach((c, i) => expect(c.teeth + into[i]!.teeth).toBeLessThan(1e-5));
  });

  it('is found again from the marks it causes, to 0.001 mm, with an honest uncertainty', () => {
    const truth = { left: 0.7, right: 0.3 };
    const moved = moveBanks(opposed, truth);
    const seats = seating(markPhases(opposed, value(solveFixed(opposed))));
    const seen = markPhases(moved, value(solveFixed(moved)), 0, seats).map((p) => ({
      wheel: p.wheel,
      teeth: p.teeth,
      u: 0.02,
    }));
    const est = value(estimateBanks(opposed, seen));
    expect(est.banks.map((b) => b.id)).toEqual(['left', 'right']);
    expect(est.banks[0]!.nearerMm).toBeCloseTo(0.7, 3);
    expect(est.banks[1]!.nearerMm).toBeCloseTo(0.3, 3);
    // second method for u: the left head alone shifts its own two cams, so u = 0.02·p/(slope·√2) at least
    const slope = (value(stackEffect(opposed, { left: 0.1, right: 0 })).changeTeeth[3]!.teeth / 0.1) * 1;
    expect(est.banks[0]!.u).toBeCloseTo(0.02 / Math.abs(slope) / Math.SQRT2, 1);
    // what no machining takes off is told as such and not as a figure to file
    const far = estimateBanks(
      opposed,
      seen.map((s) => ({ ...s, teeth: s.teeth + (s.wheel > 4 ? -0.9 : 0) })),
    );
    expect(far.ok ? 'ok' : far.error.code).toBe('beyond');
    expect(estimateBanks(opposed, seen.slice(0, 1))).toEqual({
      ok: false,
      error: { code: 'too_few', have: 1, need: 2 },
    });
  });

  it('is compensated by the idlers in laying order, or left with the best residual', () => {
    const near = value(compensate(opposed, moveBanks(opposed, { left: 0.4, right: 0.4 })));
    expect(near.steps.map((s) => [opposed.wheels[s.idler]!.id, s.inRange])).toEqual([
      ['idler-left', true],
      ['idler-right', true],
    ]);
    const was = new Map(markPhases(opposed, value(solveDrive(opposed))).map((p) => [p.wheel, p.teeth]));
    for (const s of near.steps)
      expect(near.after.find((p) => p.wheel === s.cam)!.teeth).toBeCloseTo(was.get(s.cam)!, 6);
    const far = value(compensate(opposed, moveBanks(opposed, { left: 1, right: 1 })));
    expect(far.steps.map((s) => s.inRange)).toEqual([true, false]);
    expect(far.steps[1]!.toReading).toBe(180);
  });

  it('is compensated against elongation too, every setting listed, and the best residual refined between samples', () => {
    const e = 0.0012;
    const plan = value(compensate(opposed, opposed, e));
    const was = new Map(markPhases(opposed, value(solveDrive(opposed))).map((p) => [p.wheel, p.teeth]));
    for (const s of plan.steps.filter((x) => x.inRange)) {
      expect(s.settings).toContain(s.toReading);
      expect(plan.after.find((p) => p.wheel === s.cam)!.teeth).toBeCloseTo(was.get(s.cam)!, 6);
    }
    expect(plan.steps.some((s) => s.inRange)).toBeTrue();
    // second method for the one out of range: no reading of a scan a hundred times finer leaves less
    const heads = moveBanks(opposed, { left: -0.9, right: -0.9 });
    const far = value(compensate(opposed, heads));
    const out = far.steps.find((s) => !s.inRange);
    if (!out) return fail('every idler reached');
    const carrier = heads.wheels[out.idler]!.carrier!;
    const seats = seating(markPhases(opposed, value(solveDrive(opposed))));
    const before = far.steps.slice(0, far.steps.indexOf(out));
    const start = before.reduce(
      (l, s) => atCarrier(l, s.idler, carrierAt(l.wheels[s.idler]!.carrier!, s.toReading)),
      heads,
    );
    for (let r = 0; r <= 180; r += 0.03) {
      const l = atCarrier(start, out.idler, carrierAt(carrier, r));
      const solved = solveFixed(l);
      if (!solved.ok) continue;
      const teeth = markPhases(l, solved.value, 0, seats).find((p) => p.wheel === out.cam)!.teeth;
      expect(Math.abs(teeth - was.get(out.cam)!)).toBeGreaterThan(Math.abs(out.residualTeeth) - 1e-9);
    }
  });
});

/**
 * Second method: a tight strand of rigid links, seated in the gaps of both chain wheels, one tooth pitch of the driver after
 * the other. Returns by how much the cam stands late against links of the wheels' own pitch, degrees, mean over a pitch.
 */
function rigidRetard(z1: number, z2: number, p: number, centreMm: number, e: number): number {
  const ring = (z: number) => p / (2 * Math.sin(Math.PI / z));
  const [r1, r2] = [ring(z1), ring(z2)];
  const pin = (cy: number, r: number, angle: number) => ({
    x: r * Math.cos(angle),
    y: cy + r * Math.sin(angle),
  });
  /** Cam angle at which link pins i of the cam and j of the driver are held apart by the links between them. */
  const camAngle = (driver: number, links: number, pitch: number): number => {
    for (let i = -8; i <= 8; i++)
      for (let j = -8; j <= 8; j++) {
        const b = pin(0, r1, driver + (2 * Math.PI * j) / z1);
        const reach = (links + i - j) * pitch;
        const off = (t: number) => {
          const a = pin(centreMm, r2, t + (2 * Math.PI * i) / z2);
          return Math.hypot(a.x - b.x, a.y - b.y) - reach;
        };
        // The strand runs down on the right: the pins sought stand near angle zero.
        let [low, high] = [-(2 * Math.PI * i) / z2 - 0.6, -(2 * Math.PI * i) / z2 + 0.6];
        if (off(low) * off(high) > 0) continue;
        for (let k = 0; k < 60; k++) {
          const m = (low + high) / 2;
          if (off(low) * off(m) <= 0) high = m;
          else low = m;
        }
        const a = pin(centreMm, r2, low + (2 * Math.PI * i) / z2);
        const outside = (q: { x: number; y: number }) =>
          (b.x - a.x) * (q.y - a.y) - (b.y - a.y) * (q.x - a.x) > 1e-9;
        const neighbours = [
          pin(centreMm, r2, low + (2 * Math.PI * (i + 1)) / z2),
          pin(centreMm, r2, low + (2 * Math.PI * (i - 1)) / z2),
          pin(0, r1, driver + (2 * Math.PI * (j + 1)) / z1),
          pin(0, r1, driver + (2 * Math.PI * (j - 1)) / z1),
        ];
        if (!neighbours.some(outside)) return low;
      }
    throw new Error('no seating');
  };
  const links = Math.round(Math.hypot(centreMm, r2 - r1) / p);
  let sum = 0;
  const steps = 40;
  for (let k = 0; k < steps; k++) {
    const driver = (2 * Math.PI * k) / steps / z1;
    sum += camAngle(driver, links, p * (1 + e)) - camAngle(driver, links, p);
  }
  return (sum / steps) * (180 / Math.PI);
}

describe('elongation', () => {
  it('retards by e·L/r over the free tight side, as rigid links seated in the gaps do, to 2 %', () => {
    const e = 0.004;
    for (const [z1, z2, centreMm] of [
      [20, 40, 260],
      [21, 42, 190],
      [18, 36, 411],
    ] as const) {
      const wheel = { side: 1 as const, rimMm: 0 };
      const layout: Layout = {
        ...pair(0),
        kind: 'chain',
        runs: 'cw',
        wheels: [
          { ...wheel, id: 'a', name: 'A', role: 'crank', x: 0, y: 0, teeth: z1, markDeg: 270 },
          { ...wheel, id: 'b', name: 'B', role: 'cam', x: 0, y: centreMm, teeth: z2, markDeg: 90 },
        ],
      };
      const solved = value(solveFixed(layout));
      const [fresh] = markPhases(layout, solved);
      const [worn] = markPhases(layout, solved, e, seating([fresh!]));
      const computed = worn!.wheelDeg - fresh!.wheelDeg;
      const r = (z2 * 8) / (2 * Math.PI);
      expect(computed).toBeCloseTo(
        elongationRetard(e, Math.hypot(centreMm, ((z2 - z1) * 8) / (2 * Math.PI)), r),
        1,
      );
      // the cam is pulled down on the right: late is anticlockwise, so positive there
      const rigid = -rigidRetard(z1, z2, 8, centreMm, e);
      expect(Math.abs(computed / rigid - 1))
        .withContext(`${z1}/${z2}: ${computed} against ${rigid}`)
        .toBeLessThan(0.02);
    }
  });

  it('counts only what is free: strands and guides, on every demo drive', () => {
    for (const l of layouts) {
      const solved = value(solveDrive(l));
      for (const p of markPhases(l, solved)) {
        const [from, to] = p.route === 'tight' ? [p.wheel, l.wheels.length] : [0, p.wheel];
        let free = 0;
        for (let i = from; i < to; i++) free += solved.path.spans[i]!.lengthMm;
        l.wheels.forEach((w, i) => {
          if (i > from && i < to && w.teeth === undefined)
            free += solved.circles[i]!.r * solved.path.wraps[i]!;
        });
        const change = value(wearState(l, 0.002)).cams.find((c) => c.wheel === p.wheel)!;
        const late = (p.route === 'tight' ? -1 : 1) * 0.002 * (free / l.pitchMm);
        expect(change.teeth).withContext(`${l.id} ${p.wheel}`).toBeCloseTo(late, 9);
      }
    }
  });

  it('and machined heads do the same wherever the marks are painted, on every demo drive', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), fc.integer({ min: 0, max: 359 }), (a, b) => {
        for (const l of layouts) {
          const bank = l.banks?.[0]?.id;
          const painted: Layout = {
            ...l,
            wheels: l.wheels.map((w, i) =>
              w.markDeg === undefined ? w : { ...w, markDeg: w.markDeg + (i === 0 ? a : b) },
            ),
          };
          const effect = (x: Layout) => [
            ...value(wearState(x, 0.001)).cams.map((c) => c.teeth),
            ...value(stackEffect(x, bank ? { [bank]: 1 } : {})).changeTeeth.map((c) => c.teeth),
          ];
          const was = effect(l);
          effect(painted).forEach((teeth, i) =>
            expect(teeth).withContext(`${l.id}, marks at +${a}°, +${b}°`).toBeCloseTo(was[i]!, 9),
          );
        }
      }),
      { seed, numRuns: 12 },
    );
  });

  it('says which comes first, the tensioner’s end or the chain’s limit, as stepping along says', () => {
    let both = 0;
    for (const l of layouts) {
      const carrier = l.wheels.find((w) => w.role === 'tensioner')?.carrier;
      if (!carrier || l.elongationLimit === undefined) continue;
      const end = limitsOf(carrier).end;
      // second method: longer step by step until the reading passes the end mark or no setting is left
      let e = 0;
      for (; e < 0.05; e += 0.0001) {
        const state = wearState(l, e);
        if (!state.ok || state.value.reading!.worn >= end) break;
      }
      const w = value(wearState(l, 0));
      expect(Math.abs(w.endsAt! - e))
        .withContext(l.id)
        .toBeLessThan(0.00015);
      // the stepping is too coarse to tell which of the two is first within two steps
      if (Math.abs(w.endsAt! - l.elongationLimit) < 0.0002) continue;
      expect(w.ends)
        .withContext(l.id)
        .toBe(e < l.elongationLimit ? 'tensioner_first' : 'limit_first');
      both++;
    }
    expect(both).toBeGreaterThan(10);
    const stoat = layouts.find((x) => x.id === 'stoat-a')!;
    const lax = { ...stoat, elongationLimit: 0.03 };
    expect(value(wearState(lax, 0)).ends).toBe('tensioner_first');
  });

  it('adds up stage by stage in crank degrees', () => {
    const stages = value(stagesOf(layouts, 'vasker-a'));
    expect(stages.map((s) => s.layout.id)).toEqual(['vasker-a', 'vasker-a-left', 'vasker-a-right']);
    // 24/30 into the intermediates, 20/32 on to the cams: half speed
    expect(stages[1]!.ratio * (20 / 32)).toBeCloseTo(0.5, 12);
    const phases = stages.map((s) =>
      value(wearState(s.layout, 0.003)).cams.map((c) => ({ wheel: c.wheel, driverDeg: c.driverDeg })),
    );
    const offsets = crankOffsets(stages, phases);
    const intake = offsets.find((o) => o.stage === 1)!;
    const own = phases[1]!.find((p) => p.wheel === intake.wheel)!.driverDeg / stages[1]!.ratio;
    const brought = phases[0]!.find((p) => p.wheel === stages[1]!.on!.wheel)!.driverDeg;
    expect(intake.crankDeg).toBeCloseTo(own + brought, 12);
    const apart = layouts.map((l) =>
      l.id === 'vasker-a-left'
        ? { ...l, wheels: l.wheels.map((w, i) => (i === 0 ? { ...w, x: w.x + 3 } : w)) }
        : l,
    );
    const bad = stagesOf(apart, 'vasker-a');
    expect(bad.ok ? 'ok' : bad.error.code).toBe('stage_apart');
  });
});
