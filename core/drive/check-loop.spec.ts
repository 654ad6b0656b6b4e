import { nth } from '@core/quantity/must';
import { randomFrom } from '@core/quantity/random';
import { demoPack } from '../../demo/catalogue';
import { arcThrough, fitCircle } from './fit-circle';
import { checkLoop, type LoopReason } from './check-loop';
import { type Layout, pitchRadius, type Wheel } from './layout';
import { solveDrive } from './solve-drive';

/** Drives of the demo as they stand when set: every wheel where it then is, so that the belt lies on them exactly. */
const standing: Layout[] = demoPack().layouts.flatMap((layout) => {
  const s = solveDrive(layout);
  if (!s.ok || layout.wheels.some((w) => w.arc)) return [];
  const wheels = layout.wheels.map((w, i): Wheel => {
    const { x, y } = nth(s.value.circles, i);
    return { ...w, x, y, carrier: undefined };
  });
  return [{ ...layout, wheels }];
});
const U = 0.6;
const rimsOf = (l: Layout) =>
  l.wheels.flatMap((w, wheel) => (w.teeth === undefined ? [] : [{ wheel, mm: pitchRadius(l, w), u: 0.3 }]));
const withWheel = (l: Layout, i: number, change: Partial<Wheel>): Layout => ({
  ...l,
  wheels: l.wheels.map((w, k) => (k === i ? { ...w, ...change } : w)),
});
const scaledBy = (l: Layout, by: number): Layout => ({
  ...l,
  wheels: l.wheels.map((w) => ({
    ...w,
    x: w.x * by,
    y: w.y * by,
    ...(w.outsideMm === undefined ? {} : { outsideMm: w.outsideMm * by }),
  })),
});
const first = (l: Layout, rims = rimsOf(l)): LoopReason | undefined => checkLoop(l, U, rims).reasons[0];

describe('a circle through points', () => {
  it('is found again from any arc of it, wherever it lies', () => {
    const random = randomFrom(7);
    for (let k = 0; k < 200; k++) {
      const [x, y, r] = [random() * 900 - 450, random() * 900 - 450, 5 + random() * 90];
      const [from, width] = [random() * 7, 0.6 + random() * 5];
      const points = Array.from({ length: 3 + Math.floor(random() * 6) }, (_, i, n = 9) => {
        const a = from + (width * i) / n;
        return { x: x + r * Math.cos(a), y: y + r * Math.sin(a) };
      });
      const c = fitCircle(points);
      if (!c.ok) throw new Error(c.error.code);
      expect(Math.hypot(c.value.x - x, c.value.y - y) + Math.abs(c.value.r - r)).toBeLessThan(1e-5);
    }
  });

  it('lies no nearer to the points than any circle beside it', () => {
    const random = randomFrom(11);
    const points = Array.from({ length: 12 }, (_, i) => ({
      x: 40 * Math.cos(i) + random() - 0.5,
      y: 40 * Math.sin(i) + random() - 0.5,
    }));
    const sum = (x: number, y: number, r: number) =>
      points.reduce((s, p) => s + (Math.hypot(p.x - x, p.y - y) - r) ** 2, 0);
    const c = fitCircle(points);
    if (!c.ok) throw new Error(c.error.code);
    const { x, y, r } = c.value;
    const least = sum(x, y, r);
    expect(Math.sqrt(least / points.length)).toBeCloseTo(c.value.rmsMm, 9);
    for (const [dx, dy, dr] of [
      [1e-3, 0, 0],
      [-1e-3, 0, 0],
      [0, 1e-3, 0],
      [0, -1e-3, 0],
      [0, 0, 1e-3],
      [0, 0, -1e-3],
    ] as const)
      expect(sum(x + dx, y + dy, r + dr)).toBeGreaterThan(least);
  });

  it('is none through two, through one thrice, or through a line', () => {
    const at = (x: number) => ({ x, y: 2 * x + 1 });
    expect(fitCircle([at(0), at(1)])).toEqual({ ok: false, error: { code: 'too_few_points' } });
    expect(fitCircle([at(3), at(3), at(3)])).toEqual({ ok: false, error: { code: 'in_a_line' } });
    expect(fitCircle([at(0), at(1), at(2), at(5)])).toEqual({ ok: false, error: { code: 'in_a_line' } });
  });

  it('has the arc on which the points lie, also across the line from 180° to −180°', () => {
    const on = (...deg: number[]) =>
      deg.map((d) => ({ x: Math.cos((d * Math.PI) / 180), y: Math.sin((d * Math.PI) / 180) }));
    const arc = arcThrough({ x: 0, y: 0 }, on(200, 170, 185));
    expect(arc.fromDeg).toBeCloseTo(170, 6);
    expect(arc.toDeg).toBeCloseTo(200, 6);
    expect(arcThrough({ x: 0, y: 0 }, on(10, 40, 25)).toDeg).toBeCloseTo(40, 6);
  });
});

describe('a loop that is closed', () => {
  it('closes on every drive of the demo as it stands, and gives no reasons', () => {
    expect(standing.length).toBeGreaterThan(5);
    for (const l of standing) {
      const c = checkLoop(l, U, rimsOf(l));
      expect({ id: l.id, closes: c.closes, reasons: c.reasons }).toEqual({
        id: l.id,
        closes: true,
        reasons: [],
      });
      expect(Math.abs(c.offMm ?? 99)).toBeLessThan(0.05);
    }
  });

  it('with a miscounted belt it says so first, with the count that is right', () => {
    for (const l of standing)
      for (const by of [-3, -1, 1, 2])
        expect(first({ ...l, count: l.count + by })).toEqual(
          jasmine.objectContaining({ what: 'count', count: l.count }),
        );
  });

  it('with three teeth too many on a wheel it names that wheel before all others, by its rim', () => {
    for (const l of standing)
      l.wheels.forEach((w, i) => {
        if (w.teeth === undefined) return;
        const found = first(withWheel(l, i, { teeth: w.teeth + 3 }), rimsOf(l));
        // Two teeth of a wheel with half a turn of belt on it are one of the belt: the rim alone parts them.
        expect(found).toEqual(jasmine.objectContaining({ what: 'teeth', wheel: i, rims: 'for' }));
      });
  });

  it('with everything picked too large it says the scale, and by how much', () => {
    for (const l of standing) {
      const rims = rimsOf(l).map((r) => ({ ...r, mm: r.mm * 1.06 }));
      const found = checkLoop(scaledBy(l, 1.06), U, rims).reasons.find((r) => r.what === 'scale');
      expect(found?.what === 'scale' ? found.factor : 0).toBeCloseTo(1.06, 3);
    }
  });

  it('with a wheel on the wrong side of the belt it names that wheel among the reasons', () => {
    let tried = 0;
    for (const l of standing)
      l.wheels.forEach((w, i) => {
        if (i === 0 || w.teeth !== undefined) return;
        const wrong = checkLoop(withWheel(l, i, { side: w.side === 1 ? -1 : 1 }), U, rimsOf(l));
        tried++;
        if (!wrong.closes)
          expect(wrong.reasons).toContain(jasmine.objectContaining({ what: 'side', wheel: i }));
      });
    expect(tried).toBeGreaterThan(5);
  });

  it('is no reason to doubt anything where the belt is off by less than one can measure', () => {
    let sure = 0;
    for (const l of standing) {
      const off = checkLoop(withWheel(l, 1, { x: nth(l.wheels, 1).x + U }), U);
      if (Math.abs(off.offMm ?? 99) >= 3 * U) continue;
      expect(off.reasons).toEqual([]);
      sure++;
    }
    expect(sure).toBeGreaterThan(standing.length / 2);
  });
});
