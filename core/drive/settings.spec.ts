import fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import {
  type Arm,
  angleAtReading,
  carrierAt,
  extensionAt,
  limitsOf,
  type Plunger,
  readingAt,
} from './carrier';
import { type Layout, LayoutSchema, nominalLength, senseOf, type Wheel } from './layout';
import { circlesOf, solvePath } from './path';
import { tensionerSettings, travelFrom } from './tensioner';
import { AS_MADE, driveState } from './what-if';

const seed = fc.readConfigureGlobal()?.seed ?? 11;
const RAD = Math.PI / 180;

/** Numbers in [0, 1) from a seed (mulberry32), so that a failing drive can be drawn again. */
function randomFrom(start: number): () => number {
  let a = start;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Wheels about a ring, one of them on an eccentric or an arm; it may or may not be able to exist. */
function randomDrive(random: () => number): { layout: Layout; tensioner: number } {
  const between = (a: number, b: number) => a + (b - a) * random();
  const n = 3 + Math.floor(random() * 3);
  const tensioner = 1 + Math.floor(random() * (n - 1));
  const back = random() < 0.6;
  const wheels: Wheel[] = Array.from({ length: n }, (_, i) => {
    const a = ((i + between(-0.3, 0.3)) / n) * 2 * Math.PI;
    const far = between(90, 170) * (i === tensioner && back ? 0.55 : 1);
    const smooth = i === tensioner || random() < 0.3;
    return {
      id: `w${i}`,
      name: `W${i}`,
      role: i === 0 ? 'crank' : i === tensioner ? 'tensioner' : 'cam',
      x: far * Math.cos(a),
      y: far * Math.sin(a),
      ...(smooth && i > 0 ? { outsideMm: between(14, 34) } : { teeth: Math.floor(between(16, 44)) }),
      side: i === tensioner && back ? -1 : 1,
      rimMm: 0,
    };
  });
  const w = wheels[tensioner]!;
  const arm = between(4, 40);
  const at = between(0, 360);
  const pivot = { x: w.x - arm * Math.cos(at * RAD), y: w.y - arm * Math.sin(at * RAD) };
  const window = { from: 20, nominal: 30, to: 40 };
  const turn = random() < 0.5 ? ('cw' as const) : ('ccw' as const);
  w.carrier =
    random() < 0.5
      ? { kind: 'eccentric', pivot, arm, startDeg: between(0, 360), turn, keyTurn: turn, window, endDeg: 90 }
      : { kind: 'arm', pivot, arm, startDeg: between(0, 360), turn, sweepDeg: between(30, 340), window };
  const layout: Layout = {
    id: 'r',
    kind: 'belt',
    runs: 'ccw',
    pitchMm: 8,
    count: 100,
    backMm: 1.6,
    toothMm: 3.2,
    wheels,
  };
  return { layout, tensioner };
}

/** Second method: the full path at many carrier angles, NaN where the drive cannot exist. */
function denseScan(layout: Layout, tensioner: number, steps: number): { deg: number; mm: number }[] {
  const carrier = layout.wheels[tensioner]!.carrier!;
  const [from, sweep] = carrier.kind === 'arm' ? [carrier.startDeg, carrier.sweepDeg] : [0, 360];
  const sign = carrier.kind === 'arm' && carrier.turn === 'cw' ? -1 : 1;
  return Array.from({ length: steps + 1 }, (_, k) => {
    const deg = from + (sign * sweep * k) / steps;
    const path = solvePath(circlesOf(layout, [{ wheel: tensioner, carrierDeg: deg }]), 1);
    return { deg, mm: path.ok ? path.value.lengthMm : NaN };
  });
}
const apart = (a: number, b: number) => Math.abs(((((a - b) % 360) + 540) % 360) - 180);

describe('settings of three thousand random drives', () => {
  it('are those that a dense scan of the full path finds, also near the longest and shortest reach', () => {
    const random = randomFrom(20261125);
    const step = 1.5;
    let judged = 0;
    let near = 0;
    for (let drive = 0; drive < 3000; drive++) {
      const { layout, tensioner } = randomDrive(random);
      const carrier = layout.wheels[tensioner]!.carrier!;
      const sweep = carrier.kind === 'arm' ? carrier.sweepDeg : 360;
      const scan = denseScan(layout, tensioner, Math.round(sweep / step));
      const real = scan.filter((s) => !Number.isNaN(s.mm)).map((s) => s.mm);
      if (real.length < 3) continue;
      const [low, high] = [Math.min(...real), Math.max(...real)];
      if (high - low < 0.01) continue;
      // a length that is reached, now and then only just
      const pick = random();
      const target = pick < 0.3 ? high - 1e-4 : pick < 0.4 ? low + 1e-4 : low + (high - low) * random();
      const settings = tensionerSettings(layout, target - nominalLength(layout));
      const label = `drive ${drive}, ${target} mm of ${low} to ${high}`;
      if (!settings.ok) {
        fail(`${label}: ${settings.error.code}`);
        continue;
      }
      const { found, impossible, reach } = settings.value;
      expect(reach.maxMm)
        .withContext(label)
        .toBeGreaterThan(high - 1e-9);
      expect(reach.minMm)
        .withContext(label)
        .toBeLessThan(low + 1e-9);
      for (const s of found)
        expect(Math.abs(s.path.lengthMm - target))
          .withContext(label)
          .toBeLessThan(1e-7);
      const all = [...found, ...impossible].map((s) => s.carrierDeg);
      scan.forEach((s, k) => {
        const next = scan[k + 1];
        if (!next || !((s.mm - target) * (next.mm - target) < 0)) return;
        const hit = all.some(
          (deg) => apart(deg, (s.deg + next.deg) / 2) <= Math.abs(next.deg - s.deg) / 2 + 1e-6,
        );
        expect(hit)
          .withContext(`${label}: passed near ${s.deg}°, found ${all.join(', ')}`)
          .toBeTrue();
      });
      if (pick < 0.4) near++;
      judged++;
    }
    expect(judged).toBeGreaterThan(1500);
    expect(near).toBeGreaterThan(500);
  });

  it('can follow growth only as far as no wheel lets go and the path gets longer', () => {
    const random = randomFrom(7);
    let judged = 0;
    for (let drive = 0; drive < 400; drive++) {
      const { layout, tensioner } = randomDrive(random);
      const carrier = layout.wheels[tensioner]!.carrier!;
      const sweep = carrier.kind === 'arm' ? carrier.sweepDeg : 360;
      const scan = denseScan(layout, tensioner, Math.round(sweep * 2));
      const start = scan.find((s) => !Number.isNaN(s.mm));
      if (!start) continue;
      const settings = tensionerSettings(layout, start.mm - nominalLength(layout));
      if (!settings.ok) continue;
      for (const s of settings.value.found) {
        // second method: walk in small steps of the full path from the setting on while it grows
        const dir = s.takeUp === 'ccw' ? 1 : -1;
        const limit = (deg: number) => {
          const past =
            carrier.kind === 'arm' ? (deg - carrier.startDeg) * (carrier.turn === 'cw' ? -1 : 1) : 1;
          return carrier.kind === 'arm' && (past < -1e-9 || past > carrier.sweepDeg + 1e-9);
        };
        let best = s.path.lengthMm;
        for (let deg = s.carrierDeg + dir * 0.1; !limit(deg); deg += dir * 0.1) {
          const path = solvePath(circlesOf(layout, [{ wheel: tensioner, carrierDeg: deg }]), senseOf(layout));
          if (!path.ok || path.value.lengthMm < best) break;
          // past its end of travel nothing follows any more
          const reading = readingAt(carrier, deg);
          if (s.takeUp === carrier.turn && reading > limitsOf(carrier).end && s.reading <= reading) break;
          best = path.value.lengthMm;
        }
        const { followsMm: follows } = travelFrom(layout, settings.value, s);
        expect(follows - (best - s.path.lengthMm))
          .withContext(`drive ${drive} at ${s.carrierDeg}°`)
          .toBeGreaterThan(-1e-6);
        // the walk stops up to a tenth of a degree early
        expect(follows - (best - s.path.lengthMm))
          .withContext(`drive ${drive}`)
          .toBeLessThan(0.2);
        judged++;
      }
    }
    expect(judged).toBeGreaterThan(100);
  });
});

describe('a flat pad', () => {
  const arm: Pick<Arm, 'pivot'> = { pivot: { x: 12, y: -7 } };
  const base = {
    base: { x: -31, y: 18 },
    axisDeg: 20,
    window: { from: 0, nominal: 5, to: 9 },
    minMm: 0,
    maxMm: 20,
    ratcheted: true,
  };

  it('moves a plunger as a foot does at the angle at which the foot lies on it, and in closed form beside it', () => {
    fc.assert(
      fc.property(fc.double({ min: -12, max: 12, noNaN: true }), (deg) => {
        const pad: Plunger = { ...base, foot: { padMm: 9, offsetDeg: 15 } };
        const x = extensionAt(arm, pad, deg);
        // second method: intersect the axis with the plane by two points of the plane
        const n = (deg + 15) * RAD;
        const on = { x: arm.pivot.x - 9 * Math.cos(n), y: arm.pivot.y - 9 * Math.sin(n) };
        const tip = { x: -31 + x * Math.cos(20 * RAD), y: 18 + x * Math.sin(20 * RAD) };
        const across = (tip.x - on.x) * Math.cos(n) + (tip.y - on.y) * Math.sin(n);
        expect(Math.abs(across)).toBeLessThan(1e-9);
        expect(x).toBeGreaterThan(0);
      }),
      { seed },
    );
  });

  it('is read back from its extension over the sweep, on the demo drives that have one', () => {
    let seen = 0;
    for (const l of demoPack().layouts) {
      for (const w of l.wheels) {
        if (w.carrier?.kind !== 'arm' || !w.carrier.plunger || !('padMm' in w.carrier.plunger.foot)) continue;
        for (const deg of [0.2, 0.5, 0.8].map((f) => carrierAt(w.carrier!, f * (w.carrier as Arm).sweepDeg)))
          expect(angleAtReading(w.carrier, extensionAt(w.carrier, w.carrier.plunger, deg))).toBeCloseTo(
            deg,
            6,
          );
        seen++;
      }
    }
    expect(seen).toBeGreaterThan(2);
  });
});

describe('shoes', () => {
  const chain = demoPack().layouts.find((l) => l.kind === 'chain')!;
  const at = chain.wheels.findIndex((w) => w.arc && !w.carrier);
  const withArc = (fromDeg: number, toDeg: number): Layout => ({
    ...chain,
    wheels: chain.wheels.map((w, i) => (i === at ? { ...w, arc: { fromDeg, toDeg } } : w)),
  });
  const code = (l: Layout) => {
    const path = solvePath(circlesOf(l), senseOf(l));
    return path.ok ? path.value.lengthMm.toFixed(9) : `${path.error.code} ${path.error.wheels.join()}`;
  };

  it('are the same surface however the turn is written', () => {
    const { fromDeg, toDeg } = chain.wheels[at]!.arc!;
    const length = code(chain);
    for (const [a, b] of [
      [360, 0],
      [0, 360],
      [-360, -360],
      [720, 360],
    ] as const)
      expect(code(withArc(fromDeg + a, toDeg + b)))
        .withContext(`${a}, ${b}`)
        .toBe(length);
  });

  it('refuse a strand that passes through their surface', () => {
    const wheel = { rimMm: 0, side: 1 as const };
    const rail = (toDeg: number): Layout => ({
      ...chain,
      runs: 'ccw',
      wheels: [
        { ...wheel, id: 'a', name: 'A', role: 'crank', x: 0, y: 0, teeth: 20 },
        { ...wheel, id: 'b', name: 'B', role: 'cam', x: 300, y: 0, teeth: 20 },
        // it lies on the way back, above; a surface that goes on round would come down into the strand from A to B
        {
          ...wheel,
          id: 'rail',
          name: 'Rail',
          role: 'guide',
          x: 150,
          y: -40,
          outsideMm: 80,
          arc: { fromDeg: 45, toDeg },
        },
      ],
    });
    expect(code(rail(135))).toMatch(/^\d/);
    expect(code(rail(330))).toBe('span_cuts_shoe 0,1,2');
  });
});

describe('names', () => {
  it('that every object has are only names', () => {
    const [first] = demoPack().layouts;
    const odd: Layout = {
      ...first!,
      wheels: first!.wheels.map((w) => (w.id === 'cam' ? { ...w, id: 'constructor', bank: '__proto__' } : w)),
      banks: [{ ...first!.banks![0]!, id: '__proto__' }],
    };
    const [plain, named] = [driveState(first!, AS_MADE), driveState(odd, AS_MADE)];
    expect(named.ok && named.value.phases).toEqual(plain.ok && plain.value.phases);
  });
});

describe('a layout at the border', () => {
  const [first] = demoPack().layouts;
  const issue = (change: (l: Layout) => void): string => {
    const l = structuredClone(first!);
    change(l);
    const read = LayoutSchema.safeParse(l);
    return read.success ? 'ok' : read.error.issues.map((i) => i.path.join('.')).join(' ');
  };

  it('is refused with two wheels of one id, a carried wheel off its circle, or figures that would run away', () => {
    expect(issue(() => undefined)).toBe('ok');
    expect(issue((l) => (l.wheels[1]!.id = l.wheels[0]!.id))).toBe('wheels.1.id');
    expect(issue((l) => (l.wheels.find((w) => w.carrier)!.x += 3))).toBe('wheels.2.carrier');
    expect(issue((l) => (l.wheels[0]!.teeth = 20_000_000))).toBe('wheels.0.teeth');
    expect(issue((l) => (l.wheels[0]!.markDeg = 1e7))).toBe('wheels.0.markDeg');
    expect(issue((l) => (l.wheels[0]!.x = Infinity))).toBe('wheels.0.x');
  });
});
