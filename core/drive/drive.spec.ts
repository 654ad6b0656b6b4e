import fc from 'fast-check';
import { type Circle, circlesOf, solvePath } from './path';
import { type Layout, layRadius, nominalLength, pitchRadius, senseOf, tensionerIndex } from './layout';
import { angleAtReading, carrierAt, limitsOf, pointerAt, readingAt } from './carrier';
import { lengthByAngle } from './length-by-angle';
import { solveDrive } from './solve-drive';
import { intendedSetting, tensionerSettings } from './tensioner';
import { demoPack } from '../../demo/catalogue';

const value = <T>(r: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!r.ok) throw new Error(JSON.stringify(r.error));
  return r.value;
};
const circle = (x: number, y: number, r: number, turn: 1 | -1 = 1): Circle => ({ x, y, r, turn });
const [layout] = demoPack().layouts as [Layout];
const carrier = layout.wheels.find((w) => w.carrier)!.carrier!;
const index = layout.wheels.findIndex((w) => w.carrier);

/** Second method: walks each arc in small chords and sums them with the straight spans; error ~ rθ³/24n². */
function polyline(circles: readonly Circle[], sense: 1 | -1, perArc = 20000): number {
  const path = value(solvePath(circles, sense));
  return path.spans.reduce((sum, s) => {
    const c = circles[s.to]!;
    const start = Math.atan2(s.b.y - c.y, s.b.x - c.x);
    let [x, y, length] = [s.b.x, s.b.y, Math.hypot(s.b.x - s.a.x, s.b.y - s.a.y)];
    for (let k = 1; k <= perArc; k++) {
      const t = start + (c.turn * path.wraps[s.to]! * k) / perArc;
      const [nx, ny] = [c.x + c.r * Math.cos(t), c.y + c.r * Math.sin(t)];
      // on a chain wheel one turn takes z pitches, though the pins stand a little further out
      length += Math.hypot(nx - x, ny - y) * ((c.lay ?? c.r) / c.r);
      [x, y] = [nx, ny];
    }
    return sum + length;
  }, 0);
}

describe('belt path', () => {
  it('agrees with the open two-wheel belt in closed form to 1e-9 mm', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 60, noNaN: true }),
        fc.double({ min: 10, max: 60, noNaN: true }),
        fc.double({ min: 130, max: 500, noNaN: true }),
        (r1, r2, d) => {
          // L = 2d·cos β + π(r1 + r2) + 2β(r1 − r2), sin β = (r1 − r2)/d
          const beta = Math.asin((r1 - r2) / d);
          const closed = 2 * d * Math.cos(beta) + Math.PI * (r1 + r2) + 2 * beta * (r1 - r2);
          const solved = value(solvePath([circle(0, 0, r1), circle(d, 0, r2)], 1)).lengthMm;
          expect(Math.abs(solved - closed)).toBeLessThan(1e-9);
        },
      ),
    );
  });

  it('agrees with a discretised polyline to 1e-6 mm on every demo layout', () => {
    for (const l of demoPack().layouts) {
      const circles = circlesOf(l);
      expect(Math.abs(value(solvePath(circles, senseOf(l))).lengthMm - polyline(circles, senseOf(l))))
        .withContext(l.id)
        .toBeLessThan(1e-6);
    }
  });

  it('keeps its length when moved, turned, mirrored or started at another wheel, to 1e-9 mm', () => {
    const base = circlesOf(layout);
    const sense = -1;
    const length = value(solvePath(base, sense)).lengthMm;
    const num = fc.double({ min: -400, max: 400, noNaN: true });
    fc.assert(
      fc.property(
        num,
        num,
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.nat(4),
        fc.boolean(),
        (dx, dy, a, start, mirror) => {
          const moved = base.map((c) => {
            const x = mirror ? -c.x : c.x;
            return {
              ...c,
              turn: (mirror ? -c.turn : c.turn) as 1 | -1,
              x: dx + x * Math.cos(a) - c.y * Math.sin(a),
              y: dy + x * Math.sin(a) + c.y * Math.cos(a),
            };
          });
          const rolled = [...moved.slice(start), ...moved.slice(0, start)];
          expect(Math.abs(value(solvePath(rolled, mirror ? 1 : sense)).lengthMm - length)).toBeLessThan(1e-9);
        },
      ),
    );
  });

  it('refuses what cannot exist and names the wheels', () => {
    const code = (circles: Circle[]) => {
      const r = solvePath(circles, 1);
      return r.ok ? 'ok' : `${r.error.code} ${r.error.wheels.join()}`;
    };
    expect(code([circle(0, 0, 20)])).toBe('too_few_wheels 0');
    expect(code([circle(0, 0, 20), circle(30, 0, 20)])).toBe('wheels_overlap 0,1');
    expect(code([circle(0, 0, 20), circle(100, 0, 0)])).toBe('no_radius 1');
    // an inner wheel that lies off the belt is not reached
    expect(code([circle(0, 0, 20), circle(200, 0, 20), circle(100, -10, 8)])).toBe('not_reached 2');
    // a belt that passes a foreign wheel through its body: order such that the strand 0–1 runs through wheel 2
    expect(
      code([circle(0, 0, 20), circle(200, 0, 20), circle(100, 80, 20), circle(100, -18, 10, -1)]),
    ).not.toBe('ok');
  });
});

describe('tensioner settings', () => {
  it('finds both settings that a dense scan of the full solver finds', () => {
    const settings = value(tensionerSettings(layout));
    const target = nominalLength(layout);
    const scan: number[] = [];
    let before = NaN;
    for (let k = 0; k <= 20000; k++) {
      const t = (k / 20000) * 2 * Math.PI;
      const solved = solvePath(circlesOf(layout, [{ wheel: index, carrierDeg: (t * 180) / Math.PI }]), -1);
      const f = solved.ok ? solved.value.lengthMm - target : NaN;
      if (before * f < 0) scan.push((t * 180) / Math.PI);
      before = f;
    }
    const found = settings.found.map((s) => s.carrierDeg).sort((a, b) => a - b);
    expect(found.length).toBe(2);
    expect(scan.length).toBe(2);
    found.forEach((deg, i) => expect(Math.abs(deg - scan[i]!)).toBeLessThan(0.02));
    for (const s of settings.found) expect(Math.abs(s.path.lengthMm - target)).toBeLessThan(1e-8);
  });

  it('shows the wrong way as sharper wrap on the neighbour and hardly any clearance', () => {
    const { found } = value(tensionerSettings(layout));
    const right = found.find((s) => s.inWindow)!;
    const wrong = found.find((s) => !s.inWindow)!;
    expect(right.pointerDeg).toBeCloseTo(carrier.window.nominal, 1);
    expect(wrong.path.wraps[index - 1]!).toBeGreaterThan(right.path.wraps[index - 1]! * 1.2);
    expect(right.clearance!.mm).toBeGreaterThan(15);
    expect(wrong.clearance!.mm).toBeLessThan(4);
    expect(right.takeUp).not.toBe(wrong.takeUp);
  });

  it('says by how much a belt is too long or too short, and agrees with its reach', () => {
    const { reach, targetMm } = value(tensionerSettings(layout));
    const long = tensionerSettings(layout, reach.maxMm - targetMm + 1);
    const short = tensionerSettings(layout, reach.minMm - targetMm - 1);
    expect(long.ok ? '' : long.error.code).toBe('belt_too_long');
    expect(!long.ok && long.error.code === 'belt_too_long' ? long.error.byMm : 0).toBeCloseTo(1, 6);
    expect(short.ok ? '' : short.error.code).toBe('belt_too_short');
  });

  it('counts a setting at the very start of the scan once', () => {
    const { found } = value(tensionerSettings(layout));
    const t = (found[0]!.carrierDeg * Math.PI) / 180;
    // the whole drive turned so that this setting lies at carrier angle zero
    const at = (p: { x: number; y: number }) => ({
      x: p.x * Math.cos(t) + p.y * Math.sin(t),
      y: -p.x * Math.sin(t) + p.y * Math.cos(t),
    });
    const turned = {
      ...layout,
      wheels: layout.wheels.map((w) => ({
        ...w,
        ...at(w),
        ...(w.carrier ? { carrier: { ...w.carrier, pivot: at(w.carrier.pivot) } } : {}),
      })),
    };
    expect(value(tensionerSettings(turned)).found.length).toBe(2);
  });

  it('finds two settings close together just short of the longest reach', () => {
    const { reach, targetMm } = value(tensionerSettings(layout));
    const { found } = value(tensionerSettings(layout, reach.maxMm - targetMm - 1e-5));
    expect(found.length).toBe(2);
    expect(Math.abs(found[0]!.carrierDeg - found[1]!.carrierDeg)).toBeLessThan(1);
  });

  it('follows growth with an arm and a plunger: the full path is as long at every reading, to 1e-8 mm', () => {
    for (const l of demoPack().layouts.filter((x) => x.kind === 'chain' && tensionerIndex(x) > 0)) {
      const arm = l.wheels[tensionerIndex(l)]!.carrier!;
      let before = -Infinity;
      for (const e of [0, 0.001, 0.002]) {
        const solved = value(solveDrive(l, e * nominalLength(l)));
        expect(Math.abs(solved.path.lengthMm - nominalLength(l) * (1 + e))).toBeLessThan(1e-8);
        const { reading, carrierDeg } = solved.setting!;
        expect(reading).withContext(l.id).toBeGreaterThan(before);
        expect(angleAtReading(arm, reading)!).toBeCloseTo(carrierDeg, 6);
        expect(readingAt(arm, carrierDeg)).toBeCloseTo(reading, 9);
        before = reading;
      }
      expect(before).toBeLessThan(limitsOf(arm).end);
    }
  });

  it('lets no strand leave a shoe beyond its end', () => {
    const l = demoPack().layouts.find((x) => x.kind === 'chain')!;
    const i = tensionerIndex(l);
    const { arc } = l.wheels[i]!;
    const short = {
      ...l,
      wheels: l.wheels.map((w, k) => (k === i ? { ...w, arc: { ...arc!, toDeg: arc!.fromDeg + 1 } } : w)),
    };
    const solved = solvePath(circlesOf(short), senseOf(short));
    expect(solved.ok ? 'ok' : `${solved.error.code} ${solved.error.wheels.join()}`).toBe(`off_shoe ${i}`);
    const settings = value(tensionerSettings(short));
    expect(intendedSetting(settings, l.wheels[i]!.carrier!)).toEqual({});
    expect(settings.impossible[0]!.why.code).toBe('off_shoe');
  });

  it('turns pointer readings into carrier angles and back', () => {
    fc.assert(
      fc.property(fc.double({ min: -179, max: 180, noNaN: true }), (p) =>
        expect(pointerAt(carrier, carrierAt(carrier, p))).toBeCloseTo(p, 9),
      ),
    );
  });

  it('has the same length by its fast way as by the full path', () => {
    const fast = lengthByAngle(layout, index, carrier)((52 * Math.PI) / 180);
    expect(fast).toBeCloseTo(value(solvePath(circlesOf(layout), -1)).lengthMm, 2);
  });
});

describe('pitch radius', () => {
  it('is z·p/2π on a belt and p/(2 sin π/z) on a chain', () => {
    const belt = { kind: 'belt' as const, pitchMm: 8, backMm: 1.6, toothMm: 3 };
    expect(pitchRadius(belt, { teeth: 24, side: 1 })).toBeCloseTo(30.5577, 4);
    // a chain wheel of six teeth is a hexagon: its pitch circle equals its side, the pitch
    expect(pitchRadius({ ...belt, kind: 'chain' }, { teeth: 6, side: 1 })).toBeCloseTo(8, 12);
    // but one turn takes exactly six links
    expect(layRadius({ ...belt, kind: 'chain' }, { teeth: 6, side: 1 }) * 2 * Math.PI).toBeCloseTo(48, 12);
    expect(pitchRadius(belt, { outsideMm: 30, side: -1 })).toBe(31.6);
    expect(pitchRadius(belt, { outsideMm: 30, side: 1 })).toBe(33);
  });
});
